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
import java.util.zip.ZipException;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import org.mossbank.server.files.Faults;
import org.mossbank.server.files.TextFile;

/** The files of an archive, in memory, by path. Nothing of it is ever written to disk under its own name. */
final class ArchiveFiles {
    static final String PACKAGE = "datapackage.json";

    private static final long MOST_BYTES = 256L << 20;
    private static final int MOST_FILES = 50_000;
    private static final LocalDateTime FIXED_TIME = LocalDateTime.of(2000, 1, 1, 0, 0);

    private final Map<String, byte[]> files;

    private ArchiveFiles(Map<String, byte[]> files) {
        this.files = files;
    }

    /** Signals an archive that cannot even be opened, or would grow beyond all measure. */
    static final class Unreadable extends Exception {
        Unreadable(String message) {
            super(message);
        }
    }

    static ArchiveFiles of(Map<String, byte[]> files) {
        return new ArchiveFiles(new TreeMap<>(files));
    }

    /**
     * Reads a zip. A single folder around everything is taken off.
     *
     * @throws Unreadable if it is no zip, or larger than 256 MB or 50,000 files when unpacked
     */
    static ArchiveFiles fromZip(InputStream in) throws IOException, Unreadable {
        Map<String, byte[]> files = new TreeMap<>();
        long left = MOST_BYTES;
        boolean any = false;
        try (ZipInputStream zip = new ZipInputStream(in, StandardCharsets.UTF_8)) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                any = true;
                if (entry.isDirectory()) {
                    continue;
                }
                byte[] content = zip.readNBytes((int) Math.min(left + 1, Integer.MAX_VALUE - 8));
                left -= content.length;
                if (left < 0 || files.size() >= MOST_FILES) {
                    throw new Unreadable("must unpack to at most 256 MB in at most 50,000 files");
                }
                files.put(entry.getName(), content);
            }
        } catch (ZipException | IllegalArgumentException e) {
            throw new Unreadable("must be a zip file with names in UTF-8");
        }
        if (!any) {
            throw new Unreadable("must be a zip file with files in it");
        }
        return new ArchiveFiles(withoutCommonFolder(files));
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

    boolean has(String path) {
        return files.containsKey(path);
    }

    Map<String, byte[]> all() {
        return files;
    }

    Optional<String> text(String path, Faults faults) {
        return TextFile.read(path, files.get(path), faults);
    }
}
