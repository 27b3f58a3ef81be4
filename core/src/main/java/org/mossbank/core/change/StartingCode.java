package org.mossbank.core.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import org.mossbank.core.estimate.Require;

/** The starting code of a prompt, looked through once for all that an answer's blocks are compared with. */
final class StartingCode {
    /** A line that stands for lines left out: dots alone, or a comment that begins with them. Dots before code spread it. */
    private static final Pattern LEFT_OUT = Pattern.compile(
            "(?m)^[ \\t]*+(?:(?://|#|--|\\{?/\\*|<!--)[ \\t]*+(?:\\.\\.\\.|…)|(?:\\.\\.\\.|…)[ \\t]*+$)");

    /** A line of a file's head, which says where it belongs and what it uses. */
    private static final Pattern HEAD = Pattern.compile(
            "(?:package |import |from \\S{1,300}+ import |using |use |#include|namespace [^;]*+;|require\\b|require_relative\\b)");

    private final Map<String, Start> files = new LinkedHashMap<>();
    private final Map<String, List<String>> pathsByLine = new HashMap<>();
    private final Map<String, List<String>> pathsByType = new HashMap<>();

    /** The first path that ends in a name, whole folders at a time. */
    private final Map<String, String> pathByEnding = new HashMap<>();

    /** What is known of one file. */
    private record Start(String text, List<String> lines, Set<String> solid, Set<String> types, boolean leavesOut) {}

    /** @param texts by path */
    StartingCode(Map<String, String> texts) {
        texts.forEach((path, text) -> {
            Start file = new Start(text, text.lines().toList(), solid(text), types(text), leavesOut(text));
            files.put(path, file);
            file.solid.forEach(line ->
                    pathsByLine.computeIfAbsent(line, l -> new ArrayList<>()).add(path));
            String name = path.substring(path.lastIndexOf('/') + 1);
            int dot = name.lastIndexOf('.');
            String type = dot < 0 ? name : name.substring(0, dot);
            if (file.types.contains(type)) {
                pathsByType.computeIfAbsent(type, t -> new ArrayList<>()).add(path);
            }
            pathByEnding.putIfAbsent(path, path);
            for (int slash = path.indexOf('/'); slash >= 0; slash = path.indexOf('/', slash + 1)) {
                pathByEnding.putIfAbsent(path.substring(slash + 1), path);
            }
        });
    }

    boolean has(String path) {
        return files.containsKey(path);
    }

    /** A file as it is; empty if it is not there. */
    String text(String path) {
        return has(path) ? Require.known(files, path).text : "";
    }

    /** A file's lines; the path must be there. */
    List<String> lines(String path) {
        return Require.known(files, path).lines;
    }

    /** The file that is called so, by its path or an end of it. */
    Optional<String> called(String name) {
        return Optional.ofNullable(pathByEnding.get(name));
    }

    /**
     * The file that a block of code is most like, or the named one if it is like that.
     *
     * @param leastShare of the file's lines that the block must hold, unless it declares all its types anew
     */
    Optional<String> likest(String code, Optional<String> named, double leastShare, ComparisonBudget budget) {
        Set<String> lines = solid(code);
        Set<String> types = types(code);
        boolean leavesOut = leavesOut(code);
        Map<String, Integer> held = new HashMap<>();
        for (String line : lines) {
            List<String> in = pathsByLine.getOrDefault(line, List.of());
            budget.spend(1L + in.size());
            in.forEach(path -> held.merge(path, 1, Integer::sum));
        }
        Set<String> possible = new LinkedHashSet<>(held.keySet());
        types.forEach(type -> possible.addAll(pathsByType.getOrDefault(type, List.of())));
        budget.spend(possible.size());
        String best = null;
        double most = -1;
        for (String path : files.keySet()) {
            if (!possible.contains(path) || named.isPresent() && !named.get().equals(path)) {
                continue;
            }
            Start file = files.get(path);
            double share = file.solid.isEmpty() ? 0 : held.getOrDefault(path, 0) / (double) file.solid.size();
            boolean isIt = share >= leastShare || declaresAnew(path, types);
            if (isIt && share > most && (!leavesOut || file.leavesOut)) {
                best = path;
                most = share;
            }
        }
        return Optional.ofNullable(best);
    }

    /** Whether types are those of a file whose name one of them has: then it is the file, however much of it is new. */
    private boolean declaresAnew(String path, Set<String> types) {
        String name = path.substring(path.lastIndexOf('/') + 1);
        int dot = name.lastIndexOf('.');
        Set<String> ofFile = Require.known(files, path).types;
        return ofFile.contains(dot < 0 ? name : name.substring(0, dot)) && types.containsAll(ofFile);
    }

    /** Code that says nothing of a file's head leaves it as it is: few answers print again what stays above the first type. */
    List<String> withHead(String path, List<String> code) {
        if (code.stream().anyMatch(StartingCode::isHead)) {
            return code;
        }
        List<String> whole = new ArrayList<>();
        boolean says = false;
        for (String line : lines(path)) {
            if (!isHead(line) && !line.isBlank()) {
                break;
            }
            says |= isHead(line);
            whole.add(line);
        }
        whole.addAll(code);
        return says ? whole : code;
    }

    private static boolean isHead(String line) {
        return HEAD.matcher(line).lookingAt();
    }

    static boolean leavesOut(CharSequence text) {
        return LEFT_OUT.matcher(text).find();
    }

    static Set<String> types(CharSequence text) {
        Set<String> names = new HashSet<>();
        DeclaredTypes.in(text).forEach(t -> names.add(t.name()));
        return names;
    }

    private static Set<String> solid(String text) {
        Set<String> solid = new HashSet<>();
        text.lines().map(String::strip).filter(l -> !l.isEmpty()).forEach(solid::add);
        return solid;
    }
}
