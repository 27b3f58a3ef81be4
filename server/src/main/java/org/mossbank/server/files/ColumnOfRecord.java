package org.mossbank.server.files;

import jakarta.validation.constraints.NotNull;
import java.lang.reflect.Method;
import java.lang.reflect.RecordComponent;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** One component of a row as a column: its description, its value from a cell, its cell from a value. */
final class ColumnOfRecord {
    private final String name;
    private final Class<?> type;
    private final Column column;
    private final Method accessor;
    private final boolean required;
    private final boolean absentIfEmpty;
    private final Limits limits;

    private ColumnOfRecord(RecordComponent component, Column column) {
        this.name = component.getName().replaceAll("([A-Z])", "_$1").toLowerCase(Locale.ROOT);
        this.type = component.getType();
        this.column = column;
        this.accessor = component.getAccessor();
        accessor.setAccessible(true);
        this.required = column.key()
                || component.getAnnotatedType().isAnnotationPresent(NotNull.class)
                || (type.isPrimitive() && type != boolean.class);
        this.absentIfEmpty = component.getAnnotatedType().isAnnotationPresent(Nullable.class);
        this.limits = Limits.of(component, column);
    }

    /** @throws IllegalArgumentException if the component does not say what it holds */
    static ColumnOfRecord of(RecordComponent component) {
        Column column = component.getAnnotation(Column.class);
        if (column == null) {
            throw new IllegalArgumentException("component says what its column holds: " + component);
        }
        return new ColumnOfRecord(component, column);
    }

    ObjectNode json() {
        ObjectNode json = JsonMapper.shared().createObjectNode();
        json.put("name", name).put("type", typeName()).put("description", column.value());
        ObjectNode rules = JsonMapper.shared().createObjectNode();
        if (required) {
            rules.put("required", true);
        }
        if (type.isEnum()) {
            ArrayNode words = rules.putArray("enum");
            Arrays.stream(type.getEnumConstants()).forEach(c -> words.add(Words.of((Enum<?>) c)));
        }
        limits.ofWhole(type).writeTo(rules);
        if (type == LocalDate.class) {
            rules.put("minimum", "0001-01-01").put("maximum", "9999-12-31");
        }
        if (type == Instant.class) {
            rules.put("minimum", "0001-01-01T00:00:00Z").put("maximum", "9999-12-31T23:59:59Z");
        }
        if (!rules.isEmpty()) {
            json.set("constraints", rules);
        }
        return json;
    }

    private String typeName() {
        if (type == int.class || type == Integer.class || type == long.class || type == Long.class) {
            return "integer";
        }
        if (type == double.class || type == Double.class || type == BigDecimal.class) {
            return "number";
        }
        if (type == boolean.class) {
            return "boolean";
        }
        if (type == LocalDate.class) {
            return "date";
        }
        if (type == Instant.class) {
            return "datetime";
        }
        if (type == String.class || type == List.class || type.isEnum()) {
            return "string";
        }
        throw new IllegalArgumentException("type is one that a table can hold: " + type);
    }

    boolean isReference() {
        return !column.in().isEmpty();
    }

    ObjectNode reference() {
        String[] other = column.in().split("\\.", 2);
        ObjectNode json = JsonMapper.shared().createObjectNode();
        json.putArray("fields").add(name);
        json.putObject("reference").put("resource", other[0]).putArray("fields").add(other[1]);
        return json;
    }

    /** A rule that the schema has no word for. */
    void checkDecimals(TableRow row, Faults faults) {
        Integer most = limits.decimals();
        BigDecimal amount = most == null ? null : row.decimalOrNull(name);
        if (most != null && amount != null && Words.plain(amount).scale() > most) {
            faults.add(row, name, "at most " + most + " decimals", row.text(name));
        }
    }

    /** The value of a cell that the schema let through. */
    @Nullable
    Object value(TableRow row) {
        String text = row.textOrNull(name);
        if (type == boolean.class) {
            return "true".equals(text);
        }
        if (type == List.class) {
            return Words.list(row.text(name));
        }
        if (text == null) {
            return type == String.class && !absentIfEmpty ? "" : null;
        }
        return parsed(text);
    }

    private Object parsed(String text) {
        if (type == String.class) {
            return text;
        }
        if (type.isEnum()) {
            return constant(text);
        }
        if (type == Instant.class) {
            return OffsetDateTime.parse(text).toInstant();
        }
        if (type == LocalDate.class) {
            return LocalDate.parse(text);
        }
        if (type == BigDecimal.class) {
            return Words.plain(new BigDecimal(text));
        }
        if (type == double.class || type == Double.class) {
            return Double.valueOf(text);
        }
        return type == long.class || type == Long.class ? (Object) Long.valueOf(text) : Integer.valueOf(text);
    }

    private Object constant(String text) {
        return Arrays.stream(type.getEnumConstants())
                .filter(c -> Words.of((Enum<?>) c).equals(text))
                .findFirst()
                .orElseThrow();
    }

    /** What is written of a row; absent where there is nothing to write. */
    @Nullable
    Object cell(Record row) {
        Object value = of(row);
        if (value instanceof Boolean truth) {
            return truth ? true : null;
        }
        if (value instanceof List<?> list) {
            return Words.cell(list.stream().map(String::valueOf).toList());
        }
        if (value instanceof Enum<?> constant) {
            return Words.of(constant);
        }
        if (value instanceof Double number) {
            return Words.plain(number).toPlainString();
        }
        if (value instanceof BigDecimal number) {
            return number.toPlainString();
        }
        return "".equals(value) ? null : value;
    }

    private @Nullable Object of(Record row) {
        try {
            return accessor.invoke(row);
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException("a record gives its components: " + name, e);
        }
    }
}
