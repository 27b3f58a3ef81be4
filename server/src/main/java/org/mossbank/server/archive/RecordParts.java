package org.mossbank.server.archive;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.mossbank.server.acts.ActRows;
import org.mossbank.server.acts.ActView;
import org.mossbank.server.acts.Acts;
import org.mossbank.server.files.Keys;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.rows.KeyedSheet;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.recommendation.LookRows;
import org.mossbank.server.recommendation.LookTaken;
import org.mossbank.server.recommendation.Looks;
import org.springframework.stereotype.Component;

/** A study's round with its sheets, and what was done and seen on the way. */
@Component
class RecordParts {
    private final Grading grading;
    private final Acts acts;
    private final Looks looks;

    RecordParts(Grading grading, Acts acts, Looks looks) {
        this.grading = grading;
        this.acts = acts;
        this.looks = looks;
    }

    /** Both oldest first. */
    record Kept(List<LookTaken> looks, List<ActView> acts) {
        /** @param most looks that the brief allows */
        static Kept read(Tables tables, int most) {
            return new Kept(LookRows.read(tables, most), ActRows.read(tables));
        }

        void write(WrittenFiles out) {
            LookRows.write(looks, out);
            ActRows.write(acts, out);
        }
    }

    /** Absent before it was opened. */
    Optional<StudyArchive.RoundHead> round(StudyId study) {
        return grading.round(study)
                .map(r -> new StudyArchive.RoundHead(
                        r.openedAt(), r.closedAt(), r.namesOpenedAt(), r.ratersAnAnswer(), r.repeatShare()));
    }

    List<KeyedSheet> sheets(StudyId study, Keys keys) {
        return grading.records(study).stream()
                .map(s -> KeyedSheet.of(s, keys))
                .sorted(Comparator.comparing(KeyedSheet::rater).thenComparingInt(KeyedSheet::place))
                .toList();
    }

    Kept of(StudyId study) {
        return new Kept(looks.ofStudy(study), acts.ofStudy(study));
    }

    void restore(StudyId study, Kept kept) {
        looks.restore(study, kept.looks());
        acts.restore(study, kept.acts());
    }
}
