package org.mossbank.server.candidate;

import jakarta.validation.Valid;
import jakarta.validation.constraints.AssertTrue;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Digits;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.shared.CurrencyCode;

/**
 * A model at exact settings, or a baseline: a person's own answers.
 *
 * @param settings       free names and values: effort, temperature, tools allowed, how it sits in the editor
 * @param contextWindow  tokens
 * @param price          what it costs
 * @param asOf           the day on which all this held
 * @param note           anything else, Markdown
 * @param considerations facts that no grade covers
 * @param baseline       whether these are a person's answers
 * @param personId       whose, if that person grades too; they do not grade their own
 */
public record CandidateContent(
        @NotNull @Size(max = 120) String name,
        @NotNull @Size(max = 120) String version,
        @NotNull @Size(max = 40) List<@Valid @NotNull Setting> settings,
        @Nullable @Min(1) Long contextWindow,
        @NotNull @Valid Price price,
        @Nullable LocalDate asOf,
        @NotNull @Size(max = 20000) String note,
        @NotNull @Size(max = 40) List<@Valid @NotNull Consideration> considerations,
        boolean baseline,
        @Nullable AccountId personId) {

    public CandidateContent {
        settings = List.copyOf(settings);
        considerations = List.copyOf(considerations);
    }

    /** One setting. */
    public record Setting(
            @NotBlank @Size(max = 80) String name,
            @NotNull @Size(max = 500) String value) {}

    /**
     * What it costs; each absent where it does not apply.
     *
     * @param inputPerMillion  units of the currency for a million tokens in
     * @param outputPerMillion units of the currency for a million tokens out
     * @param monthly          units of the currency for a plan, a month and person
     * @param currency         ISO 4217, with an amount or not at all
     * @param caps             what the plan's limits are, in words
     * @param cap              the limit that stops a person first, where it can be counted
     */
    public record Price(
            @Nullable @DecimalMin("0") @Digits(integer = 8, fraction = 6)
            BigDecimal inputPerMillion,

            @Nullable @DecimalMin("0") @Digits(integer = 8, fraction = 6)
            BigDecimal outputPerMillion,

            @Nullable @DecimalMin("0") @Digits(integer = 8, fraction = 6)
            BigDecimal monthly,

            @Nullable @Pattern(regexp = CurrencyCode.FORM, message = CurrencyCode.RULE)
            String currency,

            @NotNull @Size(max = 500) String caps,
            @Nullable @Valid Cap cap) {
        /** Nothing known. */
        public static final Price UNKNOWN = new Price(null, null, null, null, "", null);

        @AssertTrue(message = "a currency must be given if and only if there is an amount")
        boolean isCurrencyWithAmount() {
            return (currency != null) == (inputPerMillion != null || outputPerMillion != null || monthly != null);
        }
    }

    /**
     * How much of a plan a person may use.
     *
     * @param amount of the unit, in each period
     * @param unit   what is counted
     * @param period after which it begins anew
     */
    public record Cap(
            @Min(0) @Max(1_000_000_000_000L) long amount,
            @NotNull Unit unit,
            @NotNull Period period) {
        /** What is counted. */
        public enum Unit {
            PROMPTS,
            /** In and out together. */
            TOKENS
        }

        /** After which it begins anew. */
        public enum Period {
            DAY,
            WEEK,
            MONTH
        }
    }

    /**
     * A fact that no grade covers, and what it means for the choice.
     *
     * @param about which of the things it answers that are asked of all candidates; absent for another
     */
    public record Consideration(
            @NotNull Sign sign,
            @NotBlank @Size(max = 1000) String text,
            @Nullable Decider about) {
        /** What often decides and is asked of all candidates, so that a blank is seen as one. */
        public enum Decider {
            PRIVACY,
            /** Where code is sent. */
            REGION,
            LICENCE,
            CAPS,
            CONTEXT,
            INTEGRATION
        }

        /** Which way a fact points. */
        public enum Sign {
            FOR,
            AGAINST,
            /** Whatever the grades say, this candidate cannot be taken. */
            RULES_OUT
        }
    }

    /** The same, as another person's or nobody's. */
    CandidateContent ofPerson(@Nullable AccountId person) {
        return new CandidateContent(
                name, version, settings, contextWindow, price, asOf, note, considerations, baseline, person);
    }

    @AssertTrue(message = "each setting must be named once")
    boolean isEachSettingOnce() {
        return settings.stream().map(Setting::name).distinct().count() == settings.size();
    }

    @AssertTrue(message = "only a baseline is a person's")
    boolean isPersonOfBaseline() {
        return baseline || personId == null;
    }
}
