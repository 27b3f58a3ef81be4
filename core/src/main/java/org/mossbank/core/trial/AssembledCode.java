package org.mossbank.core.trial;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import org.mossbank.core.change.AnswerCode;
import org.mossbank.core.change.CodeFile;

/**
 * The files that an answer's code is tried as: the starting code with the answer's changes in it, its loose code where the check has
 * it go, and over all that the files of the check, which no answer can replace.
 *
 * @param files   text by path; empty if nothing could be put together
 * @param misfit  why nothing could be; empty if it could
 * @param written paths that the answer wrote or changed
 */
public record AssembledCode(SortedMap<String, String> files, Optional<String> misfit, List<String> written) {
    public AssembledCode {
        files = java.util.Collections.unmodifiableSortedMap(new TreeMap<>(files));
        written = List.copyOf(written);
    }

    /**
     * Puts an answer's code together. Its loose blocks are joined in their order, as one continues another, but for those that name
     * a file of their own in their first line.
     *
     * @param startingCode text by path
     * @param code         of the answer, compared with that starting code
     * @param loose        where loose code goes; empty if the check has no place for it
     * @param languages    of blocks that are meant for the check; where none names one of these, those that name none are
     * @param extra        files of the check, text by path
     */
    public static AssembledCode of(
            Map<String, String> startingCode,
            AnswerCode code,
            Optional<LooseCode> loose,
            Set<String> languages,
            Map<String, String> extra) {
        Optional<String> misfit = code.changes().stream()
                .flatMap(c -> c.misfit().stream())
                .findFirst()
                .or(() -> code.limits().stream().findFirst());
        if (misfit.isPresent()) {
            return unfit(misfit.get());
        }
        Map<String, String> written = new LinkedHashMap<>();
        List<String> removed = new ArrayList<>();
        for (CodeFile file : code.files()) {
            switch (file.sort()) {
                case CHANGED, ADDED -> written.put(file.path(), file.text());
                case REMOVED -> removed.add(file.path());
                case BLOCK -> {
                    // Below, together.
                }
            }
        }
        loose.ifPresent(rule -> written.putAll(looseFiles(meant(code, languages), rule)));
        Optional<String> outside =
                written.keySet().stream().filter(p -> !SafePath.is(p)).findFirst();
        if (outside.isPresent()) {
            return unfit(outside.get() + " leads out of the folder");
        }
        if (written.isEmpty() && removed.isEmpty()) {
            return unfit("there is no code in it that the check has a place for");
        }
        SortedMap<String, String> files = new TreeMap<>(startingCode);
        removed.forEach(files::remove);
        files.putAll(written);
        files.putAll(extra);
        return new AssembledCode(files, Optional.empty(), List.copyOf(written.keySet()));
    }

    /** Files as they are, without an answer: the starting code, or a person's own. */
    public static AssembledCode of(Map<String, String> files, Map<String, String> extra) {
        SortedMap<String, String> all = new TreeMap<>(files);
        all.putAll(extra);
        return new AssembledCode(all, Optional.empty(), List.of());
    }

    /** The same with files of it as a person changed them. */
    public AssembledCode repaired(Map<String, String> changed) {
        SortedMap<String, String> all = new TreeMap<>(files);
        all.putAll(changed);
        return new AssembledCode(all, misfit, written);
    }

    private static AssembledCode unfit(String why) {
        return new AssembledCode(new TreeMap<>(), Optional.of(why), List.of());
    }

    /** How to start a program, or what it prints, stands in blocks too: of another language, they are not its code. */
    private static List<CodeFile> meant(AnswerCode code, Set<String> languages) {
        List<CodeFile> blocks = code.files().stream()
                .filter(f -> f.sort() == CodeFile.Sort.BLOCK)
                .toList();
        List<CodeFile> named = blocks.stream()
                // Not made small first: some letters grow by it, which takes the square of a word's length.
                .filter(b -> languages.stream().anyMatch(b.language()::equalsIgnoreCase))
                .toList();
        return named.isEmpty()
                ? blocks.stream().filter(b -> b.language().isEmpty()).toList()
                : named;
    }

    private static Map<String, String> looseFiles(List<CodeFile> blocks, LooseCode rule) {
        Map<String, String> files = new LinkedHashMap<>();
        StringBuilder joined = new StringBuilder();
        for (CodeFile block : blocks) {
            Optional<String> named = NamedFile.of(block.text(), rule.endings());
            if (named.isPresent()) {
                files.put(named.get(), block.text());
            } else {
                joined.append(block.text()).append(block.text().endsWith("\n") ? "" : "\n");
            }
        }
        if (!joined.isEmpty()) {
            LooseCode.Placed placed = rule.place(joined.toString());
            files.put(placed.path(), placed.text());
        }
        return files;
    }
}
