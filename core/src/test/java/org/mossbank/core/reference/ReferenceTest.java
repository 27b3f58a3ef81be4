package org.mossbank.core.reference;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Iterator;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Published and cross-checked cases, each expected value with the tolerance that its file states. */
public class ReferenceTest {
    private static final Path CASES = Path.of("src/test/resources/reference");

    @DataProvider
    public static Iterator<Object[]> cases() {
        return ReferenceCase.below(CASES).stream()
                .map(c -> new Object[] {c.id(), c})
                .iterator();
    }

    @Test(dataProvider = "cases")
    public void theCoreGivesWhatIsExpected(String name, Object given) {
        ReferenceRun run = new ReferenceRun();

        run.check((ReferenceCase) given);

        assertThat(run.faults()).isEmpty();
        assertThat(run.checked()).isPositive();
    }

    @Test
    public void allCasesAreThere() {
        ReferenceRun run = new ReferenceRun();
        List<ReferenceCase> cases = ReferenceCase.below(CASES);
        int values = cases.stream().mapToInt(c -> c.keys().size()).sum();

        assertThat(cases).hasSize(190);
        assertThat(values).isEqualTo(2599);
        assertThat(run.table(0)).contains("statistic");
    }

    @DataProvider
    public static Object[][] faulty() {
        return new Object[][] {
            {
                "an unknown statistic",
                "\"statistic\": [\"guessing\"]",
                "\"spearman.rho\": {\"value\": 1, \"tolerance\": 1}"
            },
            {
                "an unknown key",
                "\"statistic\": [\"rank_correlation\"]",
                "\"spearman.r\": {\"value\": 1, \"tolerance\": 1}"
            },
            {
                "a key of another statistic",
                "\"statistic\": [\"pareto\"]",
                "\"spearman.rho\": {\"value\": 1, \"tolerance\": 1}"
            },
            {"nothing expected", "\"statistic\": [\"rank_correlation\"]", ""},
            {
                "a wrong value",
                "\"statistic\": [\"rank_correlation\"]",
                "\"spearman.rho\": {\"value\": 0.5, \"tolerance\": 0.1}"
            },
            {"a number that is none", "\"statistic\": [\"rank_correlation\"]", "\"spearman.rho\": {\"undefined\": true}"
            },
            {"no tolerance", "\"statistic\": [\"rank_correlation\"]", "\"spearman.rho\": {\"value\": 1}"},
        };
    }

    @Test(dataProvider = "faulty")
    public void nothingPassesUnseen(String what, String statistic, String expected) throws IOException {
        Path folder = Files.createTempDirectory("reference");
        Files.writeString(folder.resolve("a.csv"), "item,x,y\n1,1,1\n2,2,2\n");
        Files.writeString(
                folder.resolve("a.json"),
                "{\"id\": \"a\", " + statistic + ", \"data\": \"a.csv\", \"expected\": {" + expected + "}}");
        ReferenceRun run = new ReferenceRun();

        ReferenceCase.below(folder).forEach(run::check);

        assertThat(run.faults()).isNotEmpty();
    }
}
