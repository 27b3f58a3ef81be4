package org.mossbank.core.change;

import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * The files that a prompt speaks of. A change elsewhere may still be right; it is shown, as changing what nobody asked for
 * is a fault that is easily overlooked in a long difference.
 *
 * @param named paths of starting files that the prompt names; empty if it names none, and then nothing lies outside
 */
public record RequestScope(Set<String> named) {
    public RequestScope {
        named = Set.copyOf(named);
    }

    /**
     * @param texts   the request, its constraints and key points
     * @param pointed paths that key points point at
     * @param paths   of the starting code
     */
    public static RequestScope of(Collection<String> texts, Collection<String> pointed, Collection<String> paths) {
        return new RequestScope(paths.stream()
                .filter(path -> pointed.contains(path) || texts.stream().anyMatch(t -> names(t, path)))
                .collect(Collectors.toSet()));
    }

    /** By its path, its name, or its name without the ending. */
    private static boolean names(String text, String path) {
        String name = path.substring(path.lastIndexOf('/') + 1);
        int dot = name.lastIndexOf('.');
        return holds(text, path) || holds(text, name) || dot > 3 && holds(text, name.substring(0, dot));
    }

    private static boolean holds(String text, String word) {
        for (int at = text.indexOf(word); at >= 0; at = text.indexOf(word, at + 1)) {
            int end = at + word.length();
            boolean begins = at == 0 || !Character.isLetterOrDigit(text.charAt(at - 1));
            boolean ends = end == text.length() || !Character.isLetterOrDigit(text.charAt(end));
            if (begins && ends) {
                return true;
            }
        }
        return false;
    }

    /** The changed files of the starting code that the prompt does not name; new files are not among them. */
    public List<String> outside(List<FileChange> changes) {
        return named.isEmpty()
                ? List.of()
                : changes.stream()
                        .filter(c -> c.sort() != FileChange.Sort.ADDED)
                        .map(FileChange::from)
                        .distinct()
                        .filter(path -> !named.contains(path))
                        .toList();
    }
}
