package org.mossbank.server.recommendation;

import java.util.Locale;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.comparison.Difference;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.decision.Finding;
import org.mossbank.core.estimate.Interval;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.shared.wording.Numerals;

/** What is said of each finding. */
final class FindingWords implements Finding.Visitor<FindingWords.Said> {
    private static final String TOO_LITTLE = "there is too little to compare";

    private final Function<String, String> candidate;
    private final Function<String, CandidateId> candidateId;
    private final Function<String, String> criterion;
    private final Function<String, String> kind;
    private final String sign;

    /**
     * @param candidate   names of candidates by key
     * @param candidateId their ids by key
     * @param criterion   names of criteria by id
     * @param kind        names of kinds by key, in a sentence
     * @param sign        how the coefficient of agreement is written
     */
    FindingWords(
            Function<String, String> candidate,
            Function<String, CandidateId> candidateId,
            Function<String, String> criterion,
            Function<String, String> kind,
            String sign) {
        this.kind = kind;
        this.candidate = candidate;
        this.candidateId = candidateId;
        this.criterion = criterion;
        this.sign = sign;
    }

    /**
     * @param gap  what is missing where this is why nothing is recommended; part of a sentence
     * @param view a sentence of its own, with its figures
     */
    record Said(String gap, RecommendationReport.FindingView view) {}

    Said of(Finding finding) {
        return finding.accept(this);
    }

    private static Said said(String gap, String type, String sentence, @Nullable Number value, @Nullable Number limit) {
        return new Said(
                gap,
                new RecommendationReport.FindingView(
                        type,
                        sentence,
                        null,
                        null,
                        value == null ? null : value.doubleValue(),
                        limit == null ? null : limit.doubleValue()));
    }

    @Override
    public Said briefOpen(Finding.BriefOpen finding) {
        return said(
                "the brief is open", "brief-open", "The brief is open, and with it the rule. Close it.", null, null);
    }

    @Override
    public Said tooFewRaters(Finding.TooFewRaters finding) {
        return said(
                "some answers have too few raters",
                "too-few-raters",
                finding.answers() + " of " + finding.ofAnswers()
                        + (finding.answers() == 1 ? " answers has" : " answers have") + " fewer than "
                        + finding.minimum() + " raters; the fewest is " + finding.fewest() + ".",
                finding.fewest(),
                finding.minimum());
    }

    @Override
    public Said tooFewCandidates(Finding.TooFewCandidates finding) {
        return said(
                TOO_LITTLE,
                "too-few-candidates",
                "A comparison needs two candidates with grades; there " + (finding.candidates() == 1 ? "is " : "are ")
                        + finding.candidates() + ".",
                finding.candidates(),
                2);
    }

    @Override
    public Said agreementBelowFloor(Finding.AgreementBelowFloor finding) {
        String name = criterion.apply(finding.criterion());
        String what = switch (finding.on()) {
            case ESTIMATE -> "Agreement on ";
            case LOWER_LIMIT -> "The lower limit of agreement on ";
            case UPPER_LIMIT -> "Even the upper limit of agreement on ";
        };
        String sentence = what + name + " is " + sign + " " + decimals(finding.value()) + ", "
                + decimals(finding.shortfall()) + " below the floor of " + decimals(finding.floor()) + ".";
        return new Said(
                "agreement on " + name + " is below the floor",
                new RecommendationReport.FindingView(
                        "agreement-below-floor", sentence, name, null, finding.value(), finding.floor()));
    }

    @Override
    public Said agreementMayBeChance(Finding.AgreementMayBeChance finding) {
        String name = criterion.apply(finding.criterion());
        String sentence = "Agreement on " + name + " may be no more than chance: its lower limit is " + sign + " "
                + decimals(finding.low()) + ".";
        return new Said(
                "agreement on " + name + " may be no more than chance",
                new RecommendationReport.FindingView(
                        "agreement-may-be-chance", sentence, name, null, finding.low(), 0.0));
    }

    @Override
    public Said agreementUncertain(Finding.AgreementUncertain finding) {
        String name = criterion.apply(finding.criterion());
        String sentence =
                "Agreement on " + name + " may lie below its floor: " + sign + " is " + decimals(finding.low()) + " to "
                        + decimals(finding.high()) + ", the floor " + decimals(finding.floor()) + ".";
        return new Said(
                "agreement on " + name + " is not sure",
                new RecommendationReport.FindingView(
                        "agreement-uncertain", sentence, name, null, finding.low(), finding.floor()));
    }

    @Override
    public Said agreementUndefined(Finding.AgreementUndefined finding) {
        String name = criterion.apply(finding.criterion());
        String gap = "agreement on " + name + " cannot be computed";
        String sentence = "A" + gap.substring(1) + ": " + finding.reason().words() + ".";
        return new Said(
                gap, new RecommendationReport.FindingView("agreement-undefined", sentence, name, null, null, null));
    }

    @Override
    public Said maskingBroken(Finding.MaskingBroken finding) {
        return said(
                "answers give their candidate away",
                "masking-broken",
                finding.answers() + (finding.answers() == 1 ? " answer names" : " answers name")
                        + " a candidate, and the rule is strict about that.",
                finding.answers(),
                0);
    }

