package org.mossbank.server.files;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import jakarta.validation.constraints.Digits;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** A table is what its row says: names, types, limits, and the way there and back. */
public class TableTest {
    enum Shade {
        LIGHT,
        VERY_DARK
    }

    record Written(
            @NotBlank @Size(max = 12) String title,
            @Size(max = 3) List<@NotBlank @Size(max = 7) String> notes,
            @Min(2) @Max(40) int weight) {}

    @TableForm(
            name = "pebbles",
            meaning = "Pebbles.",
            key = "pebble",
            unique = {"title", "weight"})
    record PebbleRow(
            @Column(value = "Key", key = true) String pebble,

            @Column(value = "Shore", in = "shores.shore") @Nullable
            String shore,

            @Column("Title") @As(Written.class) @NotNull String title,

            @Column("Note") @As(value = Written.class, property = "notes", part = As.Part.ITEM)
            String firstNote,

            @Column("Which note") @As(value = Written.class, property = "notes", part = As.Part.PLACE) @Nullable
            Integer noteNo,

            @Column("Weight") @As(Written.class) int weight,
            @Column("Shades") List<String> names,
            @Column("Shade") @Nullable Shade shade,

            @Column("Price") @Digits(integer = 3, fraction = 2) @Nullable
            BigDecimal price,

            @Column("Share") @Nullable Double share,
            @Column("Count") @Nullable Long count,
            @Column("Wet") boolean wet,
            @Column("Day") @Nullable LocalDate day,
            @Column("Time") @Nullable Instant foundAt) {}

    private static final Table<PebbleRow> TABLE = Table.of(PebbleRow.class);

    private static final PebbleRow FULL = new PebbleRow(
            "a1",
            "north",
            "Grey, \"flat\"",
            "smooth",
            2,
            7,
            List.of("a;b", "c\\", "d"),
            Shade.VERY_DARK,
            new BigDecimal("12.5"),
            0.25,
            123456789012L,
            true,
            LocalDate.of(2026, 3, 1),
            Instant.parse("2026-03-01T14:30:00Z"));

    private static final PebbleRow BARE =
            new PebbleRow("a2", null, "Red", "", null, 2, List.of(), null, null, null, null, false, null, null);

    private static String text(PebbleRow... rows) {
        return TableText.of(
                TABLE.schema().columnNames(),
                List.of(rows).stream().map(TABLE::cells).toList());
    }

    private static JsonNode rules(String column) {
        return TABLE.schema()
                .json()
                .path("fields")
                .valueStream()
                .filter(f -> f.path("name").asString().equals(column))
                .map(f -> f.path("constraints"))
                .findFirst()
                .orElseThrow();
    }

    @Test
    public void whatIsWrittenIsReadAgain() {
        Faults faults = new Faults();

        List<Line<PebbleRow>> lines = TABLE.read("pebbles.csv", text(FULL, BARE), faults);

        assertThat(faults.list()).isEmpty();
        assertThat(lines).extracting(Line::row).containsExactly(FULL, BARE);
        assertThat(lines).extracting(l -> l.at().line()).containsExactly(2, 3);
    }

    @Test
    public void namesAreInSmallLettersWithLinesBetween() {
        assertThat(TABLE.schema().columnNames()).contains("first_note", "found_at", "note_no");
    }

    @Test
    public void aColumnTakesItsLimitsFromTheProperty() {
        assertThat(rules("title").path("maxLength").asInt()).isEqualTo(12);
        assertThat(rules("first_note").path("maxLength").asInt()).isEqualTo(7);
        assertThat(rules("note_no").path("minimum").asInt()).isEqualTo(1);
        assertThat(rules("note_no").path("maximum").asInt()).isEqualTo(3);
        assertThat(rules("weight").path("minimum").asInt()).isEqualTo(2);
        assertThat(rules("weight").path("maximum").asInt()).isEqualTo(40);
        assertThat(rules("price").path("maximum").decimalValue()).isEqualByComparingTo("999.99");
    }

    @Test
    public void whatMustBeThereIsSaidByTheType() {
        assertThat(rules("pebble").path("required").asBoolean(false)).isTrue();
        assertThat(rules("title").path("required").asBoolean(false)).isTrue();
        assertThat(rules("weight").path("required").asBoolean(false)).isTrue();
        assertThat(rules("first_note").has("required")).isFalse();
        assertThat(rules("wet").has("required")).isFalse();
        assertThat(rules("shore").has("required")).isFalse();
    }

    @DataProvider
    public Object[][] wrong() {
        return new Object[][] {
            {"pebble,title,weight\nA1,Red,2\n", "pebble", "text of the form"},
            {"pebble,title,weight\na1,Red,41\n", "weight", "a whole number from 2 to 40"},
            {"pebble,title,weight\na1,Red and far too long,2\n", "title", "at most 12 characters"},
            {"pebble,title,weight,price\na1,Red,2,1.234\n", "price", "at most 2 decimals"},
            {"pebble,title,weight,shade\na1,Red,2,dark\n", "shade", "one of light, very-dark"},
            {"pebble,title,weight\na1,Red,2\na1,Blue,3\n", "pebble", "other values than those of line 2"},
            {"pebble,title,weight\na1,Red,2\na2,Red,2\n", "title, weight", "other values than those of line 2"},
        };
    }

    @Test(dataProvider = "wrong")
    public void whatIsWrongIsSaidByColumn(String csv, String field, String expected) {
        Faults faults = new Faults();

        TABLE.read("pebbles.csv", csv, faults);

        assertThat(faults.list()).singleElement().satisfies(f -> {
            assertThat(f.field()).isEqualTo(field);
            assertThat(f.expected()).startsWith(expected);
        });
    }

    record Bare(String text) {}

    @TableForm(name = "mute", meaning = "Mute.")
    record Mute(String text) {}

    @TableForm(name = "astray", meaning = "Astray.")
    record Astray(@Column("Text") @As(Written.class) String text) {}

    @Test
    public void aRowThatDoesNotSayWhatItIsIsRefused() {
        assertThatThrownBy(() -> Table.of(Bare.class)).hasMessageContaining("row has a form");
        assertThatThrownBy(() -> Table.of(Mute.class)).hasMessageContaining("component says what its column holds");
        assertThatThrownBy(() -> Table.of(Astray.class)).hasMessageContaining("property is one of Written: text");
    }

    @Test
    public void aListKeepsWhatStandsBetweenItsItems() {
        assertThat(Words.list("back end; build")).containsExactly("back end", "build");
        assertThat(Words.list(" ; a ;;b\\c")).containsExactly("a", "b\\c");
        List<String> hard = List.of("a;b", "c\\", "\\;d", "e");
        assertThat(Words.list(String.valueOf(Words.cell(hard)))).isEqualTo(hard);
        assertThat(Words.cell(List.of())).isNull();
    }
}
