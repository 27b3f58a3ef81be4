package org.mossbank.server.recommendation;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.comparison.Difference;
import org.mossbank.core.decision.Decision;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.decision.Finding;
import org.mossbank.core.decision.Outcome;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.server.ids.CandidateId;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class SentencesTest {
    private static final Sentences SENTENCES = new Sentences(
            String::toUpperCase,
            key -> key,
            new FindingWords(String::toUpperCase, key -> CandidateId.random(), key -> key, key -> key, "α"));

    private static final Difference DIFFERENCE = new Difference(
            "a",
            "b",
            Estimate.of(4),
            Estimate.of(1),
            12,
            new Interval.Bounds(1.8, 6.2, 0.95),
            new Interval.Bounds(1, 7, 0.98),
            Estimate.of(0.01),
            new Interval.Bounds(3, 5, 0.95));

    private static Decision decision(Outcome outcome, @Nullable String leader, Finding... findings) {
        return new Decision(outcome, Optional.ofNullable(leader), List.of(findings), Optional.empty());
    }

    @DataProvider
    public static Object[][] headlines() {
        Finding safe = new Finding.Safe("a", 2, 5);
        Finding alsoSafe = new Finding.Safe("b", 3, 5);
        Finding tieBroken = new Finding.TieBroken("b", DecisionRule.TieBreak.COST, 1, 4);
        Finding clearly = new Finding.ClearlyAhead(DIFFERENCE);
        return new Object[][] {
            {"We recommend A.", decision(Outcome.RECOMMENDED, "a", clearly)},
            {
                "We recommend A: it is ahead, but by less than matters.",
                decision(Outcome.RECOMMENDED, "a", new Finding.BelowMargin(DIFFERENCE, 7))
            },
            {
                "A is a safe choice: at worst 2.0 points below the best. None is shown to be better by a margin that matters.",
                decision(Outcome.SAFE_CHOICES, "a", safe, new Finding.NotSafe("c", 9, 5))
            },
            {
                "A and B are safe choices: at worst 2.0 and 3.0 points below the best. None is shown to be better by a margin that matters. The tie-break prefers B: it costs 25 % of what the next one does.",
                decision(Outcome.SAFE_CHOICES, "b", tieBroken, safe, alsoSafe)
            },
            {
                "A, B and C are safe choices: at worst 2.0, 3.0 and 0.0 points below the best. None is shown to be better by a margin that matters. Let other facts decide.",
                decision(Outcome.SAFE_CHOICES, null, safe, alsoSafe, new Finding.Safe("c", -1, 5))
            },
            {
                "Undecided between A and B.",
                decision(
                        Outcome.UNDECIDED,
                        "a",
                        new Finding.NotSafe("a", 7, 5),
                        new Finding.NotSafe("b", 9, 5),
                        new Finding.Out("c", "a"))
            },
            {
                "No candidate for all kinds. For review we recommend A. For debugging B and C are safe choices.",
                decision(
                        Outcome.BY_KIND,
                        null,
                        new Finding.BestOfKind("review", "a"),
                        new Finding.SafeInKind("debugging", "b", 1, 5),
                        new Finding.SafeInKind("debugging", "c", 2, 5),
                        new Finding.KindsOpen(List.of("explanation")))
            },
            {
                "No recommendation yet: agreement on right may be no more than chance.",
                decision(Outcome.WITHHELD, null, new Finding.AgreementMayBeChance("right", -0.1))
            },
            {
                "We recommend A. How far raters agree on right is not sure.",
                decision(Outcome.RECOMMENDED, "a", clearly, new Finding.AgreementUncertain("right", 0.4, 0.8, 0.6))
            },
        };
    }

    @Test(dataProvider = "headlines")
    public void theHeadlineSaysTheOutcome(String headline, Object decision) {
        assertThat(SENTENCES.headline((Decision) decision)).isEqualTo(headline);
    }

    @DataProvider
    public static Object[][] reasons() {
        return new Object[][] {
            {"A stands 4.0 above B (1.8 to 6.2), beyond doubt.", new Finding.ClearlyAhead(DIFFERENCE)},
            {
                "A stands 4.0 above B (1.8 to 6.2). That is beyond doubt, but less than the margin of 7.0.",
                new Finding.BelowMargin(DIFFERENCE, 7)
            },
            {"A is at worst 2.0 points below the best, less than the margin of 5.0.", new Finding.Safe("a", 2, 5)},
            {"A is at worst level with the best.", new Finding.Safe("a", 0, 5)},
            {"A may be the best, and may be 7.0 points below it; the margin is 5.0.", new Finding.NotSafe("a", 7, 5)},
            {"A is the best for review, beyond doubt.", new Finding.BestOfKind("review", "a")},
            {
                "B is a safe choice for review: at worst 1.0 points below the best.",
                new Finding.SafeInKind("review", "b", 1, 5)
            },
            {"Undecided for review, debugging.", new Finding.KindsOpen(List.of("review", "debugging"))},
            {
                "Among safe choices the rule lets time decide: B has the least. It takes 50 % of what the next one does.",
                new Finding.TieBroken("b", DecisionRule.TieBreak.TIME, 2, 4)
            },
            {"C is not the best: A is above it, beyond doubt.", new Finding.Out("c", "a")},
            {
                "Even the upper limit of agreement on right is α 0.50, 0.10 below the floor of 0.60.",
                new Finding.AgreementBelowFloor("right", DecisionRule.FloorOn.UPPER_LIMIT, 0.5, 0.6, 0.1)
            },
            {
                "Agreement on right may be no more than chance: its lower limit is α −0.10.",
                new Finding.AgreementMayBeChance("right", -0.1)
            },
            {
                "Agreement on right may lie below its floor: α is 0.40 to 0.80, the floor 0.60.",
                new Finding.AgreementUncertain("right", 0.4, 0.8, 0.6)
            },
        };
    }

    @Test(dataProvider = "reasons")
    public void eachReasonIsASentence(String sentence, Object finding) {
        assertThat(SENTENCES.view((Finding) finding).sentence()).isEqualTo(sentence);
    }
}
