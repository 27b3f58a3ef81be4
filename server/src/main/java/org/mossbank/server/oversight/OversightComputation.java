package org.mossbank.server.oversight;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.oversight.GradedSheet;
import org.mossbank.core.oversight.Oddities;
import org.mossbank.core.oversight.Oddity;
import org.mossbank.core.oversight.Pace;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.answer.FactsOfAnswers;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.Guess;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.database.Snapshot;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;

/** Works out how raters grade: their pace, and what looks unlike judging. */
@Component
class OversightComputation {
    private final Grading grading;
    private final Studies studies;
    private final Prompts prompts;
    private final FactsOfAnswers answers;
    private final Candidates candidates;
    private final Rubrics rubrics;
    private final Snapshot snapshot;
    private final HeavyWork heavy;

    OversightComputation(
            Grading grading,
            Studies studies,
            Prompts prompts,
            FactsOfAnswers answers,
            Candidates candidates,
            Rubrics rubrics,
            Snapshot snapshot,
            HeavyWork heavy) {
        this.snapshot = snapshot;
        this.heavy = heavy;
        this.grading = grading;
        this.studies = studies;
        this.prompts = prompts;
        this.answers = answers;
        this.candidates = candidates;
        this.rubrics = rubrics;
    }

    /**
     * What it is worked out from.
     *
     * @param counted sheets that were not withdrawn, for sound prompts
     */
    private record Basis(
            List<Grading.SheetRecord> counted,
            Map<AnswerId, AnswerFacts> answers,
            Map<CriterionId, CriterionView> criteria,
            List<AccountId> raters,
            int candidates) {}

    OversightView compute(StudyId study) {
        Basis basis = snapshot.of(() -> read(study));
        return heavy.run(() -> view(basis));
    }

    private Basis read(StudyId study) {
        Set<PromptId> sound = Set.copyOf(prompts.soundIds(study));
        return new Basis(
                grading.records(study).stream()
                        .filter(s -> s.withdrawn() == null && sound.contains(s.promptId()))
                        .toList(),
                answers.ofStudy(study).stream().collect(Collectors.toMap(AnswerFacts::id, Function.identity())),
                rubrics.ofStudy(study).stream().collect(Collectors.toMap(CriterionView::id, Function.identity())),
                studies.raters(study),
                candidates.ofStudy(study).size());
    }

    private static OversightView view(Basis basis) {
        List<GradedSheet> sent = basis.counted.stream()
                .filter(s -> s.sentAt() != null)
                .map(s -> graded(s, basis.answers, basis.criteria))
                .toList();
        Map<String, List<Oddity>> odd = Oddities.in(sent);
        return new OversightView(
                basis.raters.stream()
                        .map(rater ->
                                ofRater(rater, basis.counted, sent, odd.getOrDefault(rater.toString(), List.of())))
                        .toList(),
                guesses(basis.counted, basis.answers, basis.candidates));
    }

    private static GradedSheet graded(
            Grading.SheetRecord sheet, Map<AnswerId, AnswerFacts> byId, Map<CriterionId, CriterionView> criteria) {
        long active = active(sheet);
        return new GradedSheet(
                sheet.raterId().toString(),
                sheet.place() + 1,
                sheet.answers().stream()
                        .mapToLong(a -> Require.known(byId, a.answerId()).characters())
                        .sum(),
                active == 0 ? OptionalLong.empty() : OptionalLong.of(active),
                sheet.answers().size(),
                (int) sheet.answers().stream()
                        .filter(OversightComputation::isExplained)
                        .count(),
                sheet.answers().stream()
                        .flatMap(a -> a.marks().entrySet().stream()
                                .filter(m -> m.getValue().level() != null)
                                .map(m -> new GradedSheet.SheetGrade(
                                        a.answerId() + "/" + m.getKey(),
                                        m.getValue().level(),
                                        Require.known(criteria, m.getKey()).highestLevel())))
                        .toList());
    }

    private static long active(Grading.SheetRecord sheet) {
        return sheet.answers().stream().mapToLong(a -> a.judgement().activeMs()).sum();
    }

