package org.mossbank.commands.recompute;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What a signed memo is handed out as: the memo, and the archive that it rests on. */
final class SignedMemo {
    private static final String MEMO = "memo.json";
    private static final String ARCHIVE = "study.zip";

    private final JsonNode memo;
    private final String checksum;
    private final Map<String, byte[]> archive;

    private SignedMemo(JsonNode memo, String checksum, Map<String, byte[]> archive) {
        this.memo = memo;
        this.checksum = checksum;
        this.archive = archive;
    }

    /** @throws IOException if it cannot be read, or is no such package */
    static SignedMemo from(Path zip) throws IOException {
        Map<String, byte[]> files;
        try (InputStream in = Files.newInputStream(zip)) {
            files = unzipped(in);
        }
        byte[] study = files.get(ARCHIVE);
        byte[] text = files.get(MEMO);
        if (study == null || text == null) {
            throw new IOException("no signed memo: a package holds " + MEMO + " and " + ARCHIVE);
        }
        return new SignedMemo(
                JsonMapper.shared().readTree(text), sha256(study), unzipped(new ByteArrayInputStream(study)));
    }

    private static Map<String, byte[]> unzipped(InputStream in) throws IOException {
        Map<String, byte[]> files = new TreeMap<>();
        try (ZipInputStream zip = new ZipInputStream(in, StandardCharsets.UTF_8)) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                files.put(entry.getName(), zip.readAllBytes());
            }
        }
        return files;
    }

    private static String sha256(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java runtime has SHA-256", e);
        }
    }

    /** The checksum that the memo names. */
    String namedChecksum() {
        return memo.path("checksum").asString("");
    }

    /** The checksum of the archive as it is here. */
    String checksum() {
        return checksum;
    }

    /** The memo's figures by name, in its order. */
    JsonNode figures() {
        return memo.at("/document/figures");
    }

    JsonNode study() throws IOException {
        byte[] text = archive.get("study.json");
        if (text == null) {
            throw new IOException("the archive has no study.json");
        }
        return JsonMapper.shared().readTree(text);
    }

    /** A table of the archive; none if it is not there. */
    List<CSVRecord> table(String name) throws IOException {
        byte[] text = archive.get(name + ".csv");
        if (text == null) {
            return List.of();
        }
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .get();
        try (CSVParser parser = CSVParser.parse(new StringReader(new String(text, StandardCharsets.UTF_8)), format)) {
            return parser.getRecords();
        }
    }

    /** A text of the archive by its path; empty where there is none. */
    String text(String path) {
        byte[] text = archive.get(path);
        return text == null ? "" : new String(text, StandardCharsets.UTF_8);
    }

    /** A cell; empty where the table has no such column. */
    static String cell(CSVRecord row, String column) {
        return row.isMapped(column) ? row.get(column) : "";
    }
}
