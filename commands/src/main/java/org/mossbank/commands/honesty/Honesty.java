package org.mossbank.commands.honesty;

import static org.mossbank.commands.honesty.Conditions.of;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;
import org.mossbank.commands.honesty.Conditions.Latent;
import org.mossbank.commands.honesty.Conditions.RaterSort;
import org.mossbank.commands.honesty.Conditions.Truth;
import org.mossbank.core.comparison.Difference;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.comparison.Standing;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.comparison.WithBest;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Resamples;

/** Runs what decides on made-up studies of many sorts, and writes how often it says what is not so. */
public final class Honesty {
    static final double LEVEL = 0.95;
    private static final double ALPHA = 0.05;
    /** Candidates whose expected scores lie no further apart are equally good. */
    static final double ALIKE = 0.01;

    private Honesty() {}

    /** @param arguments the file to write, and how many studies of each sort */
    public static void main(String[] arguments) throws IOException {
        int studies = Integer.parseInt(arguments[1]);
        StringBuilder table = new StringBuilder(
                "| study | any false statement | best | safe | out | differences hold the truth | standings | recommended | safe choices | undecided | withheld |\n"
                        + "|---|---|---|---|---|---|---|---|---|---|---|\n");
        for (Conditions conditions : sorts()) {
            String row = row(conditions, studies);
            System.out.print(row);
            table.append(row);
        }
        String more = FurtherHonesty.tables(studies);
        System.out.print(more);
        Files.writeString(Path.of(arguments[0]), table + more);
    }

    private static List<Conditions> sorts() {
        List<Conditions> all = new ArrayList<>();
        Conditions usual = of(4, 4, 4, 5, 5);
        // What the power figures are of.
        all.add(of(4, 4, 6, 8, 3).with(RaterSort.GOOD).with(Truth.ONE_FAR_AHEAD));
        all.add(usual.with(RaterSort.GOOD).with(Truth.ONE_FAR_AHEAD));
        all.add(of(4, 8, 4, 8, 3).with(0.1).with(Truth.ONE_FAR_AHEAD));
        all.add(of(4, 12, 3, 8, 3).with(RaterSort.GOOD).with(Truth.ONE_AHEAD));
        // Sizes.
        for (int[] size : new int[][] {
            {1, 2, 3, 3, 3}, {1, 3, 4, 4, 4}, {2, 2, 4, 4, 4}, {4, 2, 4, 5, 5}, {1, 8, 4, 5, 5}, {2, 4, 3, 3, 3},
            {4, 4, 2, 5, 5}, {4, 4, 4, 2, 2}, {4, 4, 4, 3, 3}, {4, 4, 4, 12, 12}, {4, 4, 8, 5, 5}, {4, 8, 4, 5, 5},
            {4, 12, 4, 5, 5}, {4, 24, 3, 5, 5}, {3, 6, 5, 6, 3}, {4, 4, 4, 8, 2}
        }) {
            all.add(of(size[0], size[1], size[2], size[3], size[4]));
        }
        all.add(usual);
        // Truths.
        for (Truth truth : List.of(Truth.ONE_WORSE, Truth.TWO_AHEAD)) {
            all.add(usual.with(truth));
            all.add(of(4, 12, 4, 5, 5).with(truth));
            all.add(of(4, 4, 8, 8, 3).with(0.1).with(truth));
        }
        all.add(of(4, 4, 2, 5, 5).with(Truth.ONE_WORSE));
        all.add(of(4, 24, 3, 5, 5).with(Truth.ONE_WORSE));
        // Gaps and teams.
        all.add(usual.with(0.1));
        all.add(usual.with(0.35));
        all.add(of(4, 4, 4, 12, 3).with(0.35));
        all.add(of(4, 4, 4, 8, 4).inTeams(2));
        all.add(of(4, 4, 4, 8, 4).inTeams(2).with(Truth.ONE_WORSE));
        // Raters.
        for (RaterSort sort : RaterSort.values()) {
            if (sort != RaterSort.USUAL && sort != RaterSort.GUESSING) {
                all.add(usual.with(sort));
            }
        }
        // How candidates vary by prompt, one erratic, near the ends, attempts.
        all.add(usual.with(new Latent(58, 6, 1)));
        all.add(usual.with(new Latent(58, 24, 1)));
        all.add(usual.with(new Latent(58, 15, 1.8)));
        all.add(of(4, 12, 3, 5, 5).with(new Latent(58, 15, 1.8)));
        all.add(of(4, 12, 3, 5, 5).with(new Latent(58, 15, 1.8)).with(Truth.TWO_AHEAD));
        all.add(usual.with(new Latent(90, 15, 1)));
        all.add(usual.with(new Latent(10, 15, 1)));
        all.add(of(4, 12, 4, 5, 5).with(new Latent(95, 15, 1)));
        all.add(usual.withAttempts(2));
        return all;
    }

