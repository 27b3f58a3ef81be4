package org.mossbank.core.masking;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;

import java.util.List;
import org.testng.annotations.Test;

public class MaskTest {
    private static Mask mask(int from, int to, String replacement) {
        return new Mask(new Span(from, to), replacement);
    }

    @Test
    public void putsTheReplacementsInWhateverTheOrderOfMasks() {
        assertThat(Mask.applied("abcdef", List.of(mask(4, 6, "Z"), mask(0, 1, ""))))
                .isEqualTo("bcdZ");
    }

    @Test
    public void noMaskLeavesTheTextAsItIs() {
        assertThat(Mask.applied("abc", List.of())).isEqualTo("abc");
    }

    @Test
    public void neighboursDoNotOverlap() {
        assertThat(Mask.applied("abcd", List.of(mask(0, 2, "1"), mask(2, 4, "2"))))
                .isEqualTo("12");
    }

    @Test
    public void refusesMasksThatOverlapOrReachBeyondTheText() {
        assertThatIllegalArgumentException()
                .isThrownBy(() -> Mask.applied("abcd", List.of(mask(0, 3, ""), mask(2, 4, ""))))
                .withMessage("masks must not overlap: at 2");
        assertThatIllegalArgumentException().isThrownBy(() -> Mask.applied("abcd", List.of(mask(3, 5, ""))));
        assertThatIllegalArgumentException().isThrownBy(() -> new Span(2, 2));
        assertThatIllegalArgumentException().isThrownBy(() -> new Span(-1, 2));
    }

    @Test
    public void spansOverlapOnlyWhereTheyShareACharacter() {
        assertThat(new Span(0, 2).overlaps(new Span(1, 3))).isTrue();
        assertThat(new Span(0, 2).overlaps(new Span(2, 3))).isFalse();
        assertThat(new Span(0, 9).overlaps(new Span(2, 3))).isTrue();
    }
}
