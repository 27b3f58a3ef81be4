package org.mossbank.commands.recompute;

import static org.mossbank.commands.recompute.SignedMemo.cell;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.apache.commons.csv.CSVRecord;
import org.mossbank.core.agreement.AgreementWeights;
import org.mossbank.core.agreement.GwetCoefficient;
import org.mossbank.core.agreement.KrippendorffAlpha;
import org.mossbank.core.agreement.Metric;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.ScoreGrid;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Resamples;
import org.mossbank.core.robustness.GradedAnswers;
import org.mossbank.core.rubric.CriterionGrade;
import org.mossbank.core.rubric.Gate;
import org.mossbank.core.rubric.OverallScore;
import org.mossbank.core.tradeoff.CostOfPrompts;
import tools.jackson.databind.JsonNode;

/** Works figures out from the tables of an archive, by the rules of its format, and puts them under the names that memos use. */
final class Figures {
    private static final double LEVEL = 0.95;
    /** With fewer prompts answers are left out one by one for the interval of agreement, and not prompts. */
    private static final int LEAST_PROMPTS = 5;

    private final SignedMemo memo;
    private final JsonNode rule;
    private final Map<String, CSVRecord> prompts;
    private final Map<String, CSVRecord> answers;
    private final List<CSVRecord> criteria;
    private final List<String> candidates;
    private final Set<String> contenders = new TreeSet<>();
    /** Rater and prompt of each first sheet that was sent in. */
    private final Set<List<String>> sent;

    private final List<CSVRecord> grades;
    private final Set<String> withoutText;
    private final Map<String, Double> found = new TreeMap<>();

    private Figures(SignedMemo memo) throws IOException {
        this.memo = memo;
        rule = memo.study().path("decisionRule");
        prompts = memo.table("prompts").stream()
                .filter(p ->
                        cell(p, "fault").isEmpty() && cell(p, "calibration").isEmpty())
                .collect(Collectors.toMap(p -> p.get("prompt"), p -> p));
        answers = memo.table("answers").stream()
                .filter(a -> prompts.containsKey(a.get("prompt"))
                        && !a.get("candidate").isEmpty())
                .collect(Collectors.toMap(a -> a.get("answer"), a -> a));
        criteria = memo.table("criteria");
        List<CSVRecord> all = memo.table("candidates");
        candidates = all.stream().map(c -> c.get("candidate")).toList();
        Set<String> ruledOut = memo.table("considerations").stream()
                .filter(c -> c.get("sign").equals("rules-out"))
                .map(c -> c.get("candidate"))
                .collect(Collectors.toSet());
        all.stream()
                .filter(c -> !cell(c, "baseline").equals("true") && !ruledOut.contains(c.get("candidate")))
                .forEach(c -> contenders.add(c.get("candidate")));
        sent = sheets().stream()
                .filter(s -> !cell(s, "repeat").equals("true"))
                .map(s -> List.of(s.get("rater"), s.get("prompt")))
                .collect(Collectors.toSet());
        Set<String> asked =
                memo.table("turns").stream().map(t -> t.get("answer")).collect(Collectors.toSet());
        withoutText = answers.values().stream()
                .filter(a -> memo.text(cell(a, "file")).isBlank() && !asked.contains(a.get("answer")))
                .map(a -> a.get("answer"))
                .collect(Collectors.toSet());
        grades = memo.table("grades").stream()
                .filter(g ->
                        !cell(g, "repeat").equals("true") && !g.get("level").isEmpty())
                .filter(g -> answers.containsKey(g.get("answer"))
                        && sent.contains(List.of(g.get("rater"), answer(g).get("prompt"))))
                .toList();
    }

    /** @throws IOException if a table cannot be read */
    static Map<String, Double> of(SignedMemo memo) throws IOException {
        Figures figures = new Figures(memo);
        figures.counts();
        figures.agreement();
        figures.standings();
        figures.costs();
        figures.found.putAll(CostFigures.of(memo, figures.answers.values(), figures.withoutText, figures.sent));
        return figures.found;
    }

