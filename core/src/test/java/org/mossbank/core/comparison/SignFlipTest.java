package org.mossbank.core.comparison;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.math.BigDecimal;
import java.util.Collections;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.testng.annotations.Test;

public class SignFlipTest {
    private static List<BigDecimal> differences(String... numbers) {
        return Stream.of(numbers).map(BigDecimal::new).toList();
    }

    @Test
    public void threeDifferencesByHand() {
        SignFlip test = SignFlip.of(differences("1", "2", "3"));

        assertThat(test.twoSided()).isEqualTo(Estimate.of(0.25));
        assertThat(test.greater()).isEqualTo(Estimate.of(0.125));
        assertThat(test.less()).isEqualTo(Estimate.of(1));
        assertThat(test.mean()).isEqualTo(Estimate.of(2));
    }

    /** In binary 0.1 + 0.2 is more than 0.3: as decimals the two sums are equal. */
    @Test
    public void sumsThatAreEqualAsDecimalsCountAsEqual() {
        SignFlip test = SignFlip.of(differences("0.1", "0.2", "-0.3"));

        // All patterns but none lie at 0 or further: the seen sum is 0.
        assertThat(test.twoSided()).isEqualTo(Estimate.of(1));
        assertThat(test.greater()).isEqualTo(Estimate.of(5 / 8.0));
    }

    /** So many differences of one size are a binomial. */
    @Test
    public void manyAlikeAreABinomial() {
        SignFlip test = SignFlip.of(Collections.nCopies(60, new BigDecimal("0.25")));

        assertThat(test.greater().value().orElseThrow()).isCloseTo(Math.pow(2, -60), within(1e-30));
    }

    /** Forty differences of nine places have 2⁴⁰ sums: they are rounded, and p hardly moves. */
    @Test
    public void tooManySumsAreRounded() {
        List<BigDecimal> fine = IntStream.rangeClosed(1, 40)
                .mapToObj(i -> new BigDecimal((i % 3 == 0 ? "-" : "") + i + ".123456789"))
                .toList();
        List<BigDecimal> coarse = fine.stream()
                .map(d -> d.setScale(2, java.math.RoundingMode.HALF_EVEN))
                .toList();

        assertThat(SignFlip.of(fine).twoSided().value().orElseThrow())
                .isCloseTo(SignFlip.of(coarse).twoSided().value().orElseThrow(), within(1e-4));
    }

    @Test
    public void withoutAPairThereIsNoTest() {
        assertThat(SignFlip.of(List.of()).twoSided()).isEqualTo(Estimate.undefined(Reason.NO_DATA));
    }
}
