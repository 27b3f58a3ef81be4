package org.mossbank.server.files;

import java.math.BigDecimal;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A checked row of a table: cells by column, absent where empty. The getters rely on the check of the schema.
 *
 * @param line line of the file on which the row starts, from 1
 */
public record TableRow(String file, int line, Map<String, String> cells) {

    public @Nullable String textOrNull(String column) {
        return cells.get(column);
    }

    /** The text, or an empty one. */
    public String text(String column) {
        return cells.getOrDefault(column, "");
    }

    public List<String> texts(List<String> columns) {
        return columns.stream().map(this::text).toList();
    }

    public int integer(String column) {
        return Integer.parseInt(text(column));
    }

    public @Nullable Integer integerOrNull(String column) {
        String text = textOrNull(column);
        return text == null ? null : Integer.valueOf(text);
    }

    public @Nullable Long wholeOrNull(String column) {
        String text = textOrNull(column);
        return text == null ? null : Long.valueOf(text);
    }

    public @Nullable BigDecimal decimalOrNull(String column) {
        String text = textOrNull(column);
        return text == null ? null : new BigDecimal(text);
    }

    /** The shortest decimal form, without an exponent. */
    public static @Nullable BigDecimal plain(@Nullable BigDecimal number) {
        return number == null
                ? null
                : new BigDecimal(number.stripTrailingZeros().toPlainString());
    }

    public double number(String column) {
        return Double.parseDouble(text(column));
    }

    public boolean truth(String column) {
        return text(column).equals("true");
    }

    public @Nullable Instant instantOrNull(String column) {
        String text = textOrNull(column);
        return text == null ? null : OffsetDateTime.parse(text).toInstant();
    }
}
