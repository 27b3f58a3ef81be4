package org.mossbank.server.oversight;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.Optional;
import org.mossbank.server.figures.FiguresOf;
import org.mossbank.server.figures.KeptFigures;
import org.mossbank.server.figures.WorkedOutAhead;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;

/** How raters grade. Not for a lead who grades, whom it would sway. */
@Service
class OversightService implements WorkedOutAhead {
    private static final FiguresOf<OversightView> OVERSIGHT = new FiguresOf<>("oversight", OversightView.class);
    private static final int STUDIES_AT_ONCE = 200;
    /** What is not sent in yet moves no revision: how long somebody has read is told this late. */
    private static final Duration LATE = Duration.ofMinutes(1);

    private record Key(StudyId study, long revision) {}

    private final Grading grading;
    private final OversightComputation computation;
    private final KeptFigures kept;
    private final Cache<Key, OversightView> ofLate = Caffeine.newBuilder()
            .maximumSize(STUDIES_AT_ONCE)
            .expireAfterWrite(LATE)
            .build();

    OversightService(Grading grading, OversightComputation computation, KeptFigures kept) {
        this.grading = grading;
        this.computation = computation;
        this.kept = kept;
    }

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public OversightView oversight(StudyId study) {
        return of(study);
    }

    @Override
    @SystemOnly
    public void workOut(StudyId study) {
        of(study);
    }

    private OversightView of(StudyId study) {
        Optional<Grading.RoundState> round = grading.round(study);
        long revision = round.map(Grading.RoundState::revision).orElse(0L);
        boolean closed = round.map(Grading.RoundState::hasEnded).orElse(false);
        return closed
                ? kept.of(OVERSIGHT, study, revision, () -> computation.compute(study))
                : ofLate.get(new Key(study, revision), k -> computation.compute(study));
    }
}