    /** What came of one study. */
    private static final class Seen {
        private boolean best;
        private boolean safe;
        private boolean out;
        private boolean recommended;
        private boolean safeChoices;
        private boolean withheld;
        private int differences;
        private int held;
        private int standings;
        private int standingsHeld;
    }

    private static String row(Conditions conditions, int studies) {
        MadeUpStudies made = new MadeUpStudies(conditions);
        double[] truth = made.truth();
        List<Seen> all = IntStream.range(0, studies)
                .parallel()
                .mapToObj(s -> seen(made.draw(Resamples.generator(1_000_003L * s + 17)), truth))
                .toList();
        double differences = all.stream().mapToInt(s -> s.differences).sum();
        double standings = all.stream().mapToInt(s -> s.standings).sum();
        return String.format(
                Locale.ROOT,
                "| %s | %s | %s | %s | %s | %s | %s | %s | %s | %s | %s |%n",
                conditions,
                share(all.stream().filter(s -> s.best || s.safe || s.out).count(), studies),
                share(all.stream().filter(s -> s.best).count(), studies),
                share(all.stream().filter(s -> s.safe).count(), studies),
                share(all.stream().filter(s -> s.out).count(), studies),
                share(all.stream().mapToInt(s -> s.held).sum(), differences),
                share(all.stream().mapToInt(s -> s.standingsHeld).sum(), standings),
                share(all.stream().filter(s -> s.recommended).count(), studies),
                share(all.stream().filter(s -> s.safeChoices).count(), studies),
                share(
                        all.stream()
                                .filter(s -> !s.recommended && !s.safeChoices && !s.withheld)
                                .count(),
                        studies),
                share(all.stream().filter(s -> s.withheld).count(), studies));
    }

    static String share(double part, double whole) {
        return String.format(Locale.ROOT, "%.1f", 100 * part / whole);
    }

    private static Seen seen(List<ScoredCell> cells, double[] truth) {
        Seen seen = new Seen();
        Standings standings = Standings.of(
                cells,
                PromptGroups.byKind(MadeUpStudies::kindOf),
                new Standings.Options(0, LEVEL),
                Resamples.generator(0));
        for (Standing standing : standings.standings()) {
            if (standing.interval() instanceof Interval.Bounds bounds) {
                seen.standings++;
                seen.standingsHeld += holds(bounds, truth[index(standing.candidate())]) ? 1 : 0;
            }
        }
        for (Difference difference : standings.differences()) {
            if (difference.interval() instanceof Interval.Bounds bounds) {
                seen.differences++;
                double real = truth[index(difference.higher())] - truth[index(difference.lower())];
                seen.held += holds(bounds, real) ? 1 : 0;
            } else {
                seen.withheld = true;
            }
        }
        if (standings.differences().isEmpty() || seen.withheld) {
            seen.withheld = true;
            return seen;
        }
        judge(seen, standings, truth);
        return seen;
    }

    /** Sorts what is said into what is so and what is not: of several equally best, calling one out or the best is false. */
    private static void judge(Seen seen, Standings standings, double[] truth) {
        double top = Arrays.stream(truth).max().orElseThrow();
        long tops = Arrays.stream(truth).filter(t -> top - t < ALIKE).count();
        WithBest field = WithBest.of(
                standings.standings().stream().map(Standing::candidate).toList(), standings.differences(), ALPHA);
        long in = field.candidates().stream().filter(c -> !c.out()).count();
        for (WithBest.Candidate candidate : field.candidates()) {
            double gap = top - truth[index(candidate.name())];
            boolean best = candidate.best() || in == 1 && !candidate.out();
            boolean safe = !candidate.out() && candidate.isSafe(Conditions.MARGIN);
            seen.recommended |= best;
            seen.safeChoices |= safe;
            seen.best |= best && (gap >= ALIKE || tops > 1);
            seen.out |= candidate.out() && gap < ALIKE;
            seen.safe |= safe && gap >= Conditions.MARGIN - ALIKE;
        }
        seen.safeChoices &= !seen.recommended;
    }

    private static boolean holds(Interval.Bounds bounds, double real) {
        return bounds.low() <= real && real <= bounds.high();
    }

    static int index(String candidate) {
        return Integer.parseInt(candidate.substring(1));
    }
}
