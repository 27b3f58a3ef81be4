package org.mossbank.server.table;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Optional;
import org.mossbank.core.table.TableAgreement;
import org.mossbank.core.table.TableScale;
import org.mossbank.core.table.ValueTable;
import org.mossbank.server.files.Fault;
import org.mossbank.server.files.Faults;
import org.mossbank.server.files.TextFile;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.springframework.core.io.InputStreamSource;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;

@Service
class TableService {
    private static final String TABLE = "the table";
    private static final int MOST_BYTES = 24 << 20;

    private final HeavyWork heavy;

    TableService(HeavyWork heavy) {
        this.heavy = heavy;
    }

    /** @throws Problem 400 with what is wrong with the table */
    @PreAuthorize("isAuthenticated()")
    public TableAgreementView agreement(InputStreamSource file, TableScale scale) {
        // Read when its turn has come: as many as wait would not fit into memory.
        return heavy.run(() -> TableAgreementView.of(figures(bytes(file), scale)));
    }

    private static byte[] bytes(InputStreamSource file) {
        try (InputStream in = file.getInputStream()) {
            byte[] read = in.readNBytes(MOST_BYTES + 1);
            if (read.length > MOST_BYTES) {
                throw new Problem(ProblemType.TOO_LARGE, "A table may have at most %d MB.".formatted(MOST_BYTES >> 20));
            }
            return read;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static TableAgreement figures(byte[] file, TableScale scale) {
        Faults faults = new Faults();
        Optional<String> text = TextFile.read(TABLE, file, faults);
        if (text.isEmpty()) {
            throw refusal(faults.list());
        }
        ValueTable table = ValueTable.parse(text.get());
        if (!table.faults().isEmpty()) {
            throw refusal(table.faults().stream()
                    .map(f -> new Fault(
                            TABLE,
                            f.line() == 0 ? null : f.line(),
                            null,
                            f.expected(),
                            f.found().isEmpty() ? null : f.found()))
                    .toList());
        }
        try {
            return TableAgreement.of(table, scale);
        } catch (TableAgreement.NotOfScale e) {
            throw refusal(List.of(Fault.ofFile(TABLE, "values of the scale: " + e.getMessage())));
        }
    }

    private static Problem refusal(List<Fault> faults) {
        return new Problem(ProblemType.TABLE_REFUSED, "The table cannot be read as it is.").with("faults", faults);
    }
}
