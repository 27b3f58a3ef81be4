package org.mossbank.core.markdown;

import static org.assertj.core.api.Assertions.assertThat;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class FencedBlockTest {
    @Test
    public void findsBlocksWithWhatStandsAbove() {
        String text = "Read `Light.java`:\n\n```java {1}\nint a;\n```\n~~~\n``` inside\n~~~\n";

        assertThat(FencedBlock.in(text))
                .containsExactly(
                        new FencedBlock(20, 42, "java {1}", "int a;\n", "Read `Light.java`:"),
                        new FencedBlock(43, 61, "", "``` inside\n", ""));
        assertThat(FencedBlock.in(text).get(0).language()).isEqualTo("java");
    }

    @Test
    public void aBlockThatIsNeverClosedRunsToTheEnd() {
        assertThat(FencedBlock.in("a\n```\nb")).containsExactly(new FencedBlock(2, 7, "", "b\n", "a"));
        assertThat(FencedBlock.in("```")).containsExactly(new FencedBlock(0, 3, "", "", ""));
    }

    @Test
    public void whatIsPutAroundATextIsClosedByNothingInIt() {
        String content = "a\n````\nb";

        assertThat(FencedBlock.in(FencedBlock.around(content, "diff")))
                .extracting(FencedBlock::content)
                .containsExactly(content + "\n");
    }

    @DataProvider
    public Object[][] places() {
        return new Object[][] {
            {"```diff\n-a\n+b\n```\n"},
            {"1. Change this:\n\n   ```diff\n   -a\n   +b\n   ```\n"},
            {"10. Change this:\n\n    ```diff\n    -a\n    +b\n    ```\n"},
            {"- one\n  - two\n\n    ```diff\n    -a\n    +b\n    ```\n"},
            {"> ```diff\n> -a\n> +b\n> ```\n"},
            {"> - so:\n>\n>   ```diff\n>   -a\n>   +b\n>   ```\n"},
        };
    }

    @Test(dataProvider = "places")
    public void aBlockCountsWhereverItStands(String text) {
        assertThat(FencedBlock.in(text)).singleElement().satisfies(block -> {
            assertThat(block.language()).isEqualTo("diff");
            assertThat(block.content()).isEqualTo("-a\n+b\n");
            assertThat(text.substring(block.from(), block.to()))
                    .startsWith("```diff")
                    .endsWith("```");
        });
    }

    @Test
    public void aDifferenceThatIsOnlyIndentedIsABlock() {
        String text =
                "Change this:\n\n    --- a/Buoy.java\n    +++ b/Buoy.java\n    @@ -1 +1 @@\n    -a\n    +b\n\nand that.\n";

        assertThat(FencedBlock.in(text)).singleElement().satisfies(block -> {
            assertThat(block.language()).isEqualTo("diff");
            assertThat(block.content()).isEqualTo("--- a/Buoy.java\n+++ b/Buoy.java\n@@ -1 +1 @@\n-a\n+b\n");
            assertThat(block.before()).isEqualTo("Change this:");
        });
        assertThat(FencedBlock.in("Look:\n\n    int a;\n")).isEmpty();
    }

    @Test
    public void aFenceEndsWithWhatItStandsIn() {
        assertThat(FencedBlock.in("> ```\n> a\n\nb\n")).singleElement().satisfies(block -> {
            assertThat(block.content()).isEqualTo("a\n");
            assertThat(block.to()).isEqualTo(9);
        });
    }

    @Test
    public void theLineAboveIsFoundInAQuoteToo() {
        assertThat(FencedBlock.in("> `Buoy.java`:\n>\n> ```\n> a\n> ```\n"))
                .extracting(FencedBlock::before)
                .containsExactly("> `Buoy.java`:");
    }

    @Test
    public void nothingIsReadFromWhatStandsTooDeep() {
        String deep = "> ".repeat(20_000) + "```\n";

        assertThat(FencedBlock.in(deep)).isEmpty();
    }
}
