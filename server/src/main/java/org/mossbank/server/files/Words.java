package org.mossbank.server.files;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** How constants, lists and numbers stand in the files. */
public final class Words {
    private static final char BETWEEN = ';';
    private static final char ESCAPE = '\\';

    private Words() {}

    /** A word of the files as the constant that it stands for; nothing for nothing. */
    public static <E extends Enum<E>> @Nullable E constant(Class<E> type, @Nullable String text) {
        return text == null ? null : Enum.valueOf(type, text.replace('-', '_').toUpperCase(Locale.ROOT));
    }

    /** A constant as it stands in the files. */
    public static String of(Enum<?> constant) {
        return constant.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** Several values of one cell, with ; between them; \; is a ; and \\ a \ that belongs to a value. */
    public static List<String> list(String cell) {
        List<String> values = new ArrayList<>();
        StringBuilder value = new StringBuilder();
        for (int i = 0; i < cell.length(); i++) {
            char c = cell.charAt(i);
            boolean escaped = c == ESCAPE
                    && i + 1 < cell.length()
                    && (cell.charAt(i + 1) == BETWEEN || cell.charAt(i + 1) == ESCAPE);
            if (escaped) {
                i++;
                value.append(cell.charAt(i));
            } else if (c == BETWEEN) {
                addTo(values, value);
            } else {
                value.append(c);
            }
        }
        addTo(values, value);
        return List.copyOf(values);
    }

    private static void addTo(List<String> values, StringBuilder value) {
        String stripped = value.toString().strip();
        if (!stripped.isEmpty()) {
            values.add(stripped);
        }
        value.setLength(0);
    }

    /** Values as one cell; none for none. */
    public static @Nullable String cell(List<String> values) {
        return values.isEmpty()
                ? null
                : String.join(
                        "; ",
                        values.stream()
                                .map(v -> v.replace("\\", "\\\\").replace(";", "\\;"))
                                .toList());
    }

    /** The shortest decimal form, without an exponent. */
    public static BigDecimal plain(BigDecimal number) {
        return new BigDecimal(number.stripTrailingZeros().toPlainString());
    }

    /** The shortest decimal form, so that 5.0 is written as 5. */
    public static BigDecimal plain(double number) {
        return plain(BigDecimal.valueOf(number));
    }
}
