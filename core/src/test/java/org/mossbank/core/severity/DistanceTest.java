package org.mossbank.core.severity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import org.mossbank.core.severity.Distance.Placed;
import org.testng.annotations.Test;

public class DistanceTest {
    private static final List<Placed> PLACED = List.of(
            new Placed("u", "a", 1, 4),
            new Placed("u", "b", 2, 4),
            new Placed("u", "c", 4, 4),
            new Placed("v", "a", 1, 1),
            new Placed("v", "b", 0, 1),
            new Placed("alone", "a", 0, 4));

    @Test
    public void fromTheMeanOfTheOthersInPercentOfTheScale() {
        // By hand: on u 1/4 - (2/4 + 4/4)/2 = -1/2, on v 1 - 0 = 1; nobody else placed the third.
        Distance a = Distance.fromOthers(PLACED, "a").orElseThrow();
        assertThat(a.apart()).isCloseTo(75, within(1e-12));
        assertThat(a.above()).isCloseTo(25, within(1e-12));
        assertThat(a.grades()).isEqualTo(2);
    }

    @Test
    public void fromTheReferenceWhereThereIsOne() {
        // By hand: 1/4 - 3/4 = -1/2.
        Distance a = Distance.fromReference(PLACED, "a", Map.of("u", 3)).orElseThrow();
        assertThat(a).isEqualTo(new Distance(50, -50, 1));
    }

    @Test
    public void nothingToCompareIsNoDistance() {
        assertThat(Distance.fromOthers(PLACED, "nobody")).isEmpty();
        assertThat(Distance.fromOthers(List.of(new Placed("u", "a", 1, 4)), "a"))
                .isEmpty();
        assertThat(Distance.fromReference(PLACED, "c", Map.of("v", 1))).isEmpty();
    }

    /** Whoever agrees with everybody is no distance away, whatever the scales. */
    @Test
    public void agreementIsNoDistance() {
        List<Placed> same = List.of(
                new Placed("u", "a", 3, 4),
                new Placed("u", "b", 3, 4),
                new Placed("v", "a", 1, 9),
                new Placed("v", "b", 1, 9));
        assertThat(Distance.fromOthers(same, "b")).contains(new Distance(0, 0, 2));
    }

    @Test
    public void aLevelBeyondItsScaleIsRefused() {
        assertThatThrownBy(() -> new Placed("u", "a", 5, 4)).hasMessageContaining("5 of 4");
        assertThatThrownBy(() -> new Placed("u", "a", 0, 0)).hasMessageContaining("0 of 0");
    }
}
