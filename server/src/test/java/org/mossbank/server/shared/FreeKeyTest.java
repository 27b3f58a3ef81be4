package org.mossbank.server.shared;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Set;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class FreeKeyTest {

    @DataProvider
    public static Object[][] names() {
        return new Object[][] {
            {"Drift alarm fires!", "drift-alarm-fires"},
            {"  Ærø — Größe  ", "r-gro-e"},
            {"Éclair", "eclair"},
            {"漢字", "prompt"},
            {"", "prompt"},
            {"a".repeat(90), "a".repeat(60)},
        };
    }

    @Test(dataProvider = "names")
    public void lowerCaseLettersDigitsAndLines(String name, String key) {
        assertThat(FreeKey.of(name, "prompt", Set.of())).isEqualTo(key).matches("[a-z0-9][a-z0-9._-]{0,79}");
    }

    @Test
    public void countsOnWhereTheKeyIsTaken() {
        assertThat(FreeKey.of("Mean", "x", Set.of("mean", "mean-2"))).isEqualTo("mean-3");
    }
}
