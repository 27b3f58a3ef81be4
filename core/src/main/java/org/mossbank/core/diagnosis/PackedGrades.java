package org.mossbank.core.diagnosis;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.TreeMap;
import java.util.function.IntFunction;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.agreement.AgreementWeights;
import org.mossbank.core.agreement.CohenKappa;
import org.mossbank.core.agreement.KrippendorffAlpha;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.agreement.Split;

/**
 * The grades on one criterion, laid out so that any part of them is looked into at once.
 *
 * <p>The observed disagreement of ordinal alpha is a sum over pairs of grades of one answer, each pair weighing \(1 / (m_u - 1)\):
 * \[ D_o \propto \sum_u \frac{1}{m_u - 1} \sum_{i < j} \delta^2_{g_{ui} g_{uj}} \] with \(m_u\) grades of answer \(u\) and \(\delta\)
 * the ordinal distance of {@link KrippendorffAlpha}. What is looked at is some of these pairs, each with the weight and the distance
 * that it has among all of them: parts of a part add up to it. Answers with one grade are not in it. Cost O(pairs + raters² × levels²).
 */
public final class PackedGrades {
    private final Answers answers;
    private final Names prompts;
    private final Names kinds;
    private final Names raters;
    private final double[][] distance;

    private PackedGrades(Answers answers, Names prompts, Names kinds, Names raters, double[][] distance) {
        this.answers = answers;
        this.prompts = prompts;
        this.kinds = kinds;
        this.raters = raters;
        this.distance = distance;
    }

    /**
     * Answers with two grades or more.
     *
     * @param start  of each answer's grades; one more than there are answers
     * @param rater  of each grade
     * @param level  of each grade
     * @param prompt of each answer
     * @param kind   of each answer
     */
    private record Answers(String[] unit, int[] start, int[] rater, int[] level, int[] prompt, int[] kind) {}

    /** Numbers for names, in the order in which they first come. */
    private static final class Names {
        private final Map<String, Integer> numbers = new HashMap<>();
        private final List<String> all = new ArrayList<>();

        int of(String name) {
            return numbers.computeIfAbsent(name, n -> {
                all.add(n);
                return numbers.size();
            });
        }

        /** Below 0 if there is no such name, and {@link #ALL} if none is wanted. */
        int wanted(@Nullable String name) {
            return name == null ? ALL : numbers.getOrDefault(name, NONE);
        }
    }

    private static final int NONE = -2;
    private static final int ALL = -1;

    /**
     * @param promptOf the prompt of each unit of the matrix
     * @param kindOf   the kind of each
     */
    public static PackedGrades of(RatingMatrix matrix, UnaryOperator<String> promptOf, UnaryOperator<String> kindOf) {
        Names raters = new Names();
        matrix.raters().forEach(raters::of);
        List<String> units = new ArrayList<>();
        List<int[]> grades = new ArrayList<>();
        int all = 0;
        for (int u = 0; u < matrix.units().size(); u++) {
            int[] own = new int[2 * raters.all.size()];
            int given = 0;
            for (int r = 0; r < raters.all.size(); r++) {
                OptionalInt level = matrix.category(u, r);
                if (level.isPresent()) {
                    own[2 * given] = r;
                    own[2 * given + 1] = level.getAsInt();
                    given++;
                }
            }
            if (given >= 2) {
                units.add(matrix.units().get(u));
                grades.add(Arrays.copyOf(own, 2 * given));
                all += given;
            }
        }
        Names prompts = new Names();
        Names kinds = new Names();
        Answers packed = new Answers(
                units.toArray(String[]::new),
                new int[units.size() + 1],
                new int[all],
                new int[all],
                units.stream().mapToInt(u -> prompts.of(promptOf.apply(u))).toArray(),
                units.stream().mapToInt(u -> kinds.of(kindOf.apply(u))).toArray());
        for (int u = 0; u < units.size(); u++) {
            int[] own = grades.get(u);
            int at = packed.start[u];
            for (int i = 0; i < own.length; i += 2) {
                packed.rater[at] = own[i];
                packed.level[at++] = own[i + 1];
            }
            packed.start[u + 1] = at;
        }
        return new PackedGrades(packed, prompts, kinds, raters, distances(packed.level, matrix.levels()));
    }

