package org.mossbank.core.diagnosis;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.mossbank.core.agreement.AgreementWeights;
import org.mossbank.core.agreement.CohenKappa;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.agreement.RatingMatrix;
import org.testng.annotations.Test;

public class PackedGradesTest {
    private static final List<String> RATERS = List.of("ann", "ben", "cay", "dov");

    /** A unit is named by its kind, its prompt and a number: {@code rp3}. */
    private static List<Rating> some() {
        Random random = new Random(11);
        List<Rating> all = new ArrayList<>();
        for (String prompt : List.of("rp", "rq", "xs")) {
            for (int a = 0; a < 9; a++) {
                int truth = random.nextInt(5);
                for (String rater : RATERS) {
                    if (random.nextInt(4) > 0) {
                        all.add(new Rating(prompt + a, rater, Math.min(4, Math.max(0, truth + random.nextInt(4) - 1))));
                    }
                }
            }
        }
        return all;
    }

    private static RatingMatrix matrix(List<Rating> ratings) {
        return RatingMatrix.ofLevels(ratings, 4);
    }

    private static Narrowed narrowed(List<Rating> ratings, Narrowing to) {
        return PackedGrades.of(matrix(ratings), u -> u.substring(0, 2), u -> u.substring(0, 1))
                .narrowed(to, 100);
    }

    private static List<Rating> of(List<Rating> ratings, String start) {
        return ratings.stream().filter(r -> r.unit().startsWith(start)).toList();
    }

    private static double share(List<Narrowed.Part> parts, String first) {
        return parts.stream()
                .filter(p -> p.first().equals(first))
                .mapToDouble(Narrowed.Part::share)
                .sum();
    }

