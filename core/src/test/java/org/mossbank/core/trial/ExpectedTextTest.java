package org.mossbank.core.trial;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class ExpectedTextTest {
    private static final ExpectedText.Match EXACT = ExpectedText.Match.EXACT;
    private static final ExpectedText.Match WORDS = ExpectedText.Match.WORDS;
    private static final ExpectedText.Match PATTERN = ExpectedText.Match.PATTERN;
    private static final ExpectedText.Match NUMBERS = ExpectedText.Match.NUMBERS;

    @DataProvider
    public Object[][] texts() {
        return new Object[][] {
            {"the same", EXACT, "a\nb\n", "a\nb\n", null},
            {"a line end at the very end", EXACT, "a", "a\n", null},
            {"another line", EXACT, "a\nb", "a\nc", "line 2 reads otherwise"},
            {"a space more", EXACT, "a b", "a  b", "line 1 reads otherwise"},
            {"a line less", EXACT, "a\nb", "a", "line 2 is missing"},
            {"a line more", EXACT, "a", "a\nb", "line 2 is too many"},
            {"spaces otherwise", WORDS, "a  b\nc", "a b c\n\n", null},
            {"a word otherwise", WORDS, "a b", "a c", "word 2 reads otherwise"},
            {"a word less", WORDS, "a b", "a", "it ends too early"},
            {"a word more", WORDS, "a", "a b", "it goes on for too long"},
            {"nothing at all", WORDS, "", "  \n", null},
            {"a pattern for all of it", PATTERN, "a.*\\d{2}", "a\nb 17\n", null},
            {"a pattern for a part of it", PATTERN, "a", "ab", "it does not match the pattern"},
            {"numbers nearly", NUMBERS, "sum 3.14159 ok", "sum 3.1416 ok", null},
            {"numbers too far off", NUMBERS, "3.14", "3.15", "word 1 reads otherwise"},
            {"a word for a number", NUMBERS, "3.14", "pi", "word 1 reads otherwise"},
            {"no number at all", NUMBERS, "3.14", "NaN", "word 1 reads otherwise"},
        };
    }

    @Test(dataProvider = "texts")
    public void tellsWhereItIsOtherwise(
            String name,
            ExpectedText.Match match,
            String wanted,
            String came,
            @org.jspecify.annotations.Nullable String difference) {
        assertThat(new ExpectedText(match, wanted, 1e-4).difference(came).orElse(null))
                .as(name)
                .isEqualTo(difference);
    }

    @Test
    public void aPatternThatIsNoneIsRefused() {
        assertThatThrownBy(() -> new ExpectedText(PATTERN, "(", 0))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("regular expression");
        assertThatThrownBy(() -> new ExpectedText(NUMBERS, "1", -1)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test(timeOut = 60_000)
    public void hostileOutputIsReadInLinearTime() {
        assertThat(new ExpectedText(PATTERN, "(a+)+b", 0).difference("a".repeat(1 << 20)))
                .isPresent();
    }
}
