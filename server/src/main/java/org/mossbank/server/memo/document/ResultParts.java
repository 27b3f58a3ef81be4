package org.mossbank.server.memo.document;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.mossbank.core.robustness.Robustness;
import org.mossbank.server.recommendation.RecommendationReport;
import org.mossbank.server.recommendation.RobustnessReport;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.shared.wording.Numerals;

/** What the grades say: agreement, outcome, and what that hangs on. */
final class ResultParts {
    private static final double HIGHEST = 100;
    /** Enough to show what the outcome hangs on; the count says how many there are. */
    private static final int MOST_WITHOUT = 50;

    private ResultParts() {}

    /** A value, or why there is none. */
    static String value(Figure figure, int decimals) {
        return figure.value() == null ? "none: " + figure.undefinedReason() : Numerals.fixed(figure.value(), decimals);
    }

    /** An interval, or why there is none. */
    static String interval(Figure figure, int decimals) {
        if (figure.low() == null || figure.high() == null) {
            return figure.noIntervalReason() == null ? "none" : "none: " + figure.noIntervalReason();
        }
        return Numerals.fixed(figure.low(), decimals) + " to " + Numerals.fixed(figure.high(), decimals);
    }

    static PartInHand agreement(MemoBasis basis) {
        PartInHand part = new PartInHand(MemoSection.AGREEMENT);
        String sign = basis.study().brief().rule().coefficient().sign();
        part.say(
                "How alike raters graded, by " + sign
                        + ": 1 is agreement throughout, 0 is what chance would give. Intervals hold for these raters and other prompts, with 95 % confidence.");
        part.plot(
                "Agreement on each criterion with weight",
                sign,
                0,
                1,
                basis.report().agreement().stream()
                        .flatMap(a -> PartInHand.drawn(a.name(), a.value()).stream())
                        .toList());
        part.table(
                "Agreement by criterion",
                List.of("Criterion", sign + "#", "Interval#", "Least there must be#"),
                basis.report().agreement().stream()
                        .map(a -> PartInHand.row(
                                a.name(), value(a.value(), 2), interval(a.value(), 2), Numerals.fixed(a.floor(), 2)))
                        .toList());
        part.table(
                "How often two raters gave the same",
                List.of("Criterion", "Same level#", "At most one apart#", "Pairs of grades#"),
                basis.agreement().criteria().stream()
                        .map(c -> PartInHand.row(
                                c.name(),
                                share(c.overall().exact()),
                                share(c.overall().withinOne()),
                                String.valueOf(c.overall().pairs())))
                        .toList());
        RecommendationReport.SettledView settled = basis.report().settled();
        if (settled.splits() + settled.open() > 0) {
            part.say("Where raters lay two levels or more apart, "
                    + Numerals.count(settled.splits(), "split was", "splits were")
                    + " settled by talk afterwards and " + settled.open() + " left as "
                    + (settled.open() == 1 ? "it is" : "they are")
                    + ". No settled grade is in any figure here.");
        }
        return part;
    }

    private static String share(Figure figure) {
        return figure.value() == null ? "none" : Numerals.percent(figure.value());
    }

    static PartInHand outcome(MemoBasis basis) {
        RecommendationReport report = basis.report();
        PartInHand part = new PartInHand(MemoSection.OUTCOME);
        part.point("Outcome", report.headline());
        report.findings().forEach(f -> part.point("Because", f.sentence()));
        report.ruledOut()
                .forEach(r -> part.point(
                        "Ruled out",
                        basis.name(r.candidateId()) + ", whatever its grades: " + String.join("; ", r.reasons())));
        part.plot(
                "Scores of 100, with 95 % intervals over other prompts and raters of the sort",
                "points",
                0,
                HIGHEST,
                report.overall().stream()
                        .flatMap(s -> PartInHand.drawn(basis.name(s.candidateId()), s.adjusted()).stream())
                        .toList());
        part.table(
                "Standings over all kinds",
                List.of("Candidate", "Score#", "Interval#", "Against the best", "Plain mean#"),
                report.overall().stream()
                        .map(s -> PartInHand.row(
                                basis.name(s.candidateId()),
                                value(s.adjusted(), 1),
                                interval(s.adjusted(), 1),
                                place(report, s),
                                value(s.plain(), 1)))
                        .toList());
        part.table(
                "Differences of two",
                List.of("Higher", "Lower", "Points#", "Interval#", "On these prompts, by these raters#"),
                report.differences().stream()
                        .map(d -> PartInHand.row(
                                basis.name(d.higherId()),
                                basis.name(d.lowerId()),
                                value(d.difference(), 1),
                                interval(d.difference(), 1),
                                interval(d.here(), 1)))
                        .toList());
        report.byCriterion().forEach(c -> standings(part, basis, "Standings on " + c.name(), c.standings()));
        if (report.rule().terms().byKind()) {
            report.byKind().forEach(k -> standings(part, basis, "Standings for " + k.name(), k.standings()));
        }
        return part;
    }

    private static void standings(
            PartInHand part, MemoBasis basis, String caption, List<RecommendationReport.StandingView> standings) {
        part.table(
                caption,
                List.of("Candidate", "Score#", "Interval#"),
                standings.stream()
                        .map(s -> PartInHand.row(
                                basis.name(s.candidateId()), value(s.adjusted(), 1), interval(s.adjusted(), 1)))
                        .toList());
    }