    /** Sent in and not withdrawn, for prompts that count; those on which answers came a second time included. */
    private List<CSVRecord> sheets() throws IOException {
        return memo.table("sheets").stream()
                .filter(s -> prompts.containsKey(s.get("prompt"))
                        && !s.get("sent_at").isEmpty()
                        && cell(s, "withdrawn_at").isEmpty())
                .toList();
    }

    private CSVRecord answer(CSVRecord grade) {
        return Require.known(answers, grade.get("answer"));
    }

    private void counts() throws IOException {
        found.put("answers", (double) answers.size());
        found.put("prompts", (double) prompts.size());
        found.put("raters", (double)
                grades.stream().map(g -> g.get("rater")).distinct().count());
        found.put("sheets-sent", (double) sheets().size());
    }

    private String family(String prompt) {
        String of = cell(Require.known(prompts, prompt), "variant_of");
        return prompts.containsKey(of) ? of : prompt;
    }

    private PromptGroups groups() {
        return new PromptGroups(p -> Require.known(prompts, p).get("kind"), this::family);
    }

    private static int highest(CSVRecord criterion) {
        return Integer.parseInt(criterion.get("highest_level"));
    }

    private static double weight(CSVRecord criterion) {
        return Double.parseDouble(criterion.get("weight"));
    }

    private void agreement() {
        UnaryOperator<String> family = a -> family(Require.known(answers, a).get("prompt"));
        for (CSVRecord criterion : criteria) {
            if (weight(criterion) == 0) {
                continue;
            }
            RatingMatrix matrix = RatingMatrix.ofLevels(
                    grades.stream()
                            .filter(g -> g.get("criterion").equals(criterion.get("criterion"))
                                    && !withoutText.contains(g.get("answer")))
                            .map(g -> new Rating(g.get("answer"), g.get("rater"), Integer.parseInt(g.get("level"))))
                            .toList(),
                    highest(criterion));
            boolean enough = KrippendorffAlpha.of(matrix, family).clusterCount() >= LEAST_PROMPTS;
            UnaryOperator<String> cluster = enough ? family : UnaryOperator.identity();
            String name = "agreement/" + criterion.get("criterion");
            if (rule.path("coefficient").asString().equals("ac2-ordinal")) {
                GwetCoefficient ac2 = GwetCoefficient.of(matrix, AgreementWeights.ordinal(matrix.levels()), cluster);
                put(name, ac2.value(), ac2.jackknife(LEVEL));
            } else {
                KrippendorffAlpha alpha = KrippendorffAlpha.of(matrix, cluster);
                put(name, alpha.value(Metric.ORDINAL), alpha.interval(Metric.ORDINAL, LEVEL));
            }
        }
    }

    private void put(String name, Estimate value, Interval interval) {
        value.value().ifPresent(v -> {
            found.put(name, v);
            if (interval instanceof Interval.Bounds b) {
                found.put(name + "/low", b.low());
                found.put(name + "/high", b.high());
            }
        });
    }

    /** @param gated whether the rule's gate caps scores */
    private GradedAnswers graded(boolean gated) {
        GradedAnswers.Accumulator all = new GradedAnswers.Accumulator(
                criteria.stream().map(c -> c.get("criterion")).toList());
        Map<String, Set<String>> raters = new HashMap<>();
        for (CSVRecord grade : grades) {
            raters.computeIfAbsent(answer(grade).get("prompt"), p -> new HashSet<>())
                    .add(grade.get("rater"));
            if (!withoutText.contains(grade.get("answer"))) {
                add(all, answer(grade), grade.get("rater"), place(grade), Integer.parseInt(grade.get("level")), gated);
            }
        }
        if (!rule.path("failedAnswers").asString("lowest").equals("left-out")) {
            for (String failed : withoutText) {
                CSVRecord answer = Require.known(answers, failed);
                for (String rater : raters.getOrDefault(answer.get("prompt"), Set.of())) {
                    for (int k = 0; k < criteria.size(); k++) {
                        if (applies(criteria.get(k), answer)) {
                            add(all, answer, rater, k, 0, gated);
                        }
                    }
                }
            }
        }
        return all.snapshot(groups());
    }

