package org.mossbank.server.memo.document;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.mossbank.server.memo.document.MemoDocument.MemoPart;
import org.mossbank.server.memo.document.MemoDocument.MemoTable;
import org.mossbank.server.recommendation.AnswerGrades;
import org.mossbank.server.shared.wording.Numerals;

/** Puts a memo together from what a study says and what its lead writes. */
public final class MemoComposer {
    private MemoComposer() {}

    /** @param words what the lead writes, by part */
    public static MemoDocument compose(MemoBasis basis, NamesShown shown, Map<MemoSection, String> words) {
        MemoNames names = MemoNames.of(shown, basis.raters(), basis.leads());
        List<MemoPart> parts = Arrays.stream(MemoSection.values())
                .map(s -> of(s, basis, shown, names).part(words.getOrDefault(s, ""), names::in))
                .toList();
        return new MemoDocument(
                basis.study().title(), basis.at(), basis.report().revision(), shown, parts, ResultParts.figures(basis));
    }

    private static PartInHand of(MemoSection section, MemoBasis basis, NamesShown shown, MemoNames names) {
        return switch (section) {
            case SUMMARY -> SummaryPart.of(basis);
            case QUESTION -> StudyParts.question(basis);
            case RULE -> StudyParts.rule(basis);
            case CANDIDATES -> StudyParts.candidates(basis);
            case PROMPTS -> StudyParts.prompts(basis);
            case RATERS -> StudyParts.raters(basis, shown, names);
            case AGREEMENT -> ResultParts.agreement(basis);
            case OUTCOME -> ResultParts.outcome(basis);
            case ROBUSTNESS -> ResultParts.robustness(basis, shown);
            case TRADE_OFFS -> TradeOffParts.tradeOffs(basis);
            case FACTS -> TradeOffParts.facts(basis);
            case LIMITS -> OnTheWayParts.limits(basis);
            case ACTS -> OnTheWayParts.acts(basis);
            case EXPECTATIONS -> ExpectedParts.expectations(basis, shown);
            case DISSENT -> OnTheWayParts.dissent(basis, names);
            case APPENDIX ->
                new PartInHand(MemoSection.APPENDIX)
                        .say(
                                "Levels from 0, as raters gave them before anybody saw another’s; the score is the mean of 100, as the rule scores. "
                                        + (shown == NamesShown.NOT_AT_ALL ? "In order of height." : ""));
        };
    }

    /** The table of the appendix; long, so it is made where it is asked for. */
    public static MemoTable appendix(MemoBasis basis, NamesShown shown, List<AnswerGrades> grades) {
        MemoNames names = MemoNames.of(shown, basis.raters(), basis.leads());
        boolean again = grades.stream().anyMatch(g -> g.attempt() > 1);
        return new MemoTable(
                "Grades by answer",
                Stream.of("Prompt", "Candidate", "Score", "Levels")
                        .map(h -> new MemoDocument.MemoColumn(h, h.equals("Score")))
                        .toList(),
                grades.stream()
                        .map(g -> PartInHand.row(
                                names.in(g.prompt()),
                                basis.name(g.candidateId()) + (again ? ", attempt " + g.attempt() : ""),
                                g.score() == null ? "–" : Numerals.points(g.score()),
                                levels(g, shown, names)))
                        .toList());
    }

    private static String levels(AnswerGrades grades, NamesShown shown, MemoNames names) {
        if (grades.levels().isEmpty()) {
            return "left nothing to grade";
        }
        return grades.levels().stream()
                .map(l -> l.criterion() + ": "
                        + (shown == NamesShown.NOT_AT_ALL
                                ? l.given().stream()
                                        .map(AnswerGrades.Given::level)
                                        .sorted()
                                        .map(String::valueOf)
                                        .collect(Collectors.joining(" "))
                                : l.given().stream()
                                        .map(g -> names.of(g.raterId()) + " " + g.level())
                                        .collect(Collectors.joining(", "))))
                .collect(Collectors.joining("; "));
    }
}
