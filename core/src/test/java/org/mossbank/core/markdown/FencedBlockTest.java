package org.mossbank.core.markdown;

import static org.assertj.core.api.Assertions.assertThat;

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
        assertThat(FencedBlock.in("a\n```\nb")).containsExactly(new FencedBlock(2, 7, "", "b", "a"));
        assertThat(FencedBlock.in("```")).containsExactly(new FencedBlock(0, 3, "", "", ""));
    }

    @Test
    public void whatIsPutAroundATextIsClosedByNothingInIt() {
        String content = "a\n````\nb";

        assertThat(FencedBlock.in(FencedBlock.around(content, "diff")))
                .extracting(FencedBlock::content)
                .containsExactly(content + "\n");
    }
}
