package org.mossbank.server.shared.wording;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import org.testng.annotations.Test;

/** How numbers stand in sentences. */
public class NumeralsTest {
    @Test
    public void aMinusIsAMinusAndNothingHasNone() {
        assertThat(Numerals.fixed(-1.25, 1)).isEqualTo("−1.3");
        assertThat(Numerals.fixed(-0.04, 1)).isEqualTo("0.0");
        assertThat(Numerals.points(12)).isEqualTo("12.0");
    }

    @Test
    public void smallAmountsHaveMoreDecimals() {
        assertThat(Numerals.money(0.03125, "EUR")).isEqualTo("0.0313 EUR");
        assertThat(Numerals.money(19, "EUR")).isEqualTo("19.00 EUR");
        assertThat(Numerals.money(0, "EUR")).isEqualTo("0.00 EUR");
    }

    @Test
    public void timeIsToldInTheUnitThatFits() {
        assertThat(Numerals.duration(1_540)).isEqualTo("1.5 s");
        assertThat(Numerals.duration(61_000)).isEqualTo("61 s");
        assertThat(Numerals.duration(150_000)).isEqualTo("3 min");
        assertThat(Numerals.moment(Instant.parse("2026-03-01T09:04:00Z"))).isEqualTo("1 March 2026, 09:04 UTC");
    }

    @Test
    public void oneIsOne() {
        assertThat(Numerals.count(1, "prompt", "prompts")).isEqualTo("1 prompt");
        assertThat(Numerals.count(0, "prompt", "prompts")).isEqualTo("0 prompts");
        assertThat(Numerals.percent(0.055)).isEqualTo("6 %");
    }
}
