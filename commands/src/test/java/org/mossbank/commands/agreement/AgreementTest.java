package org.mossbank.commands.agreement;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.mossbank.core.table.TableScale;
import org.testng.annotations.Test;
import tools.jackson.databind.node.ObjectNode;

public class AgreementTest {
    private static ObjectNode of(String text, TableScale scale) throws IOException {
        Path file = Files.createTempFile("table", ".csv");
        try {
            Files.writeString(file, text);
            return Agreement.of(file, scale);
        } finally {
            Files.delete(file);
        }
    }

    @Test
    public void everythingIsPrinted() throws IOException {
        ObjectNode json = of("u,x,y\na,1,1\nb,2,2\nc,1,3\nd,3,3\n", TableScale.ORDINAL);
        assertThat(json.has("faults")).isFalse();
        assertThat(json.path("units").asInt()).isEqualTo(4);
        assertThat(json.path("coefficients").valueStream()).anySatisfy(c -> {
            assertThat(c.path("name").asString()).isEqualTo("exact");
            assertThat(c.path("value").asDouble()).isEqualTo(0.75);
        });
        assertThat(json.at("/splits/0/values/y").asString()).isEqualTo("3");
        assertThat(json.at("/pairs/0/units").asInt()).isEqualTo(4);
        assertThat(json.at("/severities/1/rater").asString()).isEqualTo("y");
    }

    @Test
    public void faultsArePrintedByLine() throws IOException {
        assertThat(of("u,x,y\na,1\n", TableScale.ORDINAL).at("/faults/0/line").asInt())
                .isEqualTo(2);
        assertThat(of("u,x,y\na,1,good\n", TableScale.INTERVAL)
                        .at("/faults/0/expected")
                        .asString())
                .contains("is no number");
    }
}
