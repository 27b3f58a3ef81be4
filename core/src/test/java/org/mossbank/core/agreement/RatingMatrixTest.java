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

    /** Raters and units come mixed: cay before ann, p1 before the others, and a rater who comes late has no grade before. */
    @Test
    public void gradesMayComeInAnyOrder() {
        RatingMatrix matrix = RatingMatrix.ofLevels(RATINGS, 4);
        assertThat(matrix.units()).containsExactly("p1", "q1", "p2");
        assertThat(matrix.raters()).containsExactly("ann", "ben", "cay");
        assertThat(matrix.ratingsOf(0)).containsExactly(new Rating("p1", "cay", 0));
        assertThat(matrix.ratingsOf(1)).containsExactly(new Rating("q1", "ann", 3), new Rating("q1", "ben", 1));
        assertThat(matrix.ratingsOf(2)).containsExactly(new Rating("p2", "ann", 2), new Rating("p2", "cay", 4));
    }

    @Test
    public void nothingIsLeftOfNoUnit() {
        RatingMatrix none = RatingMatrix.ofLevels(RATINGS, 4).only(u -> false);
        assertThat(none.units()).isEmpty();
        assertThat(none.raters()).isEmpty();
        assertThat(none.levels()).isEqualTo(5);
    }
}
