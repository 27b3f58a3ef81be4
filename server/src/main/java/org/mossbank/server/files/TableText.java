package org.mossbank.server.files;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;

/** A table as it stands in a file; {@link TableSchema} reads it. */
final class TableText {
    private TableText() {}

    /** @param rows cells in the order of the columns; nothing is written for one that is absent */
    static String of(List<String> columns, List<? extends List<?>> rows) {
        StringBuilder text = new StringBuilder();
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setHeader(columns.toArray(String[]::new))
                .setRecordSeparator('\n')
                .setNullString("")
                .get();
        try (CSVPrinter printer = new CSVPrinter(text, format)) {
            for (List<?> row : rows) {
                printer.printRecord(row);
            }
        } catch (IOException e) {
            throw new UncheckedIOException("a string builder does not fail", e);
        }
        return text.toString();
    }
}
