package org.mossbank.server.calibration;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.Mark;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.shared.Problem;

/**
 * All that a calibration is shown and worked out from. Criteria go by key: versions share them, and each has ids of its own.
 *
 * @param criteria of the version that was graded by at first
 * @param keys     key of each criterion of both versions
 * @param first    sheets that were sent in before the talk, or by somebody who came in late
 * @param again    sheets that were sent in after it
 * @param answers  in the order in which they are shown
 */
record CalibrationBasis(
        Calibration calibration,
        List<PromptView> prompts,
        List<CriterionView> criteria,
        Map<CriterionId, String> keys,
        List<Grading.SheetRecord> first,
        List<Grading.SheetRecord> again,
        List<Shown> answers,
        List<Calibrations.Agreed> agreed) {

    /** An answer at its place, from 1; its order is that of random ids, so it hints at no candidate. */
    record Shown(int place, AnswerId id, PromptView prompt, int ofPrompt) {}

    /** An answer on a criterion. */
    record Cell(AnswerId answer, String criterion) {}

    static List<Shown> inOrder(List<PromptView> prompts, Map<AnswerId, PromptId> onSheets) {
        List<Shown> shown = new ArrayList<>();
        for (PromptView prompt : prompts) {
            int ofPrompt = 1;
            List<AnswerId> own = onSheets.entrySet().stream()
                    .filter(e -> e.getValue().equals(prompt.id()))
                    .map(Map.Entry::getKey)
                    .sorted(Comparator.comparing(AnswerId::toString))
                    .toList();
            for (AnswerId answer : own) {
                shown.add(new Shown(shown.size() + 1, answer, prompt, ofPrompt++));
            }
        }
        return shown;
    }

    /** The answers alone: what is seen before the talk, even by a lead. */
    CalibrationBasis ungraded() {
        return new CalibrationBasis(calibration, prompts, criteria, keys, List.of(), List.of(), answers, agreed);
    }

    /** @throws Problem 404 if there is no answer at this place */
    Shown shown(int place) {
        if (place < 1 || place > answers.size()) {
            throw Problem.notFound("This answer");
        }
        return answers.get(place - 1);
    }

    List<CriterionView> criteriaFor(PromptView prompt) {
        return criteria.stream().filter(c -> c.appliesTo(prompt.kind().id())).toList();
    }

    Optional<CriterionView> criterion(@Nullable String key) {
        return criteria.stream().filter(c -> c.key().equals(key)).findFirst();
    }

    String key(CriterionId criterion) {
        return Require.known(keys, criterion);
    }

    /** Sheets that were sent in before anybody saw another's: those of people who came in later are left out. */
    List<Grading.SheetRecord> independent() {
        Instant talk = calibration.course().talkOpenedAt();
        return talk == null
                ? first
                : first.stream()
                        .filter(s -> s.sentAt() != null && !s.sentAt().isAfter(talk))
                        .toList();
    }

    /** What each rater gave each answer on each criterion. */
    Map<Cell, Map<AccountId, Mark>> marks(List<Grading.SheetRecord> sheets) {
        Map<Cell, Map<AccountId, Mark>> marks = new HashMap<>();
        for (Grading.SheetRecord sheet : sheets) {
            for (Grading.AnswerRecord answer : sheet.answers()) {
                answer.marks()
                        .forEach((criterion, mark) -> marks.computeIfAbsent(
                                        new Cell(answer.answerId(), key(criterion)), c -> new HashMap<>())
                                .put(sheet.raterId(), mark));
            }
        }
        return marks;
    }

    /** Levels that were said beforehand, or settled on, by cell. */
    Map<Cell, Integer> levels(Calibrations.Source source) {
        return agreed.stream()
                .filter(a -> a.source() == source)
                .collect(Collectors.toMap(
                        a -> new Cell(a.answerId(), key(a.criterionId())), Calibrations.Agreed::level, (a, b) -> b));
    }

    List<AccountId> raters() {
        return first.stream().map(Grading.SheetRecord::raterId).distinct().toList();
    }
}