    private static String place(RecommendationReport report, RecommendationReport.StandingView standing) {
        return report.field().stream()
                .filter(f -> f.candidateId().equals(standing.candidateId()))
                .map(f -> switch (f.place()) {
                    case BEST -> "the best";
                    case SAFE -> "safe";
                    case OPEN -> "open";
                    case OUT -> "out";
                })
                .findFirst()
                .orElse("not compared");
    }

    static PartInHand robustness(MemoBasis basis, NamesShown shown) {
        RobustnessReport found = basis.robustness();
        PartInHand part = new PartInHand(MemoSection.ROBUSTNESS);
        part.say(
                found.sentence().isEmpty()
                        ? "What is left out one by one is tried only where something holds over all kinds."
                        : found.sentence());
        List<RobustnessReport.WithoutView> changing = found.without().stream()
                .filter(RobustnessReport.WithoutView::changes)
                .filter(w -> shown != NamesShown.NOT_AT_ALL || w.factor() != Robustness.Factor.RATER)
                .limit(MOST_WITHOUT)
                .toList();
        part.table(
                "Left out, it would be another outcome",
                List.of("Without", "What that is", "Then"),
                changing.stream()
                        .map(w -> PartInHand.row(
                                w.name(), w.factor().name().toLowerCase(java.util.Locale.ROOT), w.says()))
                        .toList());
        part.table(
                "Under all weightings of the criteria, in shares",
                List.of("Candidate", "Recommended#", "Recommended or safe#", "Out#"),
                found.shares().stream()
                        .map(s -> PartInHand.row(
                                basis.name(s.candidateId()),
                                Numerals.percent(s.best()),
                                Numerals.percent(s.safe()),
                                Numerals.percent(s.out())))
                        .toList());
        part.table(
                "Whether anything beside the answers moved grades",
                List.of("What", "Points#", "Interval#"),
                found.checks().stream()
                        .map(c -> PartInHand.row(
                                switch (c.of()) {
                                    case PLACE_ON_SHEET -> "Each place further down the sheet";
                                    case LENGTH -> "An answer twice as long";
                                    case HOUR -> "Each hour later in the day";
                                },
                                value(c.slope(), 2),
                                interval(c.slope(), 2)))
                        .toList());
        part.table(
                "Asked again",
                List.of("Candidate", "Prompts#", "Mean#", "Worst#", "From answer to answer#"),
                found.attempts().stream()
                        .map(a -> PartInHand.row(
                                basis.name(a.candidateId()),
                                String.valueOf(a.prompts()),
                                value(a.mean(), 1),
                                value(a.worst(), 1),
                                value(a.within(), 1)))
                        .toList());
        return part;
    }

    /** Each figure of the outcome and of agreement, by keys that an archive holds. */
    static List<MemoDocument.MemoFigure> figures(MemoBasis basis) {
        RecommendationReport report = basis.report();
        List<MemoDocument.MemoFigure> all = new ArrayList<>();
        count(all, "answers", report.basis().answers());
        count(all, "prompts", report.basis().prompts());
        count(all, "raters", report.basis().raters());
        count(all, "sheets-sent", report.basis().sentSheets());
        report.agreement().forEach(a -> add(all, "agreement/" + criterion(report, a), a.value()));
        report.overall().forEach(s -> {
            add(all, "standing/" + basis.key(s.candidateId()), s.adjusted());
            add(all, "plain/" + basis.key(s.candidateId()), s.plain());
        });
        report.byCriterion()
                .forEach(c -> report.rule().weights().stream()
                        .filter(w -> w.criterionId().equals(c.criterionId()))
                        .forEach(w -> c.standings()
                                .forEach(s -> add(
                                        all,
                                        "standing-on/" + w.key() + "/" + basis.key(s.candidateId()),
                                        s.adjusted()))));
        report.differences()
                .forEach(d -> add(
                        all, "difference/" + basis.key(d.higherId()) + "/" + basis.key(d.lowerId()), d.difference()));
        report.costs()
                .means()
                .forEach(m ->
                        all.add(new MemoDocument.MemoFigure("cost-a-prompt/" + basis.key(m.candidateId()), m.mean())));
        all.addAll(CostParts.figures(basis));
        return all;
    }

    private static String criterion(RecommendationReport report, RecommendationReport.DecisiveView of) {
        return report.rule().weights().stream()
                .filter(w -> w.criterionId().equals(of.criterionId()))
                .map(RecommendationReport.WeightView::key)
                .findFirst()
                .orElseThrow();
    }

    private static void count(List<MemoDocument.MemoFigure> all, String name, int value) {
        all.add(new MemoDocument.MemoFigure(name, value));
    }

    private static void add(List<MemoDocument.MemoFigure> all, String name, Figure figure) {
        Stream.of(new Limit("", figure.value()), new Limit("/low", figure.low()), new Limit("/high", figure.high()))
                .forEach(l -> l.addTo(all, name));
    }

    private record Limit(
            String suffix,
            @org.jspecify.annotations.Nullable Double value) {
        void addTo(List<MemoDocument.MemoFigure> all, String name) {
            if (value != null) {
                all.add(new MemoDocument.MemoFigure(name + suffix, value));
            }
        }
    }
}
