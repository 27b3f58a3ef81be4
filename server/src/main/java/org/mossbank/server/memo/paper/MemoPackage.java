package org.mossbank.server.memo.paper;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.mossbank.server.memo.document.MemoDocument;
import org.mossbank.server.memo.document.MemoHead;
import org.mossbank.server.memo.document.WholeMemo;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** A signed memo in its forms, together with the archive that its figures rest on. */
public final class MemoPackage {
    /** The archive, byte for byte as the memo's checksum has it. */
    static final String ARCHIVE = "study.zip";

    static final String DOCUMENT = "memo.json";

    private static final JsonMapper MAPPER =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    private final Map<String, byte[]> files;

    private MemoPackage(Map<String, byte[]> files) {
        this.files = files;
    }

    /** @param checksum SHA-256 of {@link #ARCHIVE} in hexadecimal */
    private record Sealed(MemoHead head, String checksum, MemoDocument document) {}

    public static MemoPackage of(WholeMemo memo, byte[] archive) {
        Map<String, byte[]> files = new TreeMap<>();
        files.put(ARCHIVE, archive);
        files.put(
                DOCUMENT, bytes(MAPPER.writeValueAsString(new Sealed(memo.head(), memo.checksum(), memo.document()))));
        files.put("memo.html", bytes(MemoPage.of(memo)));
        files.put("memo.md", bytes(MemoMarkdown.of(memo)));
        return new MemoPackage(files);
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    public void writeZip(OutputStream out) throws IOException {
        try (ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8)) {
            for (Map.Entry<String, byte[]> file : files.entrySet()) {
                zip.putNextEntry(new ZipEntry(file.getKey()));
                zip.write(file.getValue());
                zip.closeEntry();
            }
        }
    }
}
