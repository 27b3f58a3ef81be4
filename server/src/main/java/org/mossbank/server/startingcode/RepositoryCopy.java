package org.mossbank.server.startingcode;

import java.util.Collections;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;

/** The files of a repository at a commit: those that are texts, and the bytes of all. */
public final class RepositoryCopy {
    private final String commit;
    private final SortedMap<String, byte[]> files;
    private final SortedMap<String, String> texts;

    private RepositoryCopy(String commit, SortedMap<String, byte[]> files, SortedMap<String, String> texts) {
        this.commit = commit;
        this.files = files;
        this.texts = texts;
    }

    static RepositoryCopy of(String commit, SortedMap<String, byte[]> files) {
        SortedMap<String, String> texts = new TreeMap<>();
        files.forEach((path, bytes) -> StartingCodeService.text(bytes).ifPresent(text -> texts.put(path, text)));
        return new RepositoryCopy(commit, files, texts);
    }

    /** The full id. */
    public String commit() {
        return commit;
    }

    /** By path; whoever takes them leaves them as they are. */
    public Map<String, byte[]> files() {
        return Collections.unmodifiableSortedMap(files);
    }

    /** What can be read as UTF-8, by path. */
    public Map<String, String> texts() {
        return Collections.unmodifiableSortedMap(texts);
    }

    /** In bytes, about. */
    int weight() {
        long bytes = files.entrySet().stream()
                .mapToLong(f -> f.getKey().length() + 64L + f.getValue().length)
                .sum();
        long characters = texts.values().stream().mapToLong(String::length).sum();
        return (int) Math.min(Integer.MAX_VALUE, bytes + characters);
    }
}