    /** Squared ordinal distances, from the grades of answers that have two or more. */
    private static double[][] distances(int[] levels, int k) {
        double[] count = new double[k];
        for (int level : levels) {
            count[level]++;
        }
        double[][] distance = new double[k][k];
        for (int low = 0; low < k; low++) {
            double between = count[low] / 2;
            for (int high = low + 1; high < k; high++) {
                double d = between + count[high] / 2;
                distance[low][high] = d * d;
                between += count[high];
            }
        }
        return distance;
    }

    /**
     * What they consist of, narrowed down; a kind, prompt or rater that is not among them leaves nothing.
     *
     * @param most answers that are named
     */
    public Narrowed narrowed(Narrowing to, int most) {
        return new Sums(to).narrowed(most);
    }

    /** One walk over all pairs of grades. */
    private final class Sums {
        private final int kind;
        private final int prompt;
        private final int rater;
        private final Narrowing.@Nullable Levels levels;
        private final int scale = distance.length;
        private final Parts byKind = new Parts(kinds.all.size());
        private final Parts byPrompt = new Parts(prompts.all.size());
        private final Parts byLevels = new Parts(scale * scale);
        private final Parts byRaters = new Parts(raters.all.size() * raters.all.size());
        /** What each two raters gave the same answers; absent where they have none in common. */
        private final int[] @Nullable [][] crossed = new int[raters.all.size() * raters.all.size()][][];

        private final int[][] use = new int[raters.all.size()][scale];
        /** Answers by how far their grades lie apart. */
        private final Map<Integer, List<Integer>> parted = new TreeMap<>(Comparator.reverseOrder());

        Sums(Narrowing to) {
            kind = kinds.wanted(to.kind());
            prompt = prompts.wanted(to.prompt());
            rater = raters.wanted(to.rater());
            levels = to.levels();
            for (int u = 0; u < answers.unit.length; u++) {
                answer(u);
            }
        }

        private void answer(int u) {
            boolean ofKind = kind == ALL || answers.kind[u] == kind;
            boolean ofPrompt = prompt == ALL || answers.prompt[u] == prompt;
            int from = answers.start[u];
            int to = answers.start[u + 1];
            int lowest = Integer.MAX_VALUE;
            int highest = 0;
            boolean found = false;
            for (int i = from; i < to; i++) {
                lowest = Math.min(lowest, answers.level[i]);
                highest = Math.max(highest, answers.level[i]);
                if (ofKind && ofPrompt) {
                    use[answers.rater[i]][answers.level[i]]++;
                }
                for (int j = i + 1; j < to; j++) {
                    found |= pair(u, i, j, ofKind, ofPrompt);
                }
            }
            if (found) {
                parted.computeIfAbsent(highest - lowest, d -> new ArrayList<>()).add(u);
            }
        }

        private List<Rating> ratings(int u) {
            return IntStream.range(answers.start[u], answers.start[u + 1])
                    .mapToObj(i -> new Rating(answers.unit[u], raters.all.get(answers.rater[i]), answers.level[i]))
                    .sorted(Comparator.comparingInt(Rating::category))
                    .toList();
        }

