package org.mossbank.server.memo.document;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.mossbank.server.agreement.AgreementReport;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.recommendation.RecommendationReport;
import org.mossbank.server.shared.wording.Numerals;
import org.mossbank.server.study.Brief;
import org.mossbank.server.study.KeptForecast;
import org.mossbank.server.study.Reopening;

/** What was asked, by which rule, of whom, and who graded. */
final class StudyParts {
    private StudyParts() {}

    static PartInHand question(MemoBasis basis) {
        Brief brief = basis.study().brief();
        return new PartInHand(MemoSection.QUESTION)
                .point("Asked", brief.question())
                .point("For whom", brief.audience())
                .quote(brief.background());
    }

    static PartInHand rule(MemoBasis basis) {
        PartInHand part = new PartInHand(MemoSection.RULE);
        part.point("The rule", PartInHand.sentence(basis.study().brief().rule().inWords()));
        part.point("Closed", closed(basis));
        for (Reopening r : basis.report().reopenings()) {
            part.point(
                    "Opened again",
                    Numerals.moment(r.reopenedAt()) + ", by " + r.by() + ": " + PartInHand.sentence(r.reason()));
        }
        KeptForecast forecast = basis.report().forecast();
        if (forecast != null) {
            part.point("What was to be expected of it", expected(forecast));
        }
        return part.table(
                "Criteria, their weights and the least agreement on each",
                List.of("Criterion", "Weight#", "Least agreement#"),
                basis.report().rule().weights().stream()
                        .map(w -> PartInHand.row(w.name(), Numerals.fixed(w.weight(), 2), Numerals.fixed(w.floor(), 2)))
                        .toList());
    }

    private static String closed(MemoBasis basis) {
        return Optional.ofNullable(basis.study().briefClosedAt())
                .map(at -> "With the brief on " + Numerals.moment(at) + "; the round was opened on "
                        + Numerals.moment(basis.round().openedAt()) + ".")
                .orElse("The brief was never closed, and with it the rule.");
    }

    private static String expected(KeptForecast forecast) {
        String chances = forecast.leads().stream()
                .map(l -> Numerals.percent(l.recommended()) + " at a true lead of " + Numerals.points(l.points()))
                .collect(Collectors.joining(", "));
        return "By simulation when the brief was closed, " + Numerals.count(forecast.prompts(), "prompt", "prompts")
                + " and " + forecast.ratersAnAnswer() + " raters an answer would recommend a candidate in " + chances
                + " points.";
    }

    static PartInHand candidates(MemoBasis basis) {
        return new PartInHand(MemoSection.CANDIDATES)
                .table(
                        "Candidates",
                        List.of("Candidate", "Version", "Settings", "As of", "Price"),
                        basis.candidates().stream()
                                .map(c -> PartInHand.row(
                                        basis.name(c.id()) + (c.isBaseline() ? " (a person’s own answers)" : ""),
                                        c.content().version(),
                                        c.settingsLine(),
                                        asOf(c),
                                        TradeOffParts.price(c.content().price()).orElse("not known")))
                                .toList());
    }

    private static String asOf(CandidateView candidate) {
        return candidate.content().asOf() == null
                ? "not said"
                : String.valueOf(candidate.content().asOf());
    }

    static PartInHand prompts(MemoBasis basis) {
        List<PromptView> counting =
                basis.prompts().stream().filter(PromptView::isCounting).toList();
        PartInHand part = new PartInHand(MemoSection.PROMPTS);
        long families = counting.stream().map(PromptView::family).distinct().count();
        part.say(Numerals.count(counting.size(), "prompt counts", "prompts count")
                + (families < counting.size()
                        ? "; some are other wordings of one, which leaves " + families + " that stand alone."
                        : "."));
        long calibrated =
                basis.prompts().stream().filter(PromptView::isForCalibration).count();
        if (calibrated > 0) {
            part.say(Numerals.count(calibrated, "more was", "more were")
                    + " graded by all beforehand, to learn the rubric, and " + (calibrated == 1 ? "counts" : "count")
                    + " nowhere.");
        }
        for (AgreementReport.SetAsidePrompt p : basis.report().setAside()) {
            part.say("“" + p.title() + "” counts nowhere: " + PartInHand.sentence(p.reason()));
        }
        Map<String, Long> kinds = new TreeMap<>(
                counting.stream().collect(Collectors.groupingBy(p -> p.kind().name(), Collectors.counting())));
        part.table(
                "Prompts by kind",
                List.of("Kind", "Prompts#"),
                kinds.entrySet().stream()
                        .map(e -> PartInHand.row(e.getKey(), String.valueOf(e.getValue())))
                        .toList());
        return part.table(
                "Prompts that count",
                List.of("Prompt", "Kind", "Language"),
                counting.stream()
                        .sorted(Comparator.comparing((PromptView p) -> p.kind().name())
                                .thenComparing(PromptView::title))
                        .map(p -> PartInHand.row(
                                p.title(), p.kind().name(), p.content().language()))
                        .toList());
    }

    static PartInHand raters(MemoBasis basis, NamesShown shown, MemoNames names) {
        RecommendationReport.BlindingView blinding = basis.report().blinding();
        PartInHand part = new PartInHand(MemoSection.RATERS);
        part.say(Numerals.count(blinding.raters(), "person", "people")
                + " graded without names, measures or a stable order before them. "
                + (blinding.lead()
                        ? "The lead was one of them, and saw no more than any rater from the opening of the round to its close."
                        : "The lead saw names and did not grade."));
        part.say(
                blinding.giveAways() == 0
                        ? "No answer names a candidate in what raters read."
                        : Numerals.count(blinding.giveAways(), "answer names", "answers name")
                                + " a candidate in what raters read.");
        if (blinding.sentKnowing() > 0) {
            part.say("The round was opened again after it had been closed: "
                    + Numerals.count(blinding.sentKnowing(), "sheet was", "sheets were")
                    + " sent in by people who could have seen the names.");
        }
        guesses(basis).ifPresent(part::say);
        trials(basis).ifPresent(part::say);
        if (shown == NamesShown.NOT_AT_ALL) {
            return part;
        }
        return part.table(
                "Raters",
                List.of("Rater", "Grades#", "Levels below the others#", "Interval#"),
                basis.agreement().severity().stream()
                        .map(r -> PartInHand.row(
                                names.of(r.raterId()),
                                String.valueOf(r.grades()),
                                ResultParts.value(r.severity(), 2),
                                ResultParts.interval(r.severity(), 2)))
                        .sorted(Comparator.comparing(r -> r.get(0)))
                        .toList());
    }

    private static Optional<String> trials(MemoBasis basis) {
        return Optional.ofNullable(basis.trials())
                .map(t -> "The code of answers to " + Numerals.count(t.prompts(), "prompt", "prompts") + " was tried. "
                        + switch (t.shown()) {
                            case NEVER -> "Raters did not see what came of it.";
                            case FROM_THE_START ->
                                "Raters could see what came of it from the start" + looked(t.looks());
                            case AFTER_OWN_GRADE ->
                                "Raters could see what came of an answer once they had graded it" + looked(t.looks());
                        });
    }

    private static String looked(int looks) {
        return looks == 0 ? "; nobody did." : ", and looked at " + Numerals.count(looks, "answer", "answers") + ".";
    }

    private static Optional<String> guesses(MemoBasis basis) {
        return Optional.ofNullable(basis.robustness().guesses())
                .map(g -> "Who wrote it was guessed right " + g.hits() + " of " + g.tries() + " times; "
                        + Numerals.percent(g.chance()) + " would be right by chance.");
    }
}
