package org.mossbank.core.trial;

import java.util.Arrays;

/** A path below a folder that cannot lead out of it, on any system. */
public final class SafePath {
    private static final int LONGEST = 300;
    private static final String FORBIDDEN = "\\:*?\"<>|";

    private SafePath() {}

    /** Whether a path names a file below the folder: no way up, none from the root, nothing that a shell or a disk reads otherwise. */
    public static boolean is(String path) {
        return !path.isEmpty()
                && path.length() <= LONGEST
                && path.chars().noneMatch(c -> c < ' ' || c == 0x7f || FORBIDDEN.indexOf(c) >= 0)
                && Arrays.stream(path.split("/", -1)).allMatch(SafePath::isName);
    }

    private static boolean isName(String name) {
        return !name.isBlank() && !name.equals(".") && !name.equals("..") && !name.equalsIgnoreCase(".git");
    }

    /**
     * @return the path
     * @throws IllegalArgumentException if it may lead out of the folder
     */
    public static String require(String path) {
        if (!is(path)) {
            throw new IllegalArgumentException("path stays below its folder: " + path);
        }
        return path;
    }
}
