package org.mossbank.server.files;

import java.io.EOFException;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipInputStream;

/** Unpacks a zip into memory; nothing of it is ever written to disk under its own name. */
public final class ZipFiles {
    private static final String ENDS_EARLY = "must be whole; it ends too early: a broken download?";

    private ZipFiles() {}

    /** Keeps the end of what passes: whoever reads entry by entry does not see whether the list of them at the end is there. */
    private static final class Tail extends FilterInputStream {
        private static final int END_RECORD = 22;
        private static final int LONGEST_COMMENT = 0xFFFF;
        private static final byte[] SIGNATURE = {'P', 'K', 5, 6};

        private final byte[] kept = new byte[END_RECORD + LONGEST_COMMENT];
        private long passed;

        Tail(InputStream in) {
            super(in);
        }

        @Override
        public int read() throws IOException {
            int one = super.read();
            if (one >= 0) {
                keep((byte) one);
            }
            return one;
        }

        @Override
        public int read(byte[] into, int from, int length) throws IOException {
            int n = super.read(into, from, length);
            for (int i = Math.max(0, n - kept.length); i < n; i++) {
                kept[(int) ((passed + i) % kept.length)] = into[from + i];
            }
            passed += Math.max(0, n);
            return n;
        }

        private void keep(byte one) {
            kept[(int) (passed % kept.length)] = one;
            passed++;
        }

        /** The record at the end says how long a comment follows it, and that is all that follows. */
        boolean endsAsAZipDoes() throws IOException {
            transferTo(OutputStream.nullOutputStream());
            long first = Math.max(0, passed - kept.length);
            for (long at = passed - END_RECORD; at >= first; at--) {
                if (isSignature(at) && passed - at - END_RECORD == (byteAt(at + 20) | byteAt(at + 21) << 8)) {
                    return true;
                }
            }
            return false;
        }

        private boolean isSignature(long at) {
            for (int i = 0; i < SIGNATURE.length; i++) {
                if (byteAt(at + i) != SIGNATURE[i]) {
                    return false;
                }
            }
            return true;
        }

        private int byteAt(long at) {
            return kept[(int) (at % kept.length)] & 0xFF;
        }
    }

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
        Tail all = new Tail(in);
        long left = bounds.bytes;
        int entries = 0;
        try (ZipInputStream zip = new ZipInputStream(all, StandardCharsets.UTF_8)) {
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
                if (!entry.isDirectory() && files.put(entry.getName(), content) != null) {
                    // Unpacking would keep one of the two, and which one nobody could say.
                    throw new Unreadable("must hold each file once: " + entry.getName(), false);
                }
            }
            if (entries > 0 && !all.endsAsAZipDoes()) {
                throw new Unreadable(ENDS_EARLY, false);
            }
        } catch (ZipException | IllegalArgumentException e) {
            throw new Unreadable("must be a zip file with names in UTF-8", false);
        } catch (EOFException e) {
            throw new Unreadable(ENDS_EARLY, false);
        }
        if (entries == 0) {
            throw new Unreadable("must be a zip file with files in it", false);
        }
        return files;
    }
}
