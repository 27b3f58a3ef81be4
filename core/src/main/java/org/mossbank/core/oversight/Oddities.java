package org.mossbank.core.oversight;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;

/**
 * Looks for grading that does not look like judging: too fast to have read, one level everywhere, no reason anywhere, or
 * another yardstick later than at first. The bounds are set so that an ordinary rater hardly ever meets one; they are plain
 * numbers, to be read beside what they found.
 */
public final class Oddities {
    /** Twenty words of five letters and a space a second: more than twice as fast as skilled readers skim. */
    static final long CHARACTERS_A_SECOND = 120;

    /** Grades below which a common level says nothing. */
    static final int LEAST_GRADES = 12;

    static final double SAME = 0.9;
    static final double OTHERS_VARY = 0.75;

    /** Answers below which silence says nothing. */
    static final int LEAST_ANSWERS = 6;

    static final double OTHERS_EXPLAIN = 0.25;

    /** Levels by which the yardstick must have moved. */
    static final double LEAST_DRIFT = 0.5;

    /** About one in four hundred, if nothing drifts. */
    static final double LEAST_T = 3;

    /** Grades that each half must have. */
    static final int LEAST_IN_HALF = 6;

    private final Map<String, List<GradedSheet>> byRater;

    private Oddities(List<GradedSheet> sheets) {
        byRater = sheets.stream()
                .sorted(Comparator.comparingInt(GradedSheet::place))
                .collect(Collectors.groupingBy(GradedSheet::rater));
    }

    /**
     * What is odd, by rater; raters about whom nothing is are left out.
     *
     * @param sheets those sent in, of all raters
     */
    public static Map<String, List<Oddity>> in(List<GradedSheet> sheets) {
        Oddities all = new Oddities(sheets);
        Map<String, List<Oddity>> found = new HashMap<>();
        for (String rater : all.byRater.keySet()) {
            List<Oddity> own = new ArrayList<>();
            all.tooFast(rater).ifPresent(own::add);
            all.sameLevel(rater).ifPresent(own::add);
            all.noReasons(rater).ifPresent(own::add);
            all.drift(rater).ifPresent(own::add);
            if (!own.isEmpty()) {
                found.put(rater, List.copyOf(own));
            }
        }
        return found;
    }

    private Optional<Oddity> tooFast(String rater) {
        List<Oddity.FastSheet> fast = new ArrayList<>();
        for (GradedSheet sheet : Require.known(byRater, rater)) {
            long reading = sheet.characters() * 1000 / CHARACTERS_A_SECOND;
            if (sheet.activeMs().isPresent() && sheet.activeMs().getAsLong() < reading) {
                fast.add(new Oddity.FastSheet(sheet.place(), sheet.activeMs().getAsLong(), reading));
            }
        }
        return fast.isEmpty() ? Optional.empty() : Optional.of(new Oddity.TooFast(fast));
    }

    /** On scales of three levels or more; on two, one level everywhere is ordinary. */
    private static List<GradedSheet.SheetGrade> graded(List<GradedSheet> sheets) {
        return sheets.stream()
                .flatMap(s -> s.grades().stream())
                .filter(g -> g.highest() >= 2)
                .toList();
    }

    private List<GradedSheet> others(String rater) {
        return byRater.entrySet().stream()
                .filter(e -> !e.getKey().equals(rater))
                .flatMap(e -> e.getValue().stream())
                .toList();
    }