    @Override
    public Said splitsOpen(Finding.SplitsOpen finding) {
        return said(
                "splits are open",
                "splits-open",
                finding.splits() + (finding.splits() == 1 ? " split has" : " splits have")
                        + " no settled grade, and the rule is strict about that.",
                finding.splits(),
                0);
    }

    @Override
    public Said standingsUndefined(Finding.StandingsUndefined finding) {
        return said(
                TOO_LITTLE,
                "standings-undefined",
                "Standings or their intervals cannot be computed: "
                        + finding.reason().words() + ".",
                null,
                null);
    }

    @Override
    public Said clearlyAhead(Finding.ClearlyAhead finding) {
        return said("clearly-ahead", finding.difference(), 0, ", beyond doubt.");
    }

    @Override
    public Said belowMargin(Finding.BelowMargin finding) {
        return said(
                "below-margin",
                finding.difference(),
                finding.margin(),
                ". That is beyond doubt, but less than the margin of " + points(finding.margin()) + ".");
    }

    @Override
    public Said safe(Finding.Safe finding) {
        String worst = finding.shortfall() <= 0
                ? " is at worst level with the best."
                : " is at worst " + points(finding.shortfall()) + " points below the best, less than the margin of "
                        + points(finding.margin()) + ".";
        return against("safe", finding.candidate(), worst, finding.shortfall(), finding.margin());
    }

    @Override
    public Said notSafe(Finding.NotSafe finding) {
        return against(
                "not-safe",
                finding.candidate(),
                " may be the best, and may be " + points(finding.shortfall()) + " points below it; the margin is "
                        + points(finding.margin()) + ".",
                finding.shortfall(),
                finding.margin());
    }

    @Override
    public Said out(Finding.Out finding) {
        return against(
                "out",
                finding.candidate(),
                " is not the best: " + candidate.apply(finding.by()) + " is above it, beyond doubt.",
                null,
                null);
    }

    private Said against(String type, String who, String what, @Nullable Double value, @Nullable Double limit) {
        return new Said(
                TOO_LITTLE,
                new RecommendationReport.FindingView(
                        type, candidate.apply(who) + what, null, candidateId.apply(who), value, limit));
    }

    @Override
    public Said bestOfKind(Finding.BestOfKind finding) {
        return against(
                "best-of-kind",
                finding.candidate(),
                " is the best for " + kind.apply(finding.kind()) + ", beyond doubt.",
                null,
                null);
    }

    @Override
    public Said safeInKind(Finding.SafeInKind finding) {
        return against(
                "safe-in-kind",
                finding.candidate(),
                " is a safe choice for " + kind.apply(finding.kind()) + ": at worst "
                        + points(Math.max(0, finding.shortfall())) + " points below the best.",
                finding.shortfall(),
                finding.margin());
    }

    @Override
    public Said kindsOpen(Finding.KindsOpen finding) {
        return said(
                TOO_LITTLE,
                "kinds-open",
                "Undecided for "
                        + String.join(", ", finding.kinds().stream().map(kind).toList()) + ".",
                null,
                null);
    }

    @Override
    public Said tieBroken(Finding.TieBroken finding) {
        String sentence = "Among safe choices the rule lets " + word(finding.by()) + " decide: "
                + candidate.apply(finding.candidate()) + " has the least. It " + lessThanNext(finding) + ".";
        return new Said(
                TOO_LITTLE,
                new RecommendationReport.FindingView(
                        "tie-broken",
                        sentence,
                        null,
                        candidateId.apply(finding.candidate()),
                        finding.value(),
                        finding.next()));
    }

    /** What the preferred one costs or takes, in words that follow its name. */
    static String lessThanNext(Finding.TieBroken finding) {
        long share = Math.round(100 * finding.value() / finding.next());
        return (finding.by() == DecisionRule.TieBreak.COST ? "costs " : "takes ")
                + (share < 1 ? "next to nothing of" : share > 99 ? "a little less than" : share + " % of")
                + " what the next one does";
    }

    @Override
    public Said tieStands(Finding.TieStands finding) {
        return said(
                TOO_LITTLE,
                "tie-stands",
                "The rule lets " + word(finding.by())
                        + " decide between safe choices, but it is not known for all or alike.",
                null,
                null);
    }

    private Said said(String type, Difference difference, double limit, String tail) {
        Interval.Bounds bounds = (Interval.Bounds) difference.interval();
        double estimate = difference.estimate().value().orElseThrow();
        String sentence = candidate.apply(difference.higher()) + " stands " + points(estimate) + " above "
                + candidate.apply(difference.lower()) + " (" + points(bounds.low()) + " to " + points(bounds.high())
                + ")" + tail;
        return new Said(
                TOO_LITTLE,
                new RecommendationReport.FindingView(
                        type, sentence, null, candidateId.apply(difference.lower()), estimate, limit));
    }

    private static String word(DecisionRule.TieBreak by) {
        return by.name().toLowerCase(Locale.ROOT);
    }

    /** A coefficient with two decimals. */
    private static String decimals(double value) {
        return Numerals.fixed(value, 2);
    }

    static String points(double value) {
        return Numerals.points(value);
    }
}
