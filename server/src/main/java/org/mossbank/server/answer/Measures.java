package org.mossbank.server.answer;

import jakarta.validation.constraints.AssertTrue;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Digits;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.math.BigDecimal;
import java.util.List;
import java.util.OptionalDouble;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.shared.CurrencyCode;

/**
 * What an answer took; each absent where nobody measured it.
 *
 * @param firstOutputMs milliseconds to the first output
 * @param totalMs       milliseconds in all
 * @param inputTokens   tokens sent
 * @param outputTokens  tokens received
 * @param cost          in units of the currency, given with it or not at all
 * @param currency      ISO 4217
 * @param estimated     whether token counts and cost are estimates, because no count was given
 * @param tries         how often it was asked until something came
 * @param model         what the service said had answered; of turns that differ, each, with a semicolon between them
 */
public record Measures(
        @Nullable @Min(0) Long firstOutputMs,
        @Nullable @Min(0) Long totalMs,
        @Nullable @Min(0) Long inputTokens,
        @Nullable @Min(0) Long outputTokens,

        @Nullable @DecimalMin("0") @Digits(integer = 8, fraction = 6)
        BigDecimal cost,

        @Nullable @Pattern(regexp = CurrencyCode.FORM, message = CurrencyCode.RULE)
        String currency,

        boolean estimated,
        @Nullable @Min(1) Integer tries,

        @Nullable @Size(max = LONGEST_MODELS) String model) {
    /** A hundred characters a turn, and what stands between them. */
    static final int LONGEST_MODELS = (FollowUp.MOST + 1) * 102;

    private static final String BETWEEN = "; ";

    /** Nobody measured anything. */
    public static final Measures NONE = new Measures(null, null, null, null, null, null, false, null, null);

    /** As they are kept: the cost with the decimals of its column, which are not told. */
    static Measures of(
            @Nullable Long firstOutputMs,
            @Nullable Long totalMs,
            @Nullable Long inputTokens,
            @Nullable Long outputTokens,
            @Nullable BigDecimal cost,
            @Nullable String currency,
            boolean estimated,
            @Nullable Integer tries,
            @Nullable String model) {
        BigDecimal plain =
                cost == null ? null : new BigDecimal(cost.stripTrailingZeros().toPlainString());
        return new Measures(
                firstOutputMs, totalMs, inputTokens, outputTokens, plain, currency, estimated, tries, model);
    }

    /** In and out together; empty where one of them was not counted. */
    public OptionalDouble tokens() {
        return inputTokens == null || outputTokens == null
                ? OptionalDouble.empty()
                : OptionalDouble.of((double) inputTokens + outputTokens);
    }

    /** This and what came after it. What one of them does not know, both together do not. */
    public Measures and(Measures after) {
        return new Measures(
                firstOutputMs,
                sum(totalMs, after.totalMs),
                sum(inputTokens, after.inputTokens),
                sum(outputTokens, after.outputTokens),
                cost == null || after.cost == null ? null : cost.add(after.cost),
                cost == null || after.cost == null ? null : currency,
                estimated || after.estimated,
                tries,
                both(models(), after.models()));
    }

    /** What is said to have answered, in the order of turns; none where nobody said. */
    public List<String> models() {
        return model == null ? List.of() : modelsIn(model);
    }

    static List<String> modelsIn(String all) {
        return List.of(all.split(BETWEEN));
    }

    private static @Nullable String both(List<String> before, List<String> after) {
        String all = Stream.concat(before.stream(), after.stream()).distinct().collect(Collectors.joining(BETWEEN));
        return all.isEmpty() ? null : all;
    }

    private static @Nullable Long sum(@Nullable Long one, @Nullable Long other) {
        return one == null || other == null ? null : Long.valueOf(one + other);
    }

    @AssertTrue(message = "a currency must be given if and only if there is a cost")
    boolean isCurrencyWithCost() {
        return (cost == null) == (currency == null);
    }
}
