package org.mossbank.testkit;

import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;

/** The small disk that {@code ./mossbank check} mounts where it may. */
public record SmallDisk(Path folder) {
    private static final int PART = 1 << 12;

    public static Optional<SmallDisk> mounted() {
        return Optional.ofNullable(System.getenv("MOSSBANK_TEST_SMALL_DISK"))
                .map(Path::of)
                .map(SmallDisk::new);
    }

    /** Where a database may lie. */
    Path space() {
        return folder.resolve("space");
    }

    private Path filler() {
        return folder.resolve("filler");
    }

    /** To the last byte. */
    public void fill() {
        try (OutputStream out = Files.newOutputStream(filler())) {
            byte[] part = new byte[PART];
            while (Files.getFileStore(folder).getUsableSpace() > 0) {
                out.write(part);
            }
        } catch (IOException e) {
            // Full, which is what was wanted.
        }
    }

    public void free() {
        try {
            Files.deleteIfExists(filler());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
