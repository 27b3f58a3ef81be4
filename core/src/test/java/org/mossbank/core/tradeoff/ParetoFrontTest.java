package org.mossbank.core.tradeoff;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.mossbank.core.tradeoff.ParetoFront.Option;
import org.testng.annotations.Test;

public class ParetoFrontTest {
    @Test
    public void whoIsAsGoodAndCheaperOutdoesAndEqualsStay() {
        assertThat(ParetoFront.of(List.of(
                        new Option("dear", 80, 9),
                        new Option("good", 80, 5),
                        new Option("alike", 80, 5),
                        new Option("cheap", 60, 1),
                        new Option("worse", 59, 1))))
                .containsExactly("good", "alike", "cheap");
    }
}