    private Optional<Oddity> sameLevel(String rater) {
        List<GradedSheet.SheetGrade> own = graded(Require.known(byRater, rater));
        if (own.size() < LEAST_GRADES) {
            return Optional.empty();
        }
        Map<Integer, Long> counts =
                own.stream().collect(Collectors.groupingBy(GradedSheet.SheetGrade::level, Collectors.counting()));
        int level = counts.entrySet().stream()
                .max(Map.Entry.comparingByValue())
                .orElseThrow()
                .getKey();
        double share = (double) Require.known(counts, level) / own.size();
        var units = own.stream().map(GradedSheet.SheetGrade::unit).collect(Collectors.toSet());
        List<GradedSheet.SheetGrade> theirs = graded(others(rater)).stream()
                .filter(g -> units.contains(g.unit()))
                .toList();
        double othersShare = theirs.isEmpty()
                ? 1
                : (double) theirs.stream().filter(g -> g.level() == level).count() / theirs.size();
        return share >= SAME && othersShare <= OTHERS_VARY
                ? Optional.of(new Oddity.SameLevel(level, own.size(), share, othersShare))
                : Optional.empty();
    }

    private Optional<Oddity> noReasons(String rater) {
        int answers = answers(Require.known(byRater, rater));
        int othersAnswers = answers(others(rater));
        if (answers < LEAST_ANSWERS || othersAnswers == 0 || explained(Require.known(byRater, rater)) > 0) {
            return Optional.empty();
        }
        double othersShare = (double) explained(others(rater)) / othersAnswers;
        return othersShare >= OTHERS_EXPLAIN
                ? Optional.of(new Oddity.NoReasons(answers, othersShare))
                : Optional.empty();
    }

    private static int answers(List<GradedSheet> sheets) {
        return sheets.stream().mapToInt(GradedSheet::answers).sum();
    }

    private static int explained(List<GradedSheet> sheets) {
        return sheets.stream().mapToInt(GradedSheet::explained).sum();
    }

    /**
     * Compares the earlier with the later half of a rater's sheets in their distance from the others.
     *
     * <p>\[ t = (\bar d_2 - \bar d_1) / \sqrt{s_1^2 / n_1 + s_2^2 / n_2} \]
     *
     * <p>Source: B. L. Welch (1947), The generalization of 'Student's' problem when several different population variances
     * are involved, <i>Biometrika</i> 34(1-2), 28-35, doi:10.1093/biomet/34.1-2.28. Grades of one sheet hang together, so it
     * is a yardstick and no test.
     */
    private Optional<Oddity> drift(String rater) {
        Map<String, Double> means = graded(others(rater)).stream()
                .collect(Collectors.groupingBy(
                        GradedSheet.SheetGrade::unit, Collectors.averagingInt(GradedSheet.SheetGrade::level)));
        List<GradedSheet> sheets = Require.known(byRater, rater);
        int half = sheets.size() / 2;
        double[] first = distances(sheets.subList(0, half), means);
        double[] second = distances(sheets.subList(sheets.size() - half, sheets.size()), means);
        if (first.length < LEAST_IN_HALF || second.length < LEAST_IN_HALF) {
            return Optional.empty();
        }
        double before = mean(first);
        double after = mean(second);
        OptionalDouble t = welch(after - before, first, second);
        boolean isClear = t.isEmpty() || Math.abs(t.getAsDouble()) >= LEAST_T;
        return Math.abs(after - before) >= LEAST_DRIFT && isClear
                ? Optional.of(new Oddity.Drift(before, after, t))
                : Optional.empty();
    }

    private static double[] distances(List<GradedSheet> sheets, Map<String, Double> means) {
        return graded(sheets).stream()
                .filter(g -> means.containsKey(g.unit()))
                .mapToDouble(g -> g.level() - Require.known(means, g.unit()))
                .toArray();
    }

    private static double mean(double[] values) {
        double sum = 0;
        for (double value : values) {
            sum += value;
        }
        return sum / values.length;
    }

    /** Two passes. Empty if neither half varies at all. */
    private static OptionalDouble welch(double difference, double[] first, double[] second) {
        double error = Math.sqrt(variance(first) / first.length + variance(second) / second.length);
        return error == 0 ? OptionalDouble.empty() : OptionalDouble.of(difference / error);
    }

    private static double variance(double[] values) {
        double mean = mean(values);
        double sum = 0;
        for (double value : values) {
            sum += (value - mean) * (value - mean);
        }
        return sum / (values.length - 1);
    }
}
