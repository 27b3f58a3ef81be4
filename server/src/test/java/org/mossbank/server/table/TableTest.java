package org.mossbank.server.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import org.mossbank.server.ServerTest;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Agreement in a table that somebody brings. */
public class TableTest extends ServerTest {
    private ApiClient.Response of(byte[] table, String scale) {
        return as(RATER).upload("/api/tables/agreement?scale=" + scale, "mine.csv", table);
    }

    @DataProvider
    public static Object[][] published() {
        return new Object[][] {
            {"four-observers.csv", "ALPHA_NOMINAL", 0.743},
            {"four-observers.csv", "ALPHA_ORDINAL", 0.815},
            {"four-observers.csv", "ALPHA_INTERVAL", 0.849},
            // Shrout and Fleiss (1979), table 4: ICC(2,1), ICC(2,4) and ICC(3,1).
            {"six-targets.csv", "ICC_SINGLE_AGREEMENT", 0.29},
            {"six-targets.csv", "ICC_MEAN_AGREEMENT", 0.62},
            {"six-targets.csv", "ICC_SINGLE_CONSISTENCY", 0.715},
        };
    }

    @Test(dataProvider = "published")
    public void theExamplesHaveTheirPublishedFigures(String file, String name, double value) throws IOException {
        JsonNode found = of(Files.readAllBytes(ROOT.resolve("web/public/examples/" + file)), "INTERVAL")
                .json();
        JsonNode figure = found.path("coefficients")
                .valueStream()
                .filter(c -> c.path("name").asString().equals(name))
                .findFirst()
                .orElseThrow()
                .path("figure");
        assertThat(figure.path("value").asDouble()).isCloseTo(value, within(0.005));
        assertThat(figure.path("low").asDouble()).isLessThan(value);
    }

    @Test
    public void whatIsWrongIsToldByLine() {
        ApiClient.Response refused = of(bytes("u,x,y\na,1,2\nb,1\n"), "ORDINAL");
        assertThat(refused.problem()).isEqualTo("table-refused");
        assertThat(refused.json().at("/faults/0/line").asInt()).isEqualTo(3);
        assertThat(of(bytes("u,x,y\na,1,good\n"), "ORDINAL")
                        .json()
                        .at("/faults/0/expected")
                        .asString())
                .contains("is no number");
        assertThat(of(new byte[] {(byte) 0xff, 0}, "ORDINAL").problem()).isEqualTo("table-refused");
        assertThat(of(bytes("u,x,y\na,1,2\n"), "RANKED").problem()).isEqualTo("malformed-request");
    }
}
