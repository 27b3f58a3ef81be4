package org.mossbank.commands.honesty;

import static org.mossbank.commands.honesty.Conditions.of;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.function.IntFunction;
import java.util.stream.IntStream;
import org.mossbank.commands.honesty.Conditions.RaterSort;
import org.mossbank.commands.honesty.Conditions.Truth;
import org.mossbank.core.agreement.KrippendorffAlpha;
import org.mossbank.core.agreement.Metric;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.comparison.Standing;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.comparison.WithBest;
import org.mossbank.core.decision.Allowance;
import org.mossbank.core.decision.Decision;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.decision.Evidence;
import org.mossbank.core.decision.Finding;
import org.mossbank.core.decision.Outcome;
import org.mossbank.core.estimate.Resamples;
import org.mossbank.core.planning.Forecast;
import org.mossbank.core.planning.GradingModel;
import org.mossbank.core.planning.PlannedStudy;

/** Looks before the end, kinds told apart, raters who guess, and what the planner says against what happens. */
final class FurtherHonesty {
    private static final PromptGroups KINDS = PromptGroups.byKind(MadeUpStudies::kindOf);
    private static final double NO_FLOOR = -1;

    private FurtherHonesty() {}

    static String tables(int studies) {
        StringBuilder all = new StringBuilder(
                "\n| looks | any false statement over all looks | ended with a leader found | prompts used |\n|---|---|---|---|\n");
        for (List<Double> looks :
                List.of(List.of(1.0), List.of(0.5, 1.0), List.of(0.5, 0.75, 1.0), List.of(0.25, 0.5, 0.75, 1.0))) {
            for (Conditions c : List.of(
                    of(4, 8, 4, 5, 5),
                    of(4, 8, 4, 5, 5).with(Truth.TWO_AHEAD),
                    of(4, 8, 3, 8, 3),
                    of(4, 8, 4, 5, 5).with(RaterSort.GOOD).with(Truth.ONE_FAR_AHEAD))) {
                all.append(looksRow(c, looks, studies));
            }
        }
        all.append(
                "\n| kinds told apart | any false statement | of it within kinds | best or safe over all | by kind | undecided |\n|---|---|---|---|---|---|\n");
        for (Conditions c : List.of(
                of(4, 4, 4, 5, 5),
                of(2, 8, 4, 5, 5),
                of(2, 4, 3, 4, 4),
                of(4, 8, 3, 5, 5),
                of(2, 8, 4, 5, 5).with(Truth.ONE_WORSE),
                of(2, 8, 4, 5, 5).with(Truth.TWO_AHEAD),
                of(3, 6, 5, 6, 3).with(0.1))) {
            all.append(kindsRow(c, studies));
        }
        all.append("\n| raters guess | withheld |\n|---|---|\n");
        for (Conditions c : List.of(
                of(1, 4, 3, 3, 3),
                of(2, 2, 4, 4, 4),
                of(1, 6, 3, 3, 3),
                of(2, 4, 3, 3, 3),
                of(2, 4, 3, 5, 5),
                of(4, 4, 4, 3, 3),
                of(4, 4, 4, 5, 5),
                of(4, 4, 4, 8, 3),
                of(4, 12, 4, 5, 5))) {
            all.append(guessRow(c.with(RaterSort.GUESSING), studies));
        }
        all.append(
                "\n| planner: study | lead | recommended, said / happened | safe | undecided | withheld |\n|---|---|---|---|---|---|\n");
        for (Conditions c : List.of(
                of(4, 4, 4, 5, 5),
                of(4, 4, 4, 5, 5).with(RaterSort.GOOD),
                of(4, 8, 3, 8, 3),
                of(2, 6, 3, 4, 4),
                of(4, 12, 3, 8, 3).with(RaterSort.GOOD))) {
            all.append(plannerRows(c, studies));
        }
        return all.toString();
    }

    private static <T> List<T> drawn(int studies, IntFunction<T> one) {
        return IntStream.range(0, studies).parallel().mapToObj(one).toList();
    }

    private static Standings standings(List<ScoredCell> cells) {
        return Standings.of(cells, KINDS, new Standings.Options(0, Honesty.LEVEL), Resamples.generator(0));
    }

    private static DecisionRule rule(DecisionRule.FloorOn on, double margin, Allowance allowance) {
        return new DecisionRule(on, margin, 1, DecisionRule.TieBreak.NONE, DecisionRule.Strictness.LENIENT, allowance);
    }

    private static Evidence evidence(
            Standings standings, List<Evidence.CriterionAgreement> agreement, List<Evidence.WithinKind> kinds) {
        return new Evidence(
                Evidence.State.CLEAR,
                List.of(new Evidence.AnswerRaters("each", 2)),
                agreement,
                standings,
                standings.standings().stream()
                        .map(s -> new Evidence.Contender(s.candidate(), OptionalDouble.empty()))
                        .toList(),
                kinds);
    }

