package org.mossbank.server.files;

import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipInputStream;

/** Unpacks a zip into memory; nothing of it is ever written to disk under its own name. */
public final class ZipFiles {
    private ZipFiles() {}

    /** How much may be in it. */
    public record Bounds(long bytes, int files) {}

    /** Signals a zip that cannot be read, or holds too much. */
    public static final class Unreadable extends Exception {
        private static final long serialVersionUID = 1L;

        private final String rule;
        private final boolean tooLarge;

        private Unreadable(String rule, boolean tooLarge) {
            super(rule);
            this.rule = rule;
            this.tooLarge = tooLarge;
        }

        /** What it must be. */
        public String rule() {
            return rule;
        }

        /** Whether it could be read, but holds more than it may. */
        public boolean isTooLarge() {
            return tooLarge;
        }
    }

    /**
     * The files by path. What stands behind a name is counted whatever the name is: a folder may have content, too, which
     * unpacking it would have to get past.
     *
     * @throws Unreadable if it is no zip, is not whole, or holds more than it may
     */
    public static Map<String, byte[]> read(InputStream in, Bounds bounds) throws IOException, Unreadable {
        Map<String, byte[]> files = new TreeMap<>();
        long left = bounds.bytes;
        int entries = 0;
        try (ZipInputStream zip = new ZipInputStream(in, StandardCharsets.UTF_8)) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                byte[] content = zip.readNBytes((int) Math.min(left + 1, Integer.MAX_VALUE - 8));
                left -= content.length;
                entries++;
                if (left < 0 || entries > bounds.files) {
                    throw new Unreadable(
                            "must unpack to at most %,d MB in at most %,d files"
                                    .formatted(bounds.bytes >> 20, bounds.files),
                            true);
                }
                if (!entry.isDirectory()) {
                    files.put(entry.getName(), content);
                }
            }
        } catch (ZipException | IllegalArgumentException e) {
            throw new Unreadable("must be a zip file with names in UTF-8", false);
        } catch (EOFException e) {
            throw new Unreadable("must be a zip file that is whole", false);
        }
        if (entries == 0) {
            throw new Unreadable("must be a zip file with files in it", false);
        }
        return files;
    }
}
