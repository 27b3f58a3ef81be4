package org.mossbank.server.archive;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.files.Faults;
import org.mossbank.server.files.TextFile;
import org.mossbank.server.files.ZipFiles;

/** The files of an archive, in memory, by path. Nothing of it is ever written to disk under its own name. */
final class ArchiveFiles {
    static final String PACKAGE = "datapackage.json";

    private static final ZipFiles.Bounds BOUNDS = new ZipFiles.Bounds(192L << 20, 50_000);
    private static final LocalDateTime FIXED_TIME = LocalDateTime.of(2000, 1, 1, 0, 0);

    private final Map<String, byte[]> files;

    private ArchiveFiles(Map<String, byte[]> files) {
        this.files = files;
    }

    static ArchiveFiles of(Map<String, byte[]> files) {
        return new ArchiveFiles(new TreeMap<>(files));
    }

    /**
     * Reads a zip. A single folder around everything is taken off.
     *
     * @throws ZipFiles.Unreadable if it is no zip, or larger than archives may be when unpacked
     */
    static ArchiveFiles fromZip(InputStream in) throws IOException, ZipFiles.Unreadable {
        return new ArchiveFiles(withoutCommonFolder(ZipFiles.read(in, BOUNDS)));
    }

    private static Map<String, byte[]> withoutCommonFolder(Map<String, byte[]> files) {
        if (files.containsKey(PACKAGE)) {
            return files;
        }
        Optional<String> folder = files.keySet().stream()
                .filter(name -> name.endsWith("/" + PACKAGE))
                .map(name -> name.substring(0, name.length() - PACKAGE.length()))
                .filter(prefix -> prefix.indexOf('/') == prefix.length() - 1)
                .findFirst();
        Map<String, byte[]> inner = new TreeMap<>();
        folder.ifPresent(prefix -> files.forEach((name, content) -> {
            if (name.startsWith(prefix)) {
                inner.put(name.substring(prefix.length()), content);
            }
        }));
        return folder.isPresent() ? inner : files;
    }

    /** Reads an unzipped archive. */
    static ArchiveFiles fromFolder(Path folder) throws IOException {
        Map<String, byte[]> files = new TreeMap<>();
        try (Stream<Path> paths = Files.walk(folder)) {
            for (Path path : paths.filter(Files::isRegularFile).toList()) {
                String name = folder.relativize(path).toString().replace('\\', '/');
                files.put(name, Files.readAllBytes(path));
            }
        }
        return new ArchiveFiles(files);
    }

    /** Writes a zip that has the same bytes for the same files. */
    void writeZip(OutputStream out) throws IOException {
        try (ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8)) {
            for (Map.Entry<String, byte[]> file : files.entrySet()) {
                ZipEntry entry = new ZipEntry(file.getKey());
                entry.setTimeLocal(FIXED_TIME);
                zip.putNextEntry(entry);
                zip.write(file.getValue());
                zip.closeEntry();
            }
        }
    }

    /** Bytes of a file; 0 if it is not there. */
    long size(@Nullable String path) {
        byte[] content = path == null ? null : files.get(path);
        return content == null ? 0 : content.length;
    }

    boolean has(String path) {
        return files.containsKey(path);
    }

    Map<String, byte[]> all() {
        return files;
    }

    Optional<String> text(String path, Faults faults) {
        return TextFile.read(path, Require.known(files, path), faults);
    }
}
