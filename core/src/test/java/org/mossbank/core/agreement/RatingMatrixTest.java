package org.mossbank.core.agreement;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.testng.annotations.Test;

public class RatingMatrixTest {
    private static final List<Rating> RATINGS = List.of(
            new Rating("p1", "cay", 0),
            new Rating("q1", "ann", 3),
            new Rating("p2", "ann", 2),
            new Rating("q1", "ben", 1),
            new Rating("p2", "cay", 4));

    private static void same(RatingMatrix one, RatingMatrix other) {
        assertThat(one.units()).isEqualTo(other.units());
        assertThat(one.raters()).isEqualTo(other.raters());
        assertThat(one.levels()).isEqualTo(other.levels());
        for (int u = 0; u < one.units().size(); u++) {
            assertThat(one.ratingsOf(u)).isEqualTo(other.ratingsOf(u));
        }
    }

    /** Ben graded no unit of the part, and is not in it. */
    @Test
    public void aPartIsAsIfTheRestHadNeverBeenGraded() {
        RatingMatrix part = RatingMatrix.ofLevels(RATINGS, 4).only(u -> u.startsWith("p"));
        same(
                part,
                RatingMatrix.ofLevels(
                        RATINGS.stream().filter(r -> r.unit().startsWith("p")).toList(), 4));
        assertThat(part.raters()).containsExactly("ann", "cay");
    }

    @Test
    public void nothingIsLeftOfNoUnit() {
        RatingMatrix none = RatingMatrix.ofLevels(RATINGS, 4).only(u -> false);
        assertThat(none.units()).isEmpty();
        assertThat(none.raters()).isEmpty();
        assertThat(none.levels()).isEqualTo(5);
    }
}