    /** Whether anything that is said of the field is not so. */
    private static boolean isFalse(WithBest field, double[] truth) {
        double top = Arrays.stream(truth).max().orElseThrow();
        long tops = Arrays.stream(truth).filter(t -> top - t < Honesty.ALIKE).count();
        long in = field.candidates().stream().filter(c -> !c.out()).count();
        return field.candidates().stream().anyMatch(c -> {
            double gap = top - truth[Honesty.index(c.name())];
            boolean best = c.best() || in == 1 && !c.out();
            return best && (gap >= Honesty.ALIKE || tops > 1)
                    || c.out() && gap < Honesty.ALIKE
                    || !c.out() && c.isSafe(Conditions.MARGIN) && gap >= Conditions.MARGIN - Honesty.ALIKE;
        });
    }

    private record Looked(boolean wrong, boolean found, double used) {}

    private static String looksRow(Conditions conditions, List<Double> looks, int studies) {
        MadeUpStudies made = new MadeUpStudies(conditions);
        double[] truth = made.truth();
        List<Looked> all = drawn(
                studies,
                s -> looked(made.draw(Resamples.generator(1_000_003L * s + 29)), conditions.prompts(), looks, truth));
        return String.format(
                Locale.ROOT,
                "| %s; at %s | %s | %s | %s |%n",
                conditions,
                looks,
                Honesty.share(all.stream().filter(Looked::wrong).count(), studies),
                Honesty.share(all.stream().filter(Looked::found).count(), studies),
                Honesty.share(all.stream().mapToDouble(Looked::used).sum(), studies));
    }

    /** Looks until one candidate is recommended; every statement of every look so far counts. */
    private static Looked looked(List<ScoredCell> cells, int promptsAKind, List<Double> looks, double[] truth) {
        boolean wrong = false;
        for (int l = 0; l < looks.size(); l++) {
            double share = looks.get(l);
            List<ScoredCell> sofar = cells.stream()
                    .filter(c -> number(c.prompt()) < share * promptsAKind)
                    .toList();
            Allowance allowance = Allowance.OVERALL.at(looks.subList(0, l + 1));
            Standings standings = standings(sofar);
            WithBest field = WithBest.of(
                    standings.standings().stream().map(Standing::candidate).toList(),
                    standings.differences(),
                    allowance.overall());
            wrong |= isFalse(field, truth);
            Decision decision = Decision.of(
                    rule(DecisionRule.FloorOn.ESTIMATE, Conditions.MARGIN, allowance),
                    evidence(standings, List.of(), List.of()));
            if (decision.outcome() == Outcome.RECOMMENDED) {
                boolean right = decision.leader().map(Honesty::index).orElse(-1) == 0;
                return new Looked(wrong, right, share);
            }
        }
        return new Looked(wrong, false, 1);
    }

    private static int number(String prompt) {
        return Integer.parseInt(prompt.substring(prompt.indexOf('-') + 1));
    }

    private record Apart(boolean wrong, boolean wrongWithin, Outcome outcome) {}

    private static String kindsRow(Conditions conditions, int studies) {
        MadeUpStudies made = new MadeUpStudies(conditions);
        double[] truth = made.truth();
        double[][] ofKind = IntStream.range(0, conditions.kinds())
                .mapToObj(made::truthOfKind)
                .toArray(double[][]::new);
        List<Apart> all =
                drawn(studies, s -> apart(made.draw(Resamples.generator(1_000_003L * s + 31)), truth, ofKind));
        return String.format(
                Locale.ROOT,
                "| %s | %s | %s | %s | %s | %s |%n",
                conditions,
                Honesty.share(all.stream().filter(a -> a.wrong || a.wrongWithin).count(), studies),
                Honesty.share(all.stream().filter(Apart::wrongWithin).count(), studies),
                Honesty.share(
                        all.stream()
                                .filter(a -> a.outcome == Outcome.RECOMMENDED || a.outcome == Outcome.SAFE_CHOICES)
                                .count(),
                        studies),
                Honesty.share(
                        all.stream().filter(a -> a.outcome == Outcome.BY_KIND).count(), studies),
                Honesty.share(
                        all.stream().filter(a -> a.outcome == Outcome.UNDECIDED).count(), studies));
    }

