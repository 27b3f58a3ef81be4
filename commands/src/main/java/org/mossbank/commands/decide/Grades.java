package org.mossbank.commands.decide;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.UnaryOperator;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.mossbank.core.agreement.AgreementWeights;
import org.mossbank.core.agreement.GwetCoefficient;
import org.mossbank.core.agreement.KrippendorffAlpha;
import org.mossbank.core.agreement.Metric;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.decision.Evidence;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.rubric.CriterionGrade;
import org.mossbank.core.rubric.OverallScore;

/**
 * Grades of a study as a long table: candidate, prompt, rater, and either score, or criterion and level. Beside them kind, family
 * (what wordings of one prompt share), attempt and outcome, where there are such. A row without a score or level is a missing one,
 * unless its outcome is a failure.
 */
final class Grades {
    private static final double LEVEL = 0.95;
    private static final double NO_FLOOR = -1;
    private static final Set<String> FAILURES = Set.of("refused", "failed", "timed-out");

    private final List<CSVRecord> rows;

    private Grades(List<CSVRecord> rows) {
        this.rows = rows;
    }

    /** @throws IOException if the file cannot be read as a table */
    static Grades from(Path file) throws IOException {
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .setIgnoreEmptyLines(true)
                .get();
        try (CSVParser parser = CSVParser.parse(file, StandardCharsets.UTF_8, format)) {
            return new Grades(parser.getRecords());
        }
    }

    private static String of(CSVRecord row, String column, String otherwise) {
        return row.isMapped(column) && !row.get(column).isEmpty() ? row.get(column) : otherwise;
    }

    private static String answer(CSVRecord row) {
        return String.join("\0", row.get("candidate"), row.get("prompt"), of(row, "attempt", "1"));
    }

    private boolean isScored() {
        return rows.stream().anyMatch(r -> r.isMapped("score"));
    }

    PromptGroups groups() {
        Map<String, String> kinds = new HashMap<>();
        Map<String, String> families = new HashMap<>();
        rows.forEach(r -> {
            kinds.put(r.get("prompt"), of(r, "kind", ""));
            families.put(r.get("prompt"), of(r, "family", r.get("prompt")));
        });
        return new PromptGroups(p -> Require.known(kinds, p), p -> Require.known(families, p));
    }

    /** One cell for each candidate, prompt and rater: the mean over attempts. */
    List<ScoredCell> cells(Rule rule) {
        Map<List<String>, Map<String, List<CSVRecord>>> places = new LinkedHashMap<>();
        for (CSVRecord row : rows) {
            places.computeIfAbsent(
                            List.of(row.get("candidate"), row.get("prompt"), row.get("rater")), p -> new TreeMap<>())
                    .computeIfAbsent(of(row, "attempt", "1"), a -> new ArrayList<>())
                    .add(row);
        }
        List<ScoredCell> cells = new ArrayList<>();
        places.forEach((place, attempts) -> attempts.values().stream()
                .map(own -> score(own, rule))
                .flatMapToDouble(OptionalDouble::stream)
                .average()
                .ifPresent(mean -> cells.add(new ScoredCell(place.get(0), place.get(1), place.get(2), mean))));
        return cells;
    }

    /** Refused, failed or timed out, so that there was nothing to grade. */
    private static boolean isFailure(CSVRecord row) {
        return FAILURES.contains(of(row, "outcome", ""));
    }

    /** The kinds of prompts, in alphabetical order. */
    List<String> kinds() {
        return rows.stream().map(r -> of(r, "kind", "")).distinct().sorted().toList();
    }

    private OptionalDouble score(List<CSVRecord> own, Rule rule) {
        if (own.stream().allMatch(Grades::isFailure)) {
            return rule.countsFailures() ? OptionalDouble.of(0) : OptionalDouble.empty();
        }
        if (isScored()) {
            String score = own.get(0).get("score");
            return score.isEmpty() ? OptionalDouble.empty() : OptionalDouble.of(Double.parseDouble(score));
        }
        List<CriterionGrade> grades = new ArrayList<>();
        for (CSVRecord row : own) {
            rule.all().stream()
                    .filter(c -> c.key().equals(row.get("criterion")) && c.weight() > 0)
                    .filter(c -> !row.get("level").isEmpty())
                    .map(c -> CriterionGrade.of(c.weight(), Integer.parseInt(row.get("level")), c.highest()))
                    .forEach(grades::add);
        }
        return OverallScore.of(grades);
    }

    /** How many raters each answer has. */
    List<Evidence.AnswerRaters> raters() {
        Map<String, Set<String>> byAnswer = new TreeMap<>();
        rows.stream()
                .filter(r -> !of(r, isScored() ? "score" : "level", "").isEmpty())
                .forEach(r -> byAnswer.computeIfAbsent(answer(r), a -> new TreeSet<>())
                        .add(r.get("rater")));
        return byAnswer.entrySet().stream()
                .map(e -> new Evidence.AnswerRaters(e.getKey(), e.getValue().size()))
                .toList();
    }

    /** Agreement on each criterion that has weight; none where grades are scores. */
    List<Evidence.CriterionAgreement> agreement(Rule rule) {
        if (isScored()) {
            return List.of();
        }
        PromptGroups groups = groups();
        Map<String, String> promptOf = new HashMap<>();
        rows.forEach(r -> promptOf.put(answer(r), groups.familyOf().apply(r.get("prompt"))));
        return rule.all().stream()
                .filter(c -> c.weight() > 0)
                .map(c -> agreement(c, rule, unit -> Require.known(promptOf, unit)))
                .toList();
    }

    private Evidence.CriterionAgreement agreement(Rule.Criterion criterion, Rule rule, UnaryOperator<String> promptOf) {
        RatingMatrix matrix = RatingMatrix.ofLevels(
                rows.stream()
                        .filter(r -> r.get("criterion").equals(criterion.key())
                                && !r.get("level").isEmpty())
                        .map(r -> new Rating(answer(r), r.get("rater"), Integer.parseInt(r.get("level"))))
                        .toList(),
                criterion.highest());
        double floor = criterion.floor() == null ? NO_FLOOR : criterion.floor();
        if (rule.isByAlpha()) {
            KrippendorffAlpha alpha = KrippendorffAlpha.of(matrix, promptOf);
            return new Evidence.CriterionAgreement(
                    criterion.key(), alpha.value(Metric.ORDINAL), alpha.interval(Metric.ORDINAL, LEVEL), floor);
        }
        GwetCoefficient ac2 = GwetCoefficient.of(matrix, AgreementWeights.ordinal(matrix.levels()), promptOf);
        return new Evidence.CriterionAgreement(criterion.key(), ac2.value(), ac2.jackknife(LEVEL), floor);
    }
}
