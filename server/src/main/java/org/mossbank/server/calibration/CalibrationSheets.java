package org.mossbank.server.calibration;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.FactsOfAnswers;
import org.mossbank.server.answer.specimen.Specimens;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;

/** Sheets that raters calibrate by. Within the transaction of whoever asks. */
@Component
class CalibrationSheets {
    private final Grading grading;
    private final FactsOfAnswers answers;
    private final Specimens specimens;
    private final Candidates candidates;
    private final Studies studies;

    CalibrationSheets(
            Grading grading, FactsOfAnswers answers, Specimens specimens, Candidates candidates, Studies studies) {
        this.grading = grading;
        this.answers = answers;
        this.specimens = specimens;
        this.candidates = candidates;
        this.studies = studies;
    }

    /** @param candidate absent for a specimen */
    record Gradable(
            AnswerId id, PromptId promptId, @Nullable CandidateId candidate) {}

    /** Answers that leave something to grade, and what the bank brought along. */
    List<Gradable> gradable(StudyId study, Collection<PromptId> prompts) {
        return Stream.concat(
                        answers.ofStudy(study).stream()
                                .filter(a -> prompts.contains(a.promptId()) && !a.isWithoutText())
                                .map(a -> new Gradable(a.id(), a.promptId(), a.candidateId())),
                        specimens.ofPrompts(study, prompts).stream().map(s -> new Gradable(s.id(), s.promptId(), null)))
                .toList();
    }

    /**
     * Lays all of some prompts' answers before raters, in an order of each rater's own that the study's seed gives; nobody grades
     * their own answers.
     *
     * @param version of the rubric
     * @param again   whether it is after the talk
     */
    void lay(StudyId study, Collection<AccountId> raters, List<PromptId> prompts, int version, boolean again) {
        // Again, and to whoever comes in late, what was graded before: nothing that came in since.
        Set<AnswerId> before = grading.answersOn(study, prompts).keySet();
        List<Gradable> all = gradable(study, prompts).stream()
                .filter(a -> before.isEmpty() || before.contains(a.id()))
                .toList();
        List<CandidateView> people = candidates.ofStudy(study);
        long seed = studies.get(study).seed();
        List<Grading.SheetRecord> sheets = new ArrayList<>();
        for (AccountId rater : raters) {
            Set<CandidateId> own = people.stream()
                    .filter(c -> rater.equals(c.content().personId()))
                    .map(CandidateView::id)
                    .collect(Collectors.toSet());
            Random random = new Random(seed ^ rater.value().getLeastSignificantBits() ^ (again ? 1 : 0));
            List<PromptId> order = new ArrayList<>(prompts);
            Collections.shuffle(order, random);
            int place = 0;
            for (PromptId prompt : order) {
                List<AnswerId> onSheet = new ArrayList<>(all.stream()
                        .filter(a ->
                                a.promptId().equals(prompt) && (a.candidate() == null || !own.contains(a.candidate())))
                        .map(Gradable::id)
                        .sorted()
                        .toList());
                Collections.shuffle(onSheet, random);
                if (!onSheet.isEmpty()) {
                    sheets.add(Grading.SheetRecord.blank(rater, prompt, place++, again)
                            .by(version)
                            .with(IntStream.range(0, onSheet.size())
                                    .mapToObj(i -> Grading.AnswerRecord.blank(onSheet.get(i), i))
                                    .toList()));
                }
            }
        }
        grading.calibrate(study, sheets);
    }
}
