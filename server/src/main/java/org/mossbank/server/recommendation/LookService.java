package org.mossbank.server.recommendation;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.Actor;
import org.mossbank.server.acts.ActSort;
import org.mossbank.server.acts.Acts;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.RoundStage;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.json.JsonMapper;

/** Seeing standings before grading has ended, as often as the brief allows. */
@Service
@Transactional(readOnly = true)
class LookService {
    private static final int STUDIES_KEPT = 200;

    private record Key(StudyId study, long revision) {}

    /** All grades and answers are read to know which prompts count: once for each state of them. */
    private final Cache<Key, RecommendationData.Information> counted =
            Caffeine.newBuilder().maximumSize(STUDIES_KEPT).build();

    private final LookRepository looks;
    private final Studies studies;
    private final Grading grading;
    private final RecommendationComputation computation;
    private final TransactionTemplate transactions;
    private final LookTaking taking;
    private final Acts acts;
    private final Actor actor;

    LookService(
            LookRepository looks,
            Studies studies,
            Grading grading,
            RecommendationComputation computation,
            TransactionTemplate transactions,
            LookTaking taking,
            Acts acts,
            Actor actor) {
        this.looks = looks;
        this.studies = studies;
        this.grading = grading;
        this.computation = computation;
        this.transactions = transactions;
        this.taking = taking;
        this.acts = acts;
        this.actor = actor;
    }

    /**
     * Who may see how candidates stand, and when.
     *
     * @param hidden  whether nobody may, because grading goes on
     * @param allowed looks that the brief allows, the one at the end included
     * @param taken   before the end, oldest first
     * @param sent    sheets that are sent in
     * @param sheets  that there are
     * @param counted prompts that would count at a look now
     * @param planned prompts of the study
     * @param refusal why no look can be taken now; absent if one can
     */
    record LooksView(
            boolean hidden,
            int allowed,
            List<LookTaken> taken,
            int sent,
            int sheets,
            int counted,
            int planned,
            @Nullable String refusal) {}

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public LooksView looks(StudyId study) {
        boolean hidden = studies.stage(study) == RoundStage.Stage.GRADING;
        Grading.SheetTotals totals = grading.totals(study);
        long revision = grading.round(study).map(Grading.RoundState::revision).orElse(0L);
        RecommendationData.Information there =
                counted.get(new Key(study, revision), k -> computation.information(study));
        List<LookTaken> taken = looks.ofStudy(study);
        int allowed = studies.get(study).brief().rule().looks();
        return new LooksView(
                hidden,
                allowed,
                taken,
                totals.sent(),
                totals.sheets(),
                there.counted(),
                there.planned(),
                refusal(hidden, allowed, taken, there));
    }

    private static @Nullable String refusal(
            boolean hidden, int allowed, List<LookTaken> taken, RecommendationData.Information there) {
        if (!hidden) {
            return "Grading does not go on.";
        }
        if (taken.size() + 1 >= allowed) {
            return allowed == 1
                    ? "The brief allows one look, at the end of grading."
                    : "The brief allows %d looks; the last is the end of grading.".formatted(allowed);
        }
        if (there.counted() == 0) {
            return "No prompt has as many raters on each answer as the rule asks for.";
        }
        boolean anythingNew = taken.isEmpty() || taken.get(taken.size() - 1).information() < there.share();
        return anythingNew ? null : "No more prompts count than at the last look.";
    }

    /**
     * Takes the next look: what is seen is kept, and spends its part of the allowance.
     *
     * @throws Problem 409 if none may be taken now, or somebody else took it
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public LookTaken take(StudyId study) {
        LooksView now = looks(study);
        String refusal = now.refusal();
        if (refusal != null) {
            throw new Problem(ProblemType.NOT_READY, refusal);
        }
        LookTaking.Worked worked = taking.workOut(study, actor.now(), actor.name());
        transactions.executeWithoutResult(status -> keep(study, worked));
        return worked.taken();
    }

    private void keep(StudyId study, LookTaking.Worked worked) {
        taking.keep(study, worked);
        acts.keep(study, ActSort.LOOK_TAKEN, worked.taken().inWords(), "");
    }

    /** What was seen at a look. */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public RecommendationReport seen(StudyId study, int number) {
        return seen(study, number, Look::report, RecommendationReport.class);
    }

    /** What its outcome hung on. */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public RobustnessReport robustness(StudyId study, int number) {
        return seen(study, number, Look::robustness, RobustnessReport.class);
    }

    private <T> T seen(StudyId study, int number, Function<Look, Optional<String>> part, Class<T> type) {
        return looks.findById(new Look.Key(study, number))
                .flatMap(part)
                .map(json -> JsonMapper.shared().readValue(json, type))
                .orElseThrow(() -> Problem.notFound("What was seen at this look"));
    }
}
