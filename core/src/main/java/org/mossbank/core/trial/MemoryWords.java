package org.mossbank.core.trial;

import java.util.List;

/** How programs say that they had too little memory, where no kernel says so for them. */
final class MemoryWords {
    private static final List<String> WORDS = List.of(
            "java.lang.OutOfMemoryError",
            "insufficient memory for the Java Runtime",
            "Could not reserve enough space",
            "heap out of memory",
            "Out of Memory",
            "std::bad_alloc",
            "MemoryError",
            "Out of memory!",
            "out of memory allocating",
            "Cannot allocate memory");

    private MemoryWords() {}

    static boolean in(String errors) {
        return WORDS.stream().anyMatch(errors::contains);
    }
}
