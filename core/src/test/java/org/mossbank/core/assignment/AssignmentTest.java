package org.mossbank.core.assignment;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.stream.IntStream;
import org.mossbank.core.estimate.Resamples;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class AssignmentTest {
    private static List<GradingTask.PromptTask> answers(int prompts, int candidates) {
        List<GradingTask.PromptTask> tasks = new ArrayList<>();
        for (int p = 0; p < prompts; p++) {
            List<GradingTask.Entry> entries = new ArrayList<>();
            for (int c = 0; c < candidates; c++) {
                entries.add(new GradingTask.Entry("p" + p + "-c" + c, "c" + c));
            }
            tasks.add(new GradingTask.PromptTask("p" + p, "kind" + p % 4, entries));
        }
        return tasks;
    }

    private static SortedSet<String> raters(int n) {
        SortedSet<String> raters = new TreeSet<>();
        for (int r = 0; r < n; r++) {
            raters.add("r" + r);
        }
        return raters;
    }

    private static List<SheetPlan> plan(int raters, int prompts, int candidates, long seed) {
        return Assignment.plan(
                GradingTask.open(raters(raters), answers(prompts, candidates)),
                PlanOptions.EVERYTHING,
                Resamples.generator(seed));
    }

    @DataProvider
    public static Object[][] sizes() {
        return new Object[][] {{4, 8, 3}, {5, 16, 5}, {3, 7, 4}, {2, 40, 9}, {1, 1, 1}};
    }

    @Test(dataProvider = "sizes")
    public void eachCandidateStandsAtEachPlaceEquallyOftenForEachRater(int raters, int prompts, int candidates) {
        List<SheetPlan> plan = plan(raters, prompts, candidates, 11);
        for (String rater : raters(raters)) {
            Map<String, Integer> shown = new HashMap<>();
            plan.stream().filter(s -> s.rater().equals(rater)).forEach(sheet -> {
                for (int place = 0; place < candidates; place++) {
                    String candidate = sheet.answers().get(place).split("-")[1];
                    shown.merge(candidate + "@" + place, 1, Integer::sum);
                }
            });
            for (int c = 0; c < candidates; c++) {
                for (int place = 0; place < candidates; place++) {
                    assertThat(shown.getOrDefault("c" + c + "@" + place, 0))
                            .isBetween(prompts / candidates, (prompts + candidates - 1) / candidates);
                }
            }
        }
    }

    @Test
    public void everyRaterGetsEveryPromptOnceInAnOrderOfTheirOwn() {
        List<SheetPlan> plan = plan(4, 8, 3, 12);
        assertThat(plan).hasSize(32);
        List<List<String>> orders = raters(4).stream()
                .map(r -> plan.stream()
                        .filter(s -> s.rater().equals(r))
                        .map(SheetPlan::prompt)
                        .toList())
                .toList();
        assertThat(orders).allSatisfy(o -> assertThat(o).doesNotHaveDuplicates().hasSize(8));
        assertThat(new TreeSet<>(orders.stream().map(Object::toString).toList()))
                .hasSize(4);
    }

    @Test
    public void sameSeedSamePlanOtherSeedOtherPlan() {
        assertThat(plan(3, 6, 3, 5)).isEqualTo(plan(3, 6, 3, 5)).isNotEqualTo(plan(3, 6, 3, 6));
    }

    @Test
    public void promptsMayLackAnswersOrHaveSeveralAttempts() {
        List<GradingTask.PromptTask> prompts = List.of(
                new GradingTask.PromptTask("p1", "review", List.of(new GradingTask.Entry("p1-a", "a"))),
                new GradingTask.PromptTask(
                        "p2",
                        "review",
                        List.of(
                                new GradingTask.Entry("p2-a1", "a"),
                                new GradingTask.Entry("p2-a2", "a"),
                                new GradingTask.Entry("p2-b", "b"))));
        List<SheetPlan> plan =
                Assignment.plan(GradingTask.open(raters(2), prompts), PlanOptions.EVERYTHING, Resamples.generator(1));
        assertThat(plan)
                .hasSize(4)
                .anySatisfy(s -> assertThat(s.answers()).containsExactlyInAnyOrder("p2-a1", "p2-a2", "p2-b"));
    }

    /** Raters, prompts, candidates, raters an answer. */
    @DataProvider
    public static Object[][] incompleteSizes() {
        return new Object[][] {
            {5, 16, 5, 3},
            {5, 16, 4, 2},
            {4, 8, 3, 2},
            {3, 4, 3, 2},
            {6, 20, 4, 3},
            {7, 7, 3, 3},
            {8, 24, 6, 3},
            {8, 48, 4, 2},
            {10, 30, 5, 4},
            {5, 9, 3, 4},
            {12, 32, 3, 3},
            {6, 10, 2, 3}
        };
    }

    @Test(dataProvider = "incompleteSizes")
    public void incompletePlansAreBalanced(int raters, int prompts, int candidates, int least) {
        GradingTask task = GradingTask.open(raters(raters), answers(prompts, candidates));
        PlanBalance balance = PlanBalance.of(task, Assignment.plan(task, sharing(least, 0), Resamples.generator(3)));
        assertThat(balance.ratersAnAnswer()).isEqualTo(new PlanBalance.Range(least, least));
        assertThat(spread(balance.sheetsByRater().values()))
                .as("sheets a rater")
                .isLessThanOrEqualTo(1);
        assertThat(balance.exposure()).as("every candidate equally often").isZero();
        assertThat(balance.connected()).isTrue();
        // Pairs share answers of whole prompts: counts of prompts may differ by two where no exact design exists.
        assertThat(spread(balance.sharedAnswers().stream()
                        .map(PlanBalance.Pair::answers)
                        .toList()))
                .isLessThanOrEqualTo(2 * candidates);
        assertThat(balance.paired()).isEqualTo(prompts * candidates);
    }

    /** Seven raters and seven prompts by threes: the projective plane exists, each pair shares exactly one prompt. */
    @Test
    public void theExactDesignIsFoundWhereThereIsOne() {
        GradingTask task = GradingTask.open(raters(7), answers(7, 2));
        PlanBalance balance = PlanBalance.of(task, Assignment.plan(task, sharing(3, 0), Resamples.generator(5)));
        assertThat(balance.sharedAnswers()).hasSize(21).allMatch(pair -> pair.answers() == 2);
        assertThat(balance.sheetsByRater().values()).containsOnly(3);
    }

    @Test(dataProvider = "incompleteSizes")
    public void eachKindIsSharedOutToo(int raters, int prompts, int candidates, int least) {
        GradingTask task = GradingTask.open(raters(raters), answers(prompts, candidates));
        Map<String, Integer> byRaterAndKind = new HashMap<>();
        for (String rater : task.raters()) {
            for (int kind = 0; kind < 4; kind++) {
                byRaterAndKind.put(rater + " kind" + kind, 0);
            }
        }
        for (SheetPlan sheet : Assignment.plan(task, sharing(least, 0), Resamples.generator(8))) {
            int kind = Integer.parseInt(sheet.prompt().substring(1)) % 4;
            byRaterAndKind.merge(sheet.rater() + " kind" + kind, 1, Integer::sum);
        }
        assertThat(spread(byRaterAndKind.values())).isLessThanOrEqualTo(3);
    }

    private static PlanOptions sharing(int least, double repeats) {
        return new PlanOptions(OptionalInt.of(least), repeats);
    }

    private static int spread(Collection<Integer> counts) {
        return counts.stream().mapToInt(Integer::intValue).max().orElseThrow()
                - counts.stream().mapToInt(Integer::intValue).min().orElseThrow();
    }

    @DataProvider
    public static Object[][] barredPlans() {
        return new Object[][] {
            {"all on all", PlanOptions.EVERYTHING},
            {"two an answer", sharing(2, 0.2)},
            {"three an answer", sharing(3, 0)},
            {"four an answer", sharing(4, 0.1)},
        };
    }

    /** r0 wrote the baseline c3, r1 the prompt p2: neither grades their own; three are left for the baseline on p2. */
    @Test(dataProvider = "barredPlans")
    public void nobodyGradesTheirOwn(String name, PlanOptions options) {
        List<GradingTask.PromptTask> prompts = answers(12, 4);
        Set<GradingTask.Bar> barred = new HashSet<>(Set.of(new GradingTask.Bar("r1", "p2")));
        for (int p = 0; p < 12; p++) {
            barred.add(new GradingTask.Bar("r0", "p" + p + "-c3"));
        }
        GradingTask task = new GradingTask(raters(5), prompts, barred);
        List<SheetPlan> plan = Assignment.plan(task, options, Resamples.generator(4));
        assertThat(plan)
                .noneMatch(s -> s.rater().equals("r0") && s.answers().stream().anyMatch(a -> a.endsWith("-c3")))
                .noneMatch(s -> s.rater().equals("r1") && s.prompt().equals("p2"))
                .anyMatch(s -> s.rater().equals("r0"))
                .anyMatch(s -> s.rater().equals("r1"));
        PlanBalance balance = PlanBalance.of(task, plan);
        int least = options.ratersAnAnswer().orElse(5);
        assertThat(balance.ratersAnAnswer().least()).isGreaterThanOrEqualTo(Math.min(least, 3));
        assertThat(balance.exposure())
                .as("what r0 must not grade is not missed")
                .isZero();
    }

    /** Two raters wrote both prompts' answers but one: those nobody else may grade have whoever is left. */
    @Test
    public void whereTooFewMayGradeAllWhoMayDo() {
        List<GradingTask.PromptTask> prompts = answers(2, 2);
        GradingTask task = new GradingTask(
                raters(3), prompts, Set.of(new GradingTask.Bar("r0", "p0"), new GradingTask.Bar("r1", "p0")));
        List<SheetPlan> plan = Assignment.plan(task, sharing(2, 0), Resamples.generator(4));
        assertThat(plan.stream().filter(s -> s.prompt().equals("p0")).map(SheetPlan::rater))
                .containsExactly("r2");
        assertThat(plan.stream().filter(s -> s.prompt().equals("p1"))).hasSize(2);
    }

    @Test(dataProvider = "incompleteSizes")
    public void repeatsComeLaterAndInAnotherOrder(int raters, int prompts, int candidates, int least) {
        GradingTask task = GradingTask.open(raters(raters), answers(prompts, candidates));
        List<SheetPlan> plan = Assignment.plan(task, sharing(least, 0.25), Resamples.generator(6));
        List<SheetPlan> repeats = plan.stream().filter(SheetPlan::repeat).toList();
        assertThat(repeats).isNotEmpty().allSatisfy(repeat -> {
            SheetPlan first = plan.stream()
                    .filter(s -> s.rater().equals(repeat.rater()) && s.prompt().equals(repeat.prompt()) && !s.repeat())
                    .findFirst()
                    .orElseThrow();
            long own = plan.stream()
                    .filter(s -> s.rater().equals(repeat.rater()) && !s.repeat())
                    .count();
            // A third of all sheets later, or as far as there are sheets.
            assertThat(repeat.place() - first.place()).isGreaterThanOrEqualTo((int)
                    Math.max(1, Math.min(own / 3, own - first.place())));
            for (int i = 0; i < candidates; i++) {
                assertThat(repeat.answers().get(i)).isNotEqualTo(first.answers().get(i));
            }
            assertThat(repeat.answers()).containsExactlyInAnyOrderElementsOf(first.answers());
        });
        for (String rater : task.raters()) {
            List<SheetPlan> own =
                    plan.stream().filter(s -> s.rater().equals(rater)).toList();
            assertThat(own)
                    .extracting(SheetPlan::place)
                    .containsExactlyElementsOf(
                            IntStream.range(0, own.size()).boxed().toList());
            long again = own.stream().filter(SheetPlan::repeat).count();
            assertThat(again).isEqualTo(Math.round(0.25 * (own.size() - again)));
        }
        assertThat(PlanBalance.of(task, plan).repeated()).isEqualTo(repeats.size() * candidates);
    }

    @Test
    public void ratersWhoShareNothingAreNotConnected() {
        GradingTask task = GradingTask.open(raters(2), answers(2, 2));
        List<SheetPlan> apart = List.of(
                new SheetPlan("r0", "p0", 0, false, List.of("p0-c0", "p0-c1")),
                new SheetPlan("r1", "p1", 0, false, List.of("p1-c0", "p1-c1")));
        PlanBalance balance = PlanBalance.of(task, apart);
        assertThat(balance.connected()).isFalse();
        assertThat(balance.paired()).isZero();
        assertThat(balance.complete()).isZero();
    }

    @Test
    public void refusesOptionsOutOfRange() {
        assertThatIllegalArgumentException().isThrownBy(() -> sharing(0, 0));
        assertThatIllegalArgumentException().isThrownBy(() -> sharing(1, 0.6));
        assertThatIllegalArgumentException().isThrownBy(() -> sharing(1, Double.NaN));
        List<GradingTask.PromptTask> twice =
                List.of(answers(1, 1).get(0), answers(1, 1).get(0));
        assertThatIllegalArgumentException().isThrownBy(() -> GradingTask.open(raters(1), twice));
    }

    @Test
    public void theCheapestMatchingIsFound() {
        // By enumeration of the six matchings: 1 + 2 + 2 = 5 is least.
        double[][] cost = {{4, 1, 3}, {2, 0, 5}, {3, 2, 2}};
        assertThat(CheapestMatching.of(cost)).containsExactly(1, 0, 2);
    }
}
