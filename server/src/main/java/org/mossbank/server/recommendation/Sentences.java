package org.mossbank.server.recommendation;

import java.util.Locale;
import java.util.function.Function;
import org.mossbank.core.comparison.Difference;
import org.mossbank.core.decision.Decision;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.decision.Finding;
import org.mossbank.core.estimate.Interval;

/** Puts an outcome and its reasons into words, the same for screen, memo and interface. */
final class Sentences {
    private final Function<String, String> candidate;
    private final Function<String, String> criterion;
    private final String sign;

    /** @param sign how the coefficient of agreement is written */
    Sentences(Function<String, String> candidate, Function<String, String> criterion, String sign) {
        this.candidate = candidate;
        this.criterion = criterion;
        this.sign = sign;
    }

    private static String word(DecisionRule.TieBreak by) {
        return by.name().toLowerCase(Locale.ROOT);
    }

    String headline(Decision decision) {
        String leader = decision.leader().map(candidate).orElse("");
        return switch (decision.outcome()) {
            case RECOMMENDED -> "We recommend " + leader + ".";
            case EQUAL ->
                leader.isEmpty()
                        ? "No two candidates differ by as much as the margin. Let other facts decide."
                        : "No two candidates differ by as much as the margin. The tie-break prefers " + leader + ".";
            case UNDECIDED -> "Undecided. " + leader + " stands highest, but not beyond doubt.";
            case WITHHELD -> "No recommendation yet: " + gap(decision.findings().get(0)) + ".";
        };
    }

    private String gap(Finding finding) {
        if (finding instanceof Finding.BriefOpen) {
            return "the brief is open";
        }
        if (finding instanceof Finding.MaskingBroken) {
            return "answers give their candidate away";
        }
        if (finding instanceof Finding.SplitsOpen) {
            return "splits are open";
        }
        if (finding instanceof Finding.TooFewRaters) {
            return "some answers have too few raters";
        }
        if (finding instanceof Finding.AgreementBelowFloor below) {
            return "agreement on " + criterion.apply(below.criterion()) + " is below the floor";
        }
        if (finding instanceof Finding.AgreementUndefined undefined) {
            return "agreement on " + criterion.apply(undefined.criterion()) + " cannot be computed";
        }
        return "there is too little to compare";
    }

    RecommendationReport.FindingView view(Finding finding, Function<String, java.util.UUID> candidateId) {
        if (finding instanceof Finding.BriefOpen) {
            return plain("brief-open", "The brief was reopened, and with it the rule. Close it again.", null, null);
        }
        if (finding instanceof Finding.MaskingBroken f) {
            return plain(
                    "masking-broken",
                    f.answers() + (f.answers() == 1 ? " answer names" : " answers name")
                            + " a candidate, and the rule is strict about that.",
                    f.answers(),
                    0);
        }
        if (finding instanceof Finding.SplitsOpen f) {
            return plain(
                    "splits-open",
                    f.splits() + (f.splits() == 1 ? " split has" : " splits have")
                            + " no settled grade, and the rule is strict about that.",
                    f.splits(),
                    0);
        }
        if (finding instanceof Finding.TieBroken f) {
            return new RecommendationReport.FindingView(
                    "tie-broken",
                    "Among equals the rule lets " + word(f.by()) + " decide: " + candidate.apply(f.candidate())
                            + " has the least.",
                    null,
                    candidateId.apply(f.candidate()),
                    f.value(),
                    null);
        }
        if (finding instanceof Finding.TieStands f) {
            return plain(
                    "tie-stands",
                    "The rule lets " + word(f.by()) + " decide between equals, but it is not known for all or alike.",
                    null,
                    null);
        }
        if (finding instanceof Finding.TooFewRaters f) {
            return plain(
                    "too-few-raters",
                    f.answers() + " of " + f.ofAnswers() + (f.answers() == 1 ? " answers has" : " answers have")
                            + " fewer than " + f.minimum() + " raters; the fewest is " + f.fewest() + ".",
                    f.fewest(),
                    f.minimum());
        }
        if (finding instanceof Finding.TooFewCandidates f) {
            return plain(
                    "too-few-candidates",
                    "A comparison needs two candidates with grades; there " + (f.candidates() == 1 ? "is " : "are ")
                            + f.candidates() + ".",
                    f.candidates(),
                    2);
        }
        if (finding instanceof Finding.AgreementBelowFloor f) {
            return new RecommendationReport.FindingView(
                    "agreement-below-floor",
                    (f.on() == DecisionRule.FloorOn.LOWER_LIMIT ? "The lower limit of agreement on " : "Agreement on ")
                            + criterion.apply(f.criterion()) + " is " + sign + " " + decimals(f.value()) + ", "
                            + decimals(f.shortfall()) + " below the floor of " + decimals(f.floor()) + ".",
                    criterion.apply(f.criterion()),
                    null,
                    f.value(),
                    f.floor());
        }
        if (finding instanceof Finding.AgreementUndefined f) {
            return new RecommendationReport.FindingView(
                    "agreement-undefined",
                    "Agreement on " + criterion.apply(f.criterion()) + " cannot be computed: "
                            + f.reason().words() + ".",
                    criterion.apply(f.criterion()),
                    null,
                    null,
                    null);
        }
        if (finding instanceof Finding.StandingsUndefined f) {
            return plain(
                    "standings-undefined",
                    "Standings or their intervals cannot be computed: "
                            + f.reason().words() + ".",
                    null,
                    null);
        }
        return aboutDifference(finding, candidateId);
    }

