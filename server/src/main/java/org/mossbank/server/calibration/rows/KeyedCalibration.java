package org.mossbank.server.calibration.rows;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.calibration.Calibrations;
import org.mossbank.server.files.Keys;
import org.mossbank.server.files.NewIds;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CriterionId;

/** A calibration, with everything in it by its key. */
public record KeyedCalibration(
        int number, Calibrations.CalibrationCourse course, List<KeyedWord> words, List<KeyedLevel> levels) {

    /** @param rater absent for the lead */
    public record KeyedWord(
            String answer,
            @Nullable String criterion,
            Calibrations.@Nullable AtLines lines,
            @Nullable String rater,
            Instant at,
            String words,
            boolean namesKnown) {}

    public record KeyedLevel(
            String answer,
            String criterion,
            Calibrations.Source source,
            int level,
            String reason,
            String by,
            Instant at) {}

    public static KeyedCalibration of(Calibrations.Kept kept, Keys keys) {
        return new KeyedCalibration(
                kept.number(),
                kept.course(),
                kept.words().stream()
                        .map(w -> new KeyedWord(
                                keys.of(w.answerId()),
                                keys.orNone(w.criterionId()),
                                w.lines(),
                                keys.orNone(w.author()),
                                w.at(),
                                w.words(),
                                w.namesKnown()))
                        .toList(),
                kept.levels().stream()
                        .map(l -> new KeyedLevel(
                                keys.of(l.answerId()),
                                keys.of(l.criterionId()),
                                l.source(),
                                l.level(),
                                l.reason(),
                                l.by(),
                                l.at()))
                        .toList());
    }

    /** As it is kept; the lead's words are those of whoever brings it in. */
    public Calibrations.Kept kept(NewIds ids, AccountId lead) {
        Map<String, CriterionId> criteria = ids.criteriaOf(course.rubricVersion());
        return new Calibrations.Kept(
                number,
                course,
                words.stream()
                        .map(w -> new Calibrations.Word(
                                Require.known(ids.answers(), w.answer()),
                                w.criterion() == null ? null : Require.known(criteria, w.criterion()),
                                w.lines(),
                                w.rater() == null ? lead : Require.known(ids.people(), w.rater()),
                                w.words(),
                                w.at(),
                                w.namesKnown()))
                        .toList(),
                levels.stream()
                        .map(l -> new Calibrations.Agreed(
                                Require.known(ids.answers(), l.answer()),
                                Require.known(criteria, l.criterion()),
                                l.source(),
                                l.level(),
                                l.reason(),
                                l.by(),
                                l.at()))
                        .toList());
    }
}