        /** Whether it makes the answer one of those that part raters. */
        private boolean pair(int u, int i, int j, boolean ofKind, boolean ofPrompt) {
            int low = Math.min(answers.level[i], answers.level[j]);
            int high = Math.max(answers.level[i], answers.level[j]);
            double part = distance[low][high] / (answers.start[u + 1] - answers.start[u] - 1);
            boolean apart = low < high;
            boolean ofRater = rater == ALL || answers.rater[i] == rater || answers.rater[j] == rater;
            boolean ofLevels = levels == null || levels.lower() == low && levels.higher() == high;
            if (ofPrompt && ofRater && ofLevels) {
                byKind.add(answers.kind[u], part, apart);
            }
            if (ofKind && ofRater && ofLevels) {
                byPrompt.add(answers.prompt[u], part, apart);
            }
            if (ofKind && ofPrompt) {
                if (ofRater) {
                    byLevels.add(low * scale + high, part, apart);
                }
                int both = answers.rater[i] * raters.all.size() + answers.rater[j];
                if (ofLevels) {
                    byRaters.add(both, part, apart);
                }
                crossed(both)[answers.level[i]][answers.level[j]]++;
            }
            return ofKind && ofPrompt && ofRater && (levels == null ? high - low >= Split.LEAST_DISTANCE : ofLevels);
        }

        private int[][] crossed(int both) {
            int[][] own = crossed[both];
            if (own == null) {
                own = new int[scale][scale];
                crossed[both] = own;
            }
            return own;
        }

        private List<Narrowed.Parted> widest(int most) {
            return parted.entrySet().stream()
                    .flatMap(e -> e.getValue().stream()
                            .map(u -> new Narrowed.Parted(answers.unit[u], e.getKey(), ratings(u))))
                    .limit(most)
                    .toList();
        }

        Narrowed narrowed(int most) {
            List<UseOfScale> used = new ArrayList<>();
            for (int r = 0; r < use.length; r++) {
                used.add(new UseOfScale(
                        raters.all.get(r), Arrays.stream(use[r]).boxed().toList()));
            }
            return new Narrowed(
                    byKind.parts(kinds.all::get, k -> ""),
                    byPrompt.parts(prompts.all::get, p -> ""),
                    byLevels.parts(l -> Integer.toString(l / scale), l -> Integer.toString(l % scale)),
                    raterPairs(),
                    used,
                    widest(most),
                    parted.values().stream().mapToInt(List::size).sum());
        }

        private List<Narrowed.RaterPair> raterPairs() {
            List<Narrowed.RaterPair> pairs = new ArrayList<>();
            AgreementWeights quadratic = AgreementWeights.quadratic(scale);
            for (int both = 0; both < crossed.length; both++) {
                int[][] counts = crossed[both];
                if (counts != null) {
                    CohenKappa kappa = CohenKappa.ofCounts(counts, quadratic);
                    pairs.add(new Narrowed.RaterPair(
                            raters.all.get(both / raters.all.size()),
                            raters.all.get(both % raters.all.size()),
                            byRaters.share(both),
                            kappa.kappa(),
                            kappa.count(),
                            byRaters.apart[both]));
                }
            }
            pairs.sort(Comparator.comparingDouble(Narrowed.RaterPair::share).reversed());
            return pairs;
        }
    }

    /** Parts of disagreement by number. */
    private static final class Parts {
        private final double[] part;
        private final int[] pairs;
        private final int[] apart;
        private double all;

        Parts(int n) {
            part = new double[n];
            pairs = new int[n];
            apart = new int[n];
        }

        void add(int at, double of, boolean parts) {
            part[at] += of;
            pairs[at]++;
            apart[at] += parts ? 1 : 0;
            all += of;
        }

        double share(int at) {
            return all == 0 ? 0 : part[at] / all;
        }

        List<Narrowed.Part> parts(IntFunction<String> first, IntFunction<String> second) {
            List<Narrowed.Part> found = new ArrayList<>();
            for (int at = 0; at < part.length; at++) {
                if (pairs[at] > 0) {
                    found.add(new Narrowed.Part(first.apply(at), second.apply(at), share(at), pairs[at], apart[at]));
                }
            }
            found.sort(Comparator.comparingDouble(Narrowed.Part::share)
                    .reversed()
                    .thenComparing(Narrowed.Part::first)
                    .thenComparing(Narrowed.Part::second));
            return found;
        }
    }
}
