package org.mossbank.core.trial;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import org.mossbank.core.change.DeclaredTypes;
import org.mossbank.core.estimate.Require;

/**
 * Where code of an answer goes that belongs to no file: blocks that show a method, statements or a whole type.
 *
 * @param path         of the file; {@code *} in it stands for the first type that the code declares
 * @param before       what stands above code that declares no type, such as a class around a method
 * @param after        what stands below it
 * @param importsFirst whether lines that import are lifted above what stands before
 */
public record LooseCode(String path, String before, String after, boolean importsFirst) {
    /** Stands in a path for a type. */
    private static final String TYPE = "*";

    /** What a file is called if its name hangs on a type and the code declares none. */
    private static final String NO_TYPE = "Loose";

    private static final Pattern IMPORT =
            Pattern.compile("(?:import\\b|from \\S{1,300}+ import |using |use |#include|package )");

    /** @throws IllegalArgumentException if the path leads out of the folder, or has more than one place for a type */
    public LooseCode {
        SafePath.require(path.replace(TYPE, NO_TYPE));
        Require.that(path.indexOf(TYPE) == path.lastIndexOf(TYPE), "path", "has one place for a type", path);
    }

    /**
     * A file that loose code was put into.
     *
     * @param firstLine of the answer's own code, from 0, below what stands before it; lifted imports are not counted
     */
    public record Placed(String path, String text, int firstLine) {}

    /** Puts code into its file. A wrapper goes around what declares no type of its own: the rest is whole already. */
    public Placed place(String code) {
        Optional<String> type = firstType(code);
        String file = path.replace(TYPE, type.orElse(NO_TYPE));
        if (type.isPresent() || before.isEmpty() && after.isEmpty()) {
            return new Placed(file, code, 0);
        }
        List<String> lines = code.lines().toList();
        Predicate<String> isLifted = l -> importsFirst && isImport(l);
        StringBuilder text = new StringBuilder();
        lines.stream().filter(isLifted).forEach(l -> text.append(l).append('\n'));
        text.append(ended(before));
        int firstLine = (int) text.toString().lines().count();
        lines.stream().filter(isLifted.negate()).forEach(l -> text.append(l).append('\n'));
        text.append(ended(after));
        return new Placed(file, text.toString(), firstLine);
    }

    private static String ended(String text) {
        return text.isEmpty() || text.endsWith("\n") ? text : text + "\n";
    }

    private static boolean isImport(String line) {
        return IMPORT.matcher(line).lookingAt();
    }

    /** The public one, after which its file must be called, or the first. */
    private static Optional<String> firstType(String code) {
        List<DeclaredTypes.Declared> types = DeclaredTypes.in(code);
        return types.stream()
                .filter(DeclaredTypes.Declared::isPublic)
                .findFirst()
                .or(() -> types.stream().findFirst())
                .map(DeclaredTypes.Declared::name);
    }

    /** Endings of files that a block may name itself by. */
    Set<String> endings() {
        int dot = path.lastIndexOf('.');
        return dot < 0 ? Set.of() : Set.of(path.substring(dot));
    }
}
