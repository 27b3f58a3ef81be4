package org.mossbank.core.trial;

import static org.assertj.core.api.Assertions.assertThat;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class SafePathTest {
    @DataProvider
    public Object[][] paths() {
        return new Object[][] {
            {"a file", "src/Main.java", true},
            {"begins with a dash", "-rf", true},
            {"a space within", "my notes.txt", true},
            {"up", "../a", false},
            {"up from below", "a/../../b", false},
            {"from the root", "/etc/passwd", false},
            {"a folder", "a/", false},
            {"nothing between", "a//b", false},
            {"here", "./a", false},
            {"git's own", "a/.git/config", false},
            {"git's own, written otherwise", ".GIT/hooks/post-checkout", false},
            {"back slashes", "..\\a", false},
            {"a null", "a\0b", false},
            {"a line end", "a\nb", false},
            {"empty", "", false},
            {"too long", "a".repeat(301), false},
        };
    }

    @Test(dataProvider = "paths")
    public void namesAFileBelowOrNone(String name, String path, boolean is) {
        assertThat(SafePath.is(path)).as(name).isEqualTo(is);
    }
}
