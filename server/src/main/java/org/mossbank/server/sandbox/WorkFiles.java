package org.mossbank.server.sandbox;

import java.nio.charset.StandardCharsets;
import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import org.mossbank.core.trial.SafePath;

/** The files of a work folder, by path below it. What comes out of a sandbox holds plain files alone: no links, no devices. */
public final class WorkFiles {
    private static final WorkFiles NONE = new WorkFiles(new TreeMap<>());

    private final SortedMap<String, byte[]> files;

    private WorkFiles(SortedMap<String, byte[]> files) {
        this.files = files;
    }

    public static WorkFiles none() {
        return NONE;
    }

    /**
     * @param texts by path
     * @throws IllegalArgumentException if a path leads out of the folder
     */
    public static WorkFiles of(Map<String, String> texts) {
        return NONE.with(texts);
    }

    /**
     * @param files bytes by path, which nobody changes any more
     * @throws IllegalArgumentException if a path leads out of the folder
     */
    public static WorkFiles ofBytes(Map<String, byte[]> files) {
        SortedMap<String, byte[]> all = new TreeMap<>();
        files.forEach((path, bytes) -> all.put(SafePath.require(path), bytes));
        return new WorkFiles(all);
    }

    /** Without files that are not to be there. */
    public WorkFiles without(Collection<String> paths) {
        SortedMap<String, byte[]> fewer = new TreeMap<>(files);
        paths.forEach(fewer::remove);
        return new WorkFiles(fewer);
    }

    /** Takes over what was read; the caller keeps nothing of it. */
    static WorkFiles taking(SortedMap<String, byte[]> files) {
        return new WorkFiles(files);
    }

    /** With files over those that are there. */
    public WorkFiles with(Map<String, String> texts) {
        SortedMap<String, byte[]> all = new TreeMap<>(files);
        texts.forEach((path, text) -> all.put(SafePath.require(path), text.getBytes(StandardCharsets.UTF_8)));
        return new WorkFiles(all);
    }

    /** A file as text; what is no UTF-8 in it reads as a mark in its place. */
    public Optional<String> text(String path) {
        return Optional.ofNullable(files.get(path)).map(bytes -> new String(bytes, StandardCharsets.UTF_8));
    }

    /** A file's bytes, which nobody changes. */
    public Optional<byte[]> read(String path) {
        return Optional.ofNullable(files.get(path));
    }

    public Set<String> paths() {
        return files.keySet();
    }

    /** Whether a file of both reads the same. */
    public boolean isAlike(WorkFiles other, String path) {
        return java.util.Arrays.equals(files.get(path), other.files.get(path));
    }

    SortedMap<String, byte[]> bytes() {
        return files;
    }
}
