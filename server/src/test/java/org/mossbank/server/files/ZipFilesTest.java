package org.mossbank.server.files;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Map;
import java.util.Random;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.testng.annotations.Test;

public class ZipFilesTest {
    private static final ZipFiles.Bounds BOUNDS = new ZipFiles.Bounds(1 << 20, 100);

    private static byte[] zip(String comment) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Random random = new Random(1);
        try (ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8)) {
            for (int i = 0; i < 8; i++) {
                zip.putNextEntry(new ZipEntry("file-" + i + ".csv"));
                byte[] content = new byte[40];
                random.nextBytes(content);
                zip.write(content);
                zip.closeEntry();
            }
            zip.setComment(comment);
        }
        return out.toByteArray();
    }

    private static Map<String, byte[]> read(byte[] zip) throws IOException, ZipFiles.Unreadable {
        return ZipFiles.read(new ByteArrayInputStream(zip), BOUNDS);
    }

    @Test
    public void aWholeOneIsRead() throws Exception {
        assertThat(read(zip(""))).hasSize(8);
        assertThat(read(zip("With a comment."))).hasSize(8);
    }

    /** Wherever it is cut, between two files and in the list at the end included. */
    @Test
    public void oneThatEndsTooEarlyIsRefusedWhereverItIsCut() throws Exception {
        byte[] whole = zip("");
        for (int length = 1; length < whole.length; length++) {
            byte[] cut = Arrays.copyOf(whole, length);
            assertThatThrownBy(() -> read(cut)).as("cut at " + length).isInstanceOf(ZipFiles.Unreadable.class);
        }
        assertThatThrownBy(() -> read(Arrays.copyOf(whole, whole.length - 30)))
                .hasMessage("must be whole; it ends too early: a broken download?");
    }

    @Test
    public void oneThatHoldsAFileTwiceIsRefused() throws Exception {
        // The library refuses to write one; two names of the same length are made alike afterwards.
        byte[] twice = new String(zip(""), StandardCharsets.ISO_8859_1)
                .replace("file-7.csv", "file-3.csv")
                .getBytes(StandardCharsets.ISO_8859_1);
        assertThatThrownBy(() -> read(twice)).hasMessage("must hold each file once: file-3.csv");
    }
}