    private static boolean isExplained(Grading.AnswerRecord answer) {
        return !answer.reason().isBlank()
                || answer.remarks().stream().anyMatch(r -> !r.words().isBlank());
    }

    private static OversightView.RaterOversight ofRater(
            AccountId rater, List<Grading.SheetRecord> counted, List<GradedSheet> sent, List<Oddity> odd) {
        List<Grading.SheetRecord> own =
                counted.stream().filter(s -> s.raterId().equals(rater)).toList();
        List<GradedSheet> done =
                sent.stream().filter(s -> s.rater().equals(rater.toString())).toList();
        int answersLeft = own.stream()
                .filter(s -> s.sentAt() == null)
                .mapToInt(s -> s.answers().size())
                .sum();
        long active = own.stream().mapToLong(OversightComputation::active).sum();
        return new OversightView.RaterOversight(
                rater,
                active == 0 ? null : active,
                orNull(Pace.left(done, 1)),
                orNull(Pace.left(done, answersLeft)),
                answersLeft,
                odd.stream().map(OversightComputation::view).toList());
    }

    private static @Nullable Long orNull(OptionalLong value) {
        return value.isPresent() ? value.getAsLong() : null;
    }

    private static OversightView.OddityView view(Oddity oddity) {
        if (oddity instanceof Oddity.TooFast fast) {
            String sheets = fast.sheets().stream()
                    .map(s -> "sheet %d in %s, and to skim its answers alone takes %s"
                            .formatted(s.place(), span(s.activeMs()), span(s.readingMs())))
                    .collect(Collectors.joining("; "));
            return new OversightView.OddityView(
                    OversightView.OdditySort.TOO_FAST, "Faster than the answers can be read: " + sheets + ".");
        }
        if (oddity instanceof Oddity.SameLevel same) {
            return new OversightView.OddityView(
                    OversightView.OdditySort.SAME_LEVEL,
                    "One level nearly everywhere: %d in %.0f %% of %d grades; others give it to %.0f %% of the same."
                            .formatted(same.level(), 100 * same.share(), same.grades(), 100 * same.othersShare()));
        }
        if (oddity instanceof Oddity.NoReasons none) {
            return new OversightView.OddityView(
                    OversightView.OdditySort.NO_REASONS,
                    "No word on any of %d answers; others explain %.0f %% of theirs."
                            .formatted(none.answers(), 100 * none.othersShare()));
        }
        Oddity.Drift drift = (Oddity.Drift) oddity;
        return new OversightView.OddityView(
                OversightView.OdditySort.DRIFT,
                "Another yardstick later than at first: %s the others on the earlier half of sheets, %s on the later."
                        .formatted(apart(drift.first()), apart(drift.second())));
    }

    private static String apart(double levels) {
        return String.format(Locale.ROOT, "%.1f levels %s", Math.abs(levels), levels < 0 ? "below" : "above");
    }

    private static String span(long ms) {
        long seconds = Math.max(1, Math.round(ms / 1000.0));
        return seconds < 90 ? seconds + " s" : Math.round(seconds / 60.0) + " min";
    }

    private static OversightView.@Nullable GuessCount guesses(
            List<Grading.SheetRecord> counted, Map<AnswerId, AnswerFacts> byId, int choices) {
        List<Grading.AnswerRecord> asked = new ArrayList<>();
        counted.forEach(s ->
                s.answers().stream().filter(a -> a.judgement().guess() != null).forEach(asked::add));
        if (asked.isEmpty()) {
            return null;
        }
        int named = 0;
        int right = 0;
        for (Grading.AnswerRecord answer : asked) {
            Guess guess = answer.judgement().guess();
            if (guess != null && guess.candidateId() != null) {
                named++;
                right += guess.candidateId()
                                .equals(Require.known(byId, answer.answerId()).candidateId())
                        ? 1
                        : 0;
            }
        }
        return new OversightView.GuessCount(asked.size(), asked.size() - named, right, (double) named / choices);
    }
}