    private int place(CSVRecord grade) {
        for (int k = 0; k < criteria.size(); k++) {
            if (criteria.get(k).get("criterion").equals(grade.get("criterion"))) {
                return k;
            }
        }
        throw new IllegalArgumentException("criterion must be in the rubric: " + grade.get("criterion"));
    }

    private boolean applies(CSVRecord criterion, CSVRecord answer) {
        String kinds = cell(criterion, "kinds");
        String kind = Require.known(prompts, answer.get("prompt")).get("kind");
        return kinds.isEmpty()
                || Arrays.stream(kinds.split(";")).map(String::strip).anyMatch(kind::equals);
    }

    private void add(
            GradedAnswers.Accumulator all, CSVRecord answer, String rater, int place, int level, boolean gated) {
        CSVRecord criterion = criteria.get(place);
        JsonNode gate = rule.path("gate");
        CriterionGrade grade = CriterionGrade.of(weight(criterion), level, highest(criterion));
        boolean caps = gated && gate.path("criterion").asString("").equals(criterion.get("criterion"));
        all.add(
                answer.get("candidate"),
                answer.get("prompt"),
                rater,
                answer.get("answer"),
                place,
                level,
                highest(criterion),
                caps
                        ? new Gate(gate.path("level").asInt(), gate.path("cap").asDouble())
                                .apply(grade)
                                .cap()
                        : OverallScore.HIGHEST);
    }

    private static Standings standings(Optional<ScoreGrid> grid) {
        return grid.map(g -> Standings.of(g, new Standings.Options(0, LEVEL), Resamples.generator(0)))
                .orElse(new Standings(List.of(), List.of()));
    }

    /** Those whom the rule may recommend stand among themselves; the others beside them, as all stand together. */
    private void standings() {
        double[] weights = criteria.stream().mapToDouble(Figures::weight).toArray();
        GradedAnswers graded = graded(true);
        List<Standings> both = new ArrayList<>();
        both.add(standings(graded.grid(weights)));
        both.add(standings(graded.ofCandidates(contenders).grid(weights)));
        // What contenders are told by comes last, and stands.
        for (Standings some : both) {
            some.standings().forEach(s -> {
                put("standing/" + s.candidate(), s.adjusted(), s.interval());
                s.plain().value().ifPresent(v -> found.put("plain/" + s.candidate(), v));
            });
        }
        for (Standings some : both) {
            some.differences().forEach(d -> {
                found.keySet().removeIf(n -> n.startsWith("difference/" + d.lower() + "/" + d.higher()));
                put("difference/" + d.higher() + "/" + d.lower(), d.estimate(), d.interval());
            });
        }
        GradedAnswers ungated = graded(false);
        for (int k = 0; k < criteria.size(); k++) {
            double[] only = new double[criteria.size()];
            only[k] = 1;
            String name = "standing-on/" + criteria.get(k).get("criterion") + "/";
            standings(ungated.grid(only))
                    .standings()
                    .forEach(s -> put(name + s.candidate(), s.adjusted(), s.interval()));
        }
    }

    private void costs() {
        CostOfPrompts.of(answers.values().stream()
                        .filter(a -> contenders.contains(a.get("candidate")))
                        .map(a -> new CostOfPrompts.Cost(
                                a.get("candidate"),
                                a.get("prompt"),
                                cell(a, "cost").isEmpty()
                                        ? OptionalDouble.empty()
                                        : OptionalDouble.of(Double.parseDouble(a.get("cost"))),
                                cell(a, "currency"),
                                cell(a, "estimated").equals("true")))
                        .toList())
                .means()
                .forEach((candidate, mean) -> found.put("cost-a-prompt/" + candidate, mean));
    }
}