    private static Apart apart(List<ScoredCell> cells, double[] truth, double[][] ofKind) {
        List<Evidence.WithinKind> kinds = new ArrayList<>();
        for (int k = 0; k < ofKind.length; k++) {
            String kind = "k" + k;
            kinds.add(new Evidence.WithinKind(
                    kind,
                    standings(cells.stream()
                            .filter(c -> MadeUpStudies.kindOf(c.prompt()).equals(kind))
                            .toList())));
        }
        Decision decision = Decision.of(
                rule(DecisionRule.FloorOn.ESTIMATE, Conditions.MARGIN, Allowance.WITH_KINDS),
                evidence(standings(cells), List.of(), kinds));
        boolean within = decision.findings().stream().anyMatch(f -> isFalseWithin(f, ofKind));
        return new Apart(decision.field().map(f -> isFalse(f, truth)).orElse(false), within, decision.outcome());
    }

    private static boolean isFalseWithin(Finding finding, double[][] ofKind) {
        if (finding instanceof Finding.BestOfKind best) {
            double[] truth = ofKind[Integer.parseInt(best.kind().substring(1))];
            double top = Arrays.stream(truth).max().orElseThrow();
            long tops =
                    Arrays.stream(truth).filter(t -> top - t < Honesty.ALIKE).count();
            return tops > 1 || top - truth[Honesty.index(best.candidate())] >= Honesty.ALIKE;
        }
        if (finding instanceof Finding.SafeInKind safe) {
            double[] truth = ofKind[Integer.parseInt(safe.kind().substring(1))];
            double top = Arrays.stream(truth).max().orElseThrow();
            return top - truth[Honesty.index(safe.candidate())] >= Conditions.MARGIN - Honesty.ALIKE;
        }
        return false;
    }

    private static List<Evidence.CriterionAgreement> agreement(List<KrippendorffAlpha> alphas, double floor) {
        return IntStream.range(0, alphas.size())
                .mapToObj(k -> new Evidence.CriterionAgreement(
                        "criterion " + k,
                        alphas.get(k).value(Metric.ORDINAL),
                        alphas.get(k).interval(Metric.ORDINAL, Honesty.LEVEL),
                        floor))
                .toList();
    }

    private static String guessRow(Conditions conditions, int studies) {
        MadeUpStudies made = new MadeUpStudies(conditions);
        DecisionRule rule = rule(DecisionRule.FloorOn.UPPER_LIMIT, Conditions.MARGIN, Allowance.OVERALL);
        long withheld = drawn(studies, s -> made.drawWhole(Resamples.generator(1_000_003L * s + 37))).stream()
                .filter(d ->
                        Decision.of(rule, evidence(standings(d.cells()), agreement(d.agreement(), NO_FLOOR), List.of()))
                                        .outcome()
                                == Outcome.WITHHELD)
                .count();
        return String.format(Locale.ROOT, "| %s | %s |%n", conditions, Honesty.share(withheld, studies));
    }

    private static final double FLOOR = 0.6;

    private static String plannerRows(Conditions conditions, int studies) {
        PlannedStudy planned = new PlannedStudy(
                Collections.nCopies(conditions.kinds(), conditions.prompts()),
                conditions.candidates(),
                conditions.attempts(),
                conditions.raters(),
                conditions.anAnswer());
        DecisionRule rule = rule(DecisionRule.FloorOn.UPPER_LIMIT, Conditions.MARGIN, Allowance.OVERALL);
        GradingModel model = conditions.raterSort() == RaterSort.GOOD ? GradingModel.GOOD : GradingModel.MIDDLING;
        Forecast forecast = Forecast.of(planned, new Forecast.Terms(model, rule, FLOOR), 1000, Resamples.generator(5));
        StringBuilder rows = new StringBuilder();
        for (int m = 0; m < 2; m++) {
            MadeUpStudies made = new MadeUpStudies(m == 0 ? conditions : conditions.with(Truth.ONE_AHEAD));
            List<Outcome> all = drawn(studies, s -> {
                MadeUpStudies.Drawn d = made.drawWhole(Resamples.generator(1_000_003L * s + 41));
                return Decision.of(rule, evidence(standings(d.cells()), agreement(d.agreement(), FLOOR), List.of()))
                        .outcome();
            });
            Forecast.AtLead said = forecast.leads().get(m);
            rows.append(String.format(Locale.ROOT, "| %s | %d margins |", conditions, m));
            for (Outcome outcome :
                    List.of(Outcome.RECOMMENDED, Outcome.SAFE_CHOICES, Outcome.UNDECIDED, Outcome.WITHHELD)) {
                rows.append(String.format(
                        Locale.ROOT,
                        " %s / %s |",
                        Honesty.share(said.chance(outcome), 1),
                        Honesty.share(all.stream().filter(o -> o == outcome).count(), studies)));
            }
            rows.append(System.lineSeparator());
        }
        return rows.toString();
    }
}
