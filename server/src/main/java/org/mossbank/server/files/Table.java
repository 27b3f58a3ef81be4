package org.mossbank.server.files;

import java.lang.reflect.Constructor;
import java.lang.reflect.RecordComponent;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * A table of the open format, declared once by the record that is its row: reading, writing and the schema that
 * {@code docs/formats/schemas} shows come from it.
 */
public final class Table<R extends Record> {
    private static final String PROFILE = "https://datapackage.org/profiles/2.0/tableschema.json";

    private final TableForm form;
    private final Constructor<R> constructor;
    private final List<ColumnOfRecord> columns;
    private final TableSchema schema;

    private Table(TableForm form, Constructor<R> constructor, List<ColumnOfRecord> columns) {
        this.form = form;
        this.constructor = constructor;
        this.columns = columns;
        this.schema = new TableSchema(json());
    }

    /** @throws IllegalArgumentException if the record, or one of its components, does not say what it is */
    public static <R extends Record> Table<R> of(Class<R> row) {
        TableForm form = row.getAnnotation(TableForm.class);
        if (form == null) {
            throw new IllegalArgumentException("row has a form: " + row.getName());
        }
        List<RecordComponent> components = Arrays.asList(row.getRecordComponents());
        try {
            Constructor<R> constructor = row.getDeclaredConstructor(
                    components.stream().map(RecordComponent::getType).toArray(Class[]::new));
            constructor.setAccessible(true);
            return new Table<>(
                    form,
                    constructor,
                    components.stream().map(ColumnOfRecord::of).toList());
        } catch (NoSuchMethodException e) {
            throw new IllegalStateException("a record has its canonical constructor", e);
        }
    }

    public String name() {
        return form.name();
    }

    public TableSchema schema() {
        return schema;
    }

    /** The rows that could be read; what is wrong goes to the faults. */
    public List<Line<R>> read(String file, String text, Faults faults) {
        List<Line<R>> lines = new ArrayList<>();
        for (TableRow row : schema.read(file, text, faults)) {
            columns.forEach(c -> c.checkDecimals(row, faults));
            lines.add(new Line<>(row, row(row)));
        }
        return lines;
    }

    private R row(TableRow cells) {
        try {
            return constructor.newInstance(
                    columns.stream().map(c -> c.value(cells)).toArray());
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException("a row that its schema let through can be made: " + name(), e);
        }
    }

    /** The cells of a row in the order of the columns; absent where nothing is written. */
    public List<@Nullable Object> cells(R row) {
        List<@Nullable Object> cells = new ArrayList<>();
        columns.forEach(c -> cells.add(c.cell(row)));
        return cells;
    }

    private ObjectNode json() {
        ObjectNode json = JsonMapper.shared().createObjectNode();
        json.put("$schema", PROFILE);
        json.put("title", form.name());
        json.put("description", form.meaning());
        ArrayNode fields = json.putArray("fields");
        columns.forEach(c -> fields.add(c.json()));
        if (form.key().length > 0) {
            addAll(json.putArray("primaryKey"), form.key());
        }
        if (form.unique().length > 0) {
            addAll(json.putArray("uniqueKeys").addArray(), form.unique());
        }
        List<ColumnOfRecord> pointing =
                columns.stream().filter(ColumnOfRecord::isReference).toList();
        if (!pointing.isEmpty()) {
            ArrayNode keys = json.putArray("foreignKeys");
            pointing.forEach(c -> keys.add(c.reference()));
        }
        return json;
    }

    private static void addAll(ArrayNode array, String[] names) {
        Arrays.stream(names).forEach(array::add);
    }
}