    private RecommendationReport.FindingView aboutDifference(
            Finding finding, Function<String, java.util.UUID> candidateId) {
        if (finding instanceof Finding.ClearlyAhead f) {
            return of("clearly-ahead", f.difference(), 0, ", beyond doubt and by the margin.", candidateId);
        }
        if (finding instanceof Finding.NotSeparated f) {
            return of("not-separated", f.difference(), 0, ". That does not rule out that it is behind.", candidateId);
        }
        if (finding instanceof Finding.BelowMargin f) {
            String tail = ". That is beyond doubt, but less than the margin of " + points(f.margin()) + ".";
            return of("below-margin", f.difference(), f.margin(), tail, candidateId);
        }
        Finding.WithinMargin f = (Finding.WithinMargin) finding;
        return of(
                "within-margin",
                f.difference(),
                f.margin(),
                ". The whole interval lies within the margin of " + points(f.margin()) + ".",
                candidateId);
    }

    private RecommendationReport.FindingView of(
            String type, Difference difference, double limit, String tail, Function<String, java.util.UUID> id) {
        Interval.Bounds bounds = (Interval.Bounds) difference.adjustedInterval();
        double estimate = difference.estimate().value().orElseThrow();
        String sentence = candidate.apply(difference.higher()) + " stands " + points(estimate) + " above "
                + candidate.apply(difference.lower()) + " (" + points(bounds.low()) + " to " + points(bounds.high())
                + ")" + tail;
        return new RecommendationReport.FindingView(
                type, sentence, null, id.apply(difference.lower()), estimate, limit);
    }

    private static RecommendationReport.FindingView plain(
            String type,
            String sentence,
            @org.jspecify.annotations.Nullable Number value,
            @org.jspecify.annotations.Nullable Number limit) {
        return new RecommendationReport.FindingView(
                type,
                sentence,
                null,
                null,
                value == null ? null : value.doubleValue(),
                limit == null ? null : limit.doubleValue());
    }

    /** A coefficient with two decimals and a real minus sign. */
    private static String decimals(double value) {
        return minus(String.format(Locale.ROOT, "%.2f", value));
    }

    /** A score with one decimal and a real minus sign. */
    private static String points(double value) {
        return minus(String.format(Locale.ROOT, "%.1f", value));
    }

    private static String minus(String number) {
        return number.replace('-', '−');
    }
}