    /** By hand: pairs of grades of p1 are 0-1, 0-4 and 1-4, and of q1 2-2; counts of levels 1, 1, 2, 0, 1. */
    @Test
    public void aPairWeighsTheSquareOfHowManyGradesLieBetween() {
        List<Rating> ratings = List.of(
                new Rating("rp1", "ann", 0),
                new Rating("rp1", "ben", 1),
                new Rating("rp1", "cay", 4),
                new Rating("xq1", "ann", 2),
                new Rating("xq1", "ben", 2));
        Narrowed all = narrowed(ratings, Narrowing.NONE);
        // by hand: 0-1: (1/2 + 1/2)² = 1; 0-4: (1/2 + 1 + 2 + 0 + 1/2)² = 16; 1-4: (1/2 + 2 + 0 + 1/2)² = 9; each / 2
        assertThat(all.levelPairs())
                .containsExactly(
                        new Narrowed.Part("0", "4", 16 / 26.0, 1, 1),
                        new Narrowed.Part("1", "4", 9 / 26.0, 1, 1),
                        new Narrowed.Part("0", "1", 1 / 26.0, 1, 1),
                        new Narrowed.Part("2", "2", 0, 1, 0));
        assertThat(all.kinds())
                .containsExactly(new Narrowed.Part("r", "", 1, 3, 3), new Narrowed.Part("x", "", 0, 1, 0));
        assertThat(all.parted()).containsExactly(new Narrowed.Parted("rp1", 4, ratings.subList(0, 3)));
        // Ann and Ben lie one apart at most: their pair makes no split, though the answer is one.
        assertThat(all.raterPairs())
                .extracting(Narrowed.RaterPair::first, Narrowed.RaterPair::second, Narrowed.RaterPair::answers)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("ann", "cay", 1),
                        org.assertj.core.groups.Tuple.tuple("ben", "cay", 1),
                        org.assertj.core.groups.Tuple.tuple("ann", "ben", 2));
    }

    /** Levels 0 and 1 were given 3 and 2 times: any 0-1 is (3/2 + 2/2)² apart, and so cancels. */
    @Test
    public void pairsOfAnAnswerWithMoreGradesWeighLessEach() {
        Narrowed all = narrowed(
                List.of(
                        new Rating("rp1", "ann", 0),
                        new Rating("rp1", "ben", 1),
                        new Rating("rp1", "cay", 0),
                        new Rating("rq1", "ann", 0),
                        new Rating("rq1", "ben", 1)),
                Narrowing.NONE);
        // by hand: p has two pairs that part, each weighing 1 / 2, and q one that weighs 1
        assertThat(all.prompts())
                .containsExactly(new Narrowed.Part("rp", "", 0.5, 3, 2), new Narrowed.Part("rq", "", 0.5, 1, 1));
    }

    @Test
    public void eachListIsNarrowedByAllButItself() {
        List<Rating> ratings = some();
        Narrowed all = narrowed(ratings, Narrowing.NONE);
        Narrowed kind = narrowed(ratings, new Narrowing("r", null, null, null));
        assertThat(kind.kinds()).isEqualTo(all.kinds());
        assertThat(kind.prompts()).extracting(Narrowed.Part::first).containsOnly("rp", "rq");
        Narrowed prompt = narrowed(ratings, new Narrowing(null, "rq", null, null));
        assertThat(prompt.prompts()).isEqualTo(all.prompts());
        assertThat(prompt.kinds()).extracting(Narrowed.Part::first).containsExactly("r");
        Narrowed levels = narrowed(ratings, new Narrowing(null, null, null, new Narrowing.Levels(1, 2)));
        assertThat(levels.levelPairs()).isEqualTo(all.levelPairs());
        assertThat(levels.prompts()).allMatch(p -> p.pairs() == p.apart());
        Narrowed rater = narrowed(ratings, new Narrowing(null, null, "ben", null));
        assertThat(rater.raterPairs()).isEqualTo(all.raterPairs());
        assertThat(rater.prompts().stream().mapToInt(Narrowed.Part::pairs).sum())
                .isLessThan(
                        all.prompts().stream().mapToInt(Narrowed.Part::pairs).sum());
    }

    @Test
    public void pairsOfRatersAreCountedAtTheLevelsLookedAt() {
        Narrowed found = narrowed(some(), new Narrowing(null, null, null, new Narrowing.Levels(1, 2)));
        Narrowed.Part between = found.levelPairs().stream()
                .filter(l -> l.first().equals("1") && l.second().equals("2"))
                .findFirst()
                .orElseThrow();
        assertThat(found.raterPairs().stream()
                        .mapToInt(Narrowed.RaterPair::apart)
                        .sum())
                .isEqualTo(between.apart())
                .isLessThan(found.levelPairs().stream()
                        .mapToInt(Narrowed.Part::apart)
                        .sum());
    }

    @Test
    public void levelsAreThoseOfPairsWithTheRaterLookedAt() {
        List<Rating> ratings = some();
        Narrowed found = narrowed(ratings, new Narrowing(null, null, "ben", null));
        // by brute force: everybody else's grades of what Ben graded
        long pairs = ratings.stream()
                .filter(r -> !r.rater().equals("ben"))
                .filter(r -> ratings.stream()
                        .anyMatch(o -> o.rater().equals("ben") && o.unit().equals(r.unit())))
                .count();
        assertThat(found.levelPairs().stream().mapToInt(Narrowed.Part::pairs).sum())
                .isEqualTo((int) pairs);
    }

    @Test
    public void partsOfAPartAddUpToIt() {
        List<Rating> ratings = some();
        Narrowed all = narrowed(ratings, Narrowing.NONE);
        double ofKind = share(all.kinds(), "r");
        Narrowed within = narrowed(ratings, new Narrowing("r", null, null, null));
        for (String prompt : List.of("rp", "rq")) {
            assertThat(share(within.prompts(), prompt) * ofKind).isCloseTo(share(all.prompts(), prompt), within(1e-12));
        }
        int apart = within.prompts().stream().mapToInt(Narrowed.Part::apart).sum();
        assertThat(within.levelPairs().stream().mapToInt(Narrowed.Part::apart).sum())
                .isEqualTo(apart);
        assertThat(within.raterPairs().stream()
                        .mapToInt(Narrowed.RaterPair::apart)
                        .sum())
                .isEqualTo(apart);
    }

    @Test
    public void kappaIsThatOfTheAnswersLookedAt() {
        List<Rating> ratings = some();
        RatingMatrix prompt = matrix(of(ratings, "rq"));
        Narrowed found = narrowed(ratings, new Narrowing(null, "rq", "dov", new Narrowing.Levels(0, 4)));
        for (Narrowed.RaterPair pair : found.raterPairs()) {
            CohenKappa alone = CohenKappa.of(
                    prompt,
                    prompt.raters().indexOf(pair.first()),
                    prompt.raters().indexOf(pair.second()),
                    AgreementWeights.quadratic(5));
            assertThat(pair.kappa()).isEqualTo(alone.kappa());
            assertThat(pair.answers()).isEqualTo(alone.count());
        }
        assertThat(found.raterPairs()).isNotEmpty();
    }

    @Test
    public void splitsAreThoseThatAPairLookedAtMakes() {
        List<Rating> ratings = some();
        for (String rater : RATERS) {
            List<String> found = narrowed(ratings, new Narrowing("r", null, rater, null)).parted().stream()
                    .map(Narrowed.Parted::unit)
                    .toList();
            // by brute force: of the kind, and somebody gave two levels more or less than this rater
            List<String> expected = of(ratings, "r").stream()
                    .filter(own -> own.rater().equals(rater))
                    .filter(own -> ratings.stream()
                            .anyMatch(o -> o.unit().equals(own.unit()) && Math.abs(o.category() - own.category()) >= 2))
                    .map(Rating::unit)
                    .toList();
            assertThat(found).containsExactlyInAnyOrderElementsOf(expected).isNotEmpty();
        }
    }

    /** Neighbouring levels make no split; whoever looks at them wants the answers all the same. */
    @Test
    public void twoLevelsLookedAtListEveryAnswerThatGotBoth() {
        List<Rating> ratings = List.of(
                new Rating("rp1", "ann", 3),
                new Rating("rp1", "ben", 4),
                new Rating("rp2", "ann", 2),
                new Rating("rp2", "ben", 4));
        assertThat(narrowed(ratings, new Narrowing(null, null, null, new Narrowing.Levels(3, 4)))
                        .parted())
                .containsExactly(new Narrowed.Parted("rp1", 1, ratings.subList(0, 2)));
        assertThat(narrowed(ratings, Narrowing.NONE).parted())
                .containsExactly(new Narrowed.Parted("rp2", 2, ratings.subList(2, 4)));
    }

    @Test
    public void asManyAreNamedAsAreAskedForAndAllAreCounted() {
        PackedGrades packed = PackedGrades.of(matrix(some()), u -> u.substring(0, 2), u -> u.substring(0, 1));
        Narrowed all = packed.narrowed(Narrowing.NONE, 100);
        Narrowed two = packed.narrowed(Narrowing.NONE, 2);
        assertThat(two.parted()).isEqualTo(all.parted().subList(0, 2));
        assertThat(two.partedCount()).isEqualTo(all.parted().size()).isGreaterThan(2);
        assertThat(all.parted())
                .extracting(Narrowed.Parted::distance)
                .isSortedAccordingTo(java.util.Comparator.reverseOrder());
    }

    @Test
    public void whatIsNotAmongThemLeavesNothing() {
        for (Narrowing to : List.of(
                new Narrowing("y", null, null, null),
                new Narrowing(null, "zz", null, null),
                new Narrowing(null, null, "eve", null))) {
            assertThat(narrowed(some(), to).parted()).isEmpty();
            assertThat(narrowed(some(), to).levelPairs()).isEmpty();
        }
    }

    @Test
    public void answersWithOneGradeAreNotInIt() {
        Narrowed found = narrowed(List.of(new Rating("rp1", "ann", 3), new Rating("rp2", "ann", 2)), Narrowing.NONE);
        assertThat(found.prompts()).isEmpty();
        assertThat(found.useOfScale()).containsExactly(new UseOfScale("ann", List.of(0, 0, 0, 0, 0)));
    }

    @Test
    public void levelsAreTwo() {
        assertThatIllegalArgumentException()
                .isThrownBy(() -> new Narrowing.Levels(2, 2))
                .withMessageContaining("lower");
        assertThatIllegalArgumentException().isThrownBy(() -> new Narrowing.Levels(-1, 2));
    }
}
