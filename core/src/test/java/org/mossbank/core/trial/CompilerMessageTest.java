package org.mossbank.core.trial;

import static org.assertj.core.api.Assertions.assertThat;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class CompilerMessageTest {
    @DataProvider
    public Object[][] messages() {
        return new Object[][] {
            {
                "javac, warning",
                "./a/Tide.java:7: warning: [unchecked] unchecked cast",
                "a/Tide.java",
                7,
                CompilerMessage.Sort.WARNING,
                false
            },
            {
                "javac, deprecated",
                "Tide.java:12: warning: [deprecation] stop() in Thread has been deprecated",
                "Tide.java",
                12,
                CompilerMessage.Sort.WARNING,
                true
            },
            {
                "javac, to be removed",
                "Tide.java:12: warning: [removal] finalize() in Object",
                "Tide.java",
                12,
                CompilerMessage.Sort.WARNING,
                true
            },
            {"javac, error", "Tide.java:3: error: cannot find symbol", "Tide.java", 3, CompilerMessage.Sort.ERROR, false
            },
            {
                "C compiler",
                "main.c:4:9: warning: unused variable 'x' [-Wunused-variable]",
                "main.c",
                4,
                CompilerMessage.Sort.WARNING,
                false
            },
            {
                "C compiler, fatal",
                "main.c:1:10: fatal error: nothing.h: No such file or directory",
                "main.c",
                1,
                CompilerMessage.Sort.ERROR,
                false
            },
            {
                "types",
                "src/tide.ts(5,11): error TS2322: Type 'string' is not assignable",
                "src/tide.ts",
                5,
                CompilerMessage.Sort.ERROR,
                false
            },
        };
    }

    @Test(dataProvider = "messages")
    public void namesFileLineAndSort(
            String name, String said, String path, int line, CompilerMessage.Sort sort, boolean deprecated) {
        assertThat(CompilerMessage.in("Compiling.\n" + said + "\n    code here\n"))
                .as(name)
                .singleElement()
                .satisfies(m -> {
                    assertThat(m.path()).isEqualTo(path);
                    assertThat(m.line()).isEqualTo(line);
                    assertThat(m.sort()).isEqualTo(sort);
                    assertThat(m.deprecated()).isEqualTo(deprecated);
                });
    }

    @Test
    public void notesAndOtherLinesAreNone() {
        assertThat(CompilerMessage.in(
                        "main.c:4:9: note: declared here\n2 warnings\n" + "a".repeat(5000) + ":1: error: x\n"))
                .isEmpty();
    }

    @Test
    public void noMoreAreKeptThanAReaderCanUse() {
        assertThat(CompilerMessage.in("a.c:1: error: x\n".repeat(100_000))).hasSize(500);
    }
}
