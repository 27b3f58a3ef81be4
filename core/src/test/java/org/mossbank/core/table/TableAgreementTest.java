package org.mossbank.core.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.table.TableAgreement.Name;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class TableAgreementTest {
    /** Krippendorff (2011), Computing Krippendorff's alpha-reliability, p. 8: four observers, twelve units, gaps. */
    private static final String KRIPPENDORFF = """
            unit,A,B,C,D
            1,1,1,,1
            2,2,2,3,2
            3,3,3,3,3
            4,3,3,3,3
            5,2,2,2,2
            6,1,2,3,4
            7,4,4,4,4
            8,1,1,2,1
            9,2,2,2,2
            10,,5,5,5
            11,,,1,1
            12,,,3,
            """;

    private static TableAgreement of(String text, TableScale scale) throws Exception {
        ValueTable table = ValueTable.parse(text);
        assertThat(table.faults()).isEmpty();
        return TableAgreement.of(table, scale);
    }

    private static Estimate value(TableAgreement of, Name name) {
        return of.coefficients().stream()
                .filter(c -> c.name() == name)
                .findFirst()
                .orElseThrow()
                .value();
    }

    @DataProvider
    public static Object[][] published() {
        return new Object[][] {{Name.ALPHA_NOMINAL, 0.743}, {Name.ALPHA_ORDINAL, 0.815}, {Name.ALPHA_INTERVAL, 0.849}};
    }

    @Test(dataProvider = "published")
    public void alphaIsThePublishedOne(Name name, double published) throws Exception {
        TableAgreement found = of(KRIPPENDORFF, TableScale.INTERVAL);
        assertThat(value(found, name).value().orElseThrow()).isCloseTo(published, within(0.0005));
        assertThat(found.coefficients().stream()
                        .filter(c -> c.name() == name)
                        .findFirst()
                        .orElseThrow()
                        .interval())
                .isInstanceOf(Interval.Bounds.class);
        assertThat(found.units()).isEqualTo(12);
        assertThat(found.values()).isEqualTo(41);
        assertThat(found.levels()).containsExactly("1", "2", "3", "4", "5");
    }

    @Test
    public void longAndWideAreTheSame() throws Exception {
        StringBuilder rows = new StringBuilder("rater,Value,UNIT\n");
        ValueTable.parse(KRIPPENDORFF)
                .values()
                .forEach(v -> rows.append(v.rater() + "," + v.value() + "," + v.unit() + "\n"));
        assertThat(of(rows.toString(), TableScale.ORDINAL)).isEqualTo(of(KRIPPENDORFF, TableScale.ORDINAL));
        assertThat(of("\uFEFF" + rows.toString().replace("\n", "\r\n"), TableScale.ORDINAL))
                .isEqualTo(of(KRIPPENDORFF, TableScale.ORDINAL));
    }

    /** Two raters, four units: three alike of four, and chance (2·2 + 2·2) / 16: kappa 1/2. */
    @Test
    public void namesHaveNoOrder() throws Exception {
        TableAgreement found = of("u,x,y\na,yes,yes\nb,yes,no\nc,no,no\nd,no,no\n", TableScale.NOMINAL);
        assertThat(found.levels()).containsExactly("no", "yes");
        assertThat(found.pairs()).hasSize(1);
        // Shares of x: yes 1/2; of y: yes 1/4. Chance is 1/2·1/4 + 1/2·3/4 = 1/2; (3/4 − 1/2) / (1/2) = 1/2.
        assertThat(found.pairs().get(0).kappa().value().orElseThrow()).isCloseTo(0.5, within(1e-12));
        assertThat(found.pairs().get(0).quadratic()).isInstanceOf(Estimate.Undefined.class);
        assertThat(value(found, Name.EXACT).value().orElseThrow()).isCloseTo(0.75, within(1e-12));
        assertThat(found.severities()).isEmpty();
        assertThat(found.splits()).isEmpty();
        assertThat(found.coefficients()).extracting(TableAgreement.Named::name).doesNotContain(Name.ALPHA_ORDINAL);
    }

    @Test
    public void levelsAreComparedByTheirPlace() throws Exception {
        TableAgreement found = of("u,x,y\na,10,20\nb,10,30\nc,20,20\nd,30,10\n", TableScale.ORDINAL);
        // 10, 20 and 30 are levels 0, 1 and 2: b and d lie two apart.
        assertThat(found.splitCount()).isEqualTo(2);
        assertThat(found.splits()).extracting(s -> s.unit()).containsExactly("b", "d");
        assertThat(found.severities()).hasSize(2);
        // y is above x by 1, 2, 0 and −2 levels: a quarter of a level on average, and half of that each way from the
        // middle.
        assertThat(found.severities().get(0).severity().value().orElseThrow()).isCloseTo(0.125, within(1e-9));
    }

    /** Without the one unit they part on, two raters agree wholly: by how much is then known badly, and never above 1. */
    @Test
    public void noIntervalGoesAboveOne() throws Exception {
        TableAgreement found = of("u,x,y\na,1,1\nb,2,2\nc,1,3\nd,3,3\n", TableScale.ORDINAL);
        assertThat(found.coefficients())
                .extracting(TableAgreement.Named::interval)
                .filteredOn(Interval.Bounds.class::isInstance)
                .hasSizeGreaterThan(3)
                .allSatisfy(i -> assertThat(((Interval.Bounds) i).high()).isLessThanOrEqualTo(1));
    }

    @Test
    public void whatIsNoNumberIsNamed() {
        ValueTable table = ValueTable.parse("u,x,y\na,1,good\n");
        assertThatThrownBy(() -> TableAgreement.of(table, TableScale.ORDINAL))
                .hasMessage("“good” of y on a is no number");
        assertThatThrownBy(() -> TableAgreement.of(ValueTable.parse("u,x,y\na,1,NaN\n"), TableScale.INTERVAL))
                .isInstanceOf(TableAgreement.NotOfScale.class);
        String many = IntStream.range(0, 130)
                .mapToObj(i -> "u" + i + "," + i + "," + i)
                .collect(Collectors.joining("\n"));
        assertThatThrownBy(() -> TableAgreement.of(ValueTable.parse("u,x,y\n" + many), TableScale.INTERVAL))
                .hasMessage("there are 130 different values; at most 127 can be told apart");
    }

    @DataProvider
    public static Object[][] faulty() {
        return new Object[][] {
            {"", 0, "a head and at least one row"},
            {"unit,rater,value\n", 0, "a head and at least one row"},
            {"unit,rater\na,b\n", 1, "the columns unit, rater and value; or a unit and a column for each rater"},
            {"u,x,x\na,1,2\n", 1, "each column once"},
            {"u,x,\na,1,2\n", 1, "a name for each rater"},
            {"u,x,y\na,1\n", 2, "3 cells"},
            {"u,x,y\na,1,2\na,1,2\n", 3, "one value for a unit and rater"},
            {"unit,rater,value\na,x,1\na,x,2\n", 3, "one value for a unit and rater"},
            {"unit,rater,value\n,x,1\na,y,2\n", 2, "the name of a unit"},
            {"unit,rater,value\na,x,1\nb,x,2\n", 0, "values from two raters or more"},
            {"u,x,y\na,\"1,2\n", 0, "a table of comma-separated values, with quotes closed"},
        };
    }

    @Test(dataProvider = "faulty")
    public void faultsAreNamedByLine(String text, int line, String expected) {
        assertThat(ValueTable.parse(text).faults())
                .anySatisfy(f -> assertThat(List.of(f.line(), f.expected())).isEqualTo(List.of(line, expected)));
    }

    @Test
    public void readingStopsAtSoManyRowsAndFaults() {
        StringBuilder rows = new StringBuilder("unit,rater,value\n");
        for (int i = 0; i < ValueTable.MOST_ROWS + 1; i++) {
            rows.append('u').append(i / 2).append(",r").append(i % 2).append(",1\n");
        }
        assertThat(ValueTable.parse(rows.toString()).faults())
                .extracting(ValueTable.TableFault::expected)
                .containsExactly("at most 200,000 rows");
        assertThat(ValueTable.parse("unit,rater,value\n" + "a,x\n".repeat(5_000))
                        .faults())
                .hasSize(100);
    }

    /** As many rows as there may be, of many raters, would be more values than memory holds. */
    @Test
    public void readingStopsAtSoManyValues() {
        String head = IntStream.range(0, 60).mapToObj(r -> "r" + r).collect(Collectors.joining(",", "unit,", "\n"));
        String row = ",1".repeat(60) + "\n";
        StringBuilder rows = new StringBuilder(head);
        IntStream.range(0, 20_000).forEach(u -> rows.append(u).append(row));
        assertThat(ValueTable.parse(rows.toString()).faults())
                .extracting(ValueTable.TableFault::expected)
                .containsExactly("at most 1,000,000 values");
    }

    @Test
    public void whatWouldTakeTooMuchMemoryIsRefusedWithWhatToDo() {
        StringBuilder rows = new StringBuilder("unit,a,b\n");
        IntStream.range(0, 100_000).forEach(u -> rows.append(u + "," + u % 127 + "," + (u / 127) % 127 + "\n"));
        assertThatThrownBy(() -> TableAgreement.of(ValueTable.parse(rows.toString()), TableScale.INTERVAL))
                .hasMessageContaining("group values that lie near each other");
    }

    /** More units than their equations can be held of are resampled in groups: the estimate is the same. */
    @Test
    public void manyRatersOnManyUnitsHaveTheirSeverity() throws Exception {
        StringBuilder rows = new StringBuilder(
                IntStream.range(0, 60).mapToObj(r -> "r" + r).collect(Collectors.joining(",", "unit,", "\n")));
        for (int u = 0; u < 5_000; u++) {
            rows.append(u);
            for (int r = 0; r < 60; r++) {
                rows.append(',').append(r == 0 ? u % 4 : u % 4 + 1);
            }
            rows.append('\n');
        }
        TableAgreement found = of(rows.toString(), TableScale.ORDINAL);
        // The first gives a level less than all 59 others, on every unit.
        assertThat(found.severities().get(0).severity().value().orElseThrow()).isCloseTo(59 / 60.0, within(1e-9));
    }
}
