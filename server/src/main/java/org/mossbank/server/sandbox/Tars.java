package org.mossbank.server.sandbox;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.apache.commons.compress.archivers.tar.TarConstants;

/** Files on their way into a sandbox and out of it, as one archive each way. */
final class Tars {
    static final int MOST_FILES = 5_000;

    private Tars() {}

    static void write(WorkFiles files, OutputStream to) throws IOException {
        try (TarArchiveOutputStream tar = new TarArchiveOutputStream(to, StandardCharsets.UTF_8.name())) {
            tar.setLongFileMode(TarArchiveOutputStream.LONGFILE_POSIX);
            tar.setAddPaxHeadersForNonAsciiNames(true);
            for (Map.Entry<String, byte[]> file : files.bytes().entrySet()) {
                // Before a name that begins with a dash, so that no program takes it for an option.
                TarArchiveEntry entry = new TarArchiveEntry("./" + file.getKey(), true);
                entry.setSize(file.getValue().length);
                entry.setMode(0755);
                entry.setModTime(0L);
                tar.putArchiveEntry(entry);
                tar.write(file.getValue());
                tar.closeArchiveEntry();
            }
        }
    }

    private static boolean isPlain(TarArchiveEntry entry) {
        byte sort = entry.getLinkFlag();
        return (sort == TarConstants.LF_NORMAL || sort == TarConstants.LF_OLDNORM) && !entry.isDirectory();
    }

    /** It cannot be read, or holds more than it may. */
    static final class Broken extends Exception {
        private static final long serialVersionUID = 1;

        final boolean tooMuch;

        Broken(boolean tooMuch) {
            this.tooMuch = tooMuch;
        }
    }

    /**
     * The plain files of an archive that a hostile program may have written; all else is passed over.
     *
     * @throws Broken if it is no archive, or its files are too many or too large together
     */
    static SortedMap<String, byte[]> read(InputStream from, long mostBytes) throws Broken {
        SortedMap<String, byte[]> files = new TreeMap<>();
        long bytes = 0;
        int entries = 0;
        try (TarArchiveInputStream tar = new TarArchiveInputStream(from, StandardCharsets.UTF_8.name())) {
            for (TarArchiveEntry entry = tar.getNextEntry(); entry != null; entry = tar.getNextEntry()) {
                bytes += Math.max(0, entry.getSize());
                if (++entries > 2 * MOST_FILES || bytes > mostBytes) {
                    throw new Broken(true);
                }
                if (isPlain(entry)) {
                    files.put(entry.getName(), tar.readNBytes((int) entry.getSize()));
                }
            }
        } catch (IOException | IllegalArgumentException e) {
            throw new Broken(false);
        }
        if (files.size() > MOST_FILES) {
            throw new Broken(true);
        }
        return files;
    }
}
