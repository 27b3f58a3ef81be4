package org.mossbank.core.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.mossbank.core.markdown.FencedBlock;

/** The code that an answer ends in: files of the starting code with its changes in them, new files, and blocks of code. */
public final class AnswerCode {
    private static final Set<String> NOT_CODE = Set.of("text", "txt", "console", "output", "log", "plaintext");

    private AnswerCode() {}

    /**
     * The files that an answer changes, adds or removes, then its other blocks of code, in the order of the answer.
     *
     * @param startingCode text by path
     * @param answer       Markdown
     */
    public static List<CodeFile> of(Map<String, String> startingCode, String answer) {
        List<CodeFile> files = new ArrayList<>();
        for (FileChange change : AnswerChanges.of(startingCode, answer)) {
            applied(startingCode, change).ifPresent(files::add);
        }
        AnswerChanges reader = AnswerChanges.reader(startingCode);
        int number = 0;
        for (FencedBlock block : FencedBlock.in(answer)) {
            boolean isDiff = AnswerChanges.isDiff(block);
            boolean isOther =
                    NOT_CODE.contains(block.language()) || block.content().isBlank();
            if (!isDiff && !isOther && reader.reprinted(block).isEmpty()) {
                number++;
                String name = "Block " + number + (block.language().isEmpty() ? "" : ", " + block.language());
                files.add(new CodeFile(name, CodeFile.Sort.BLOCK, block.content(), ""));
            }
        }
        return files;
    }

    /** The file with the change in it; empty if the change does not fit. */
    static Optional<CodeFile> applied(Map<String, String> startingCode, FileChange change) {
        if (AnswerChanges.misfit(startingCode, change).isPresent()) {
            return Optional.empty();
        }
        String before = startingCode.getOrDefault(change.from(), "");
        if (change.sort() == FileChange.Sort.REMOVED) {
            return Optional.of(new CodeFile(change.path(), CodeFile.Sort.REMOVED, "", before));
        }
        List<String> old = before.lines().toList();
        StringBuilder text = new StringBuilder();
        int next = 0;
        for (Hunk hunk : change.hunks()) {
            // A hunk that only adds names the line it comes after.
            int from = Math.min(old.size(), hunk.linesBefore().isEmpty() ? hunk.before() : hunk.before() - 1);
            old.subList(next, Math.max(next, from)).forEach(l -> text.append(l).append('\n'));
            hunk.lines().stream()
                    .filter(l -> l.kind() != ChangedLine.Kind.REMOVED)
                    .forEach(l -> text.append(l.text()).append('\n'));
            next = Math.max(next, from) + hunk.linesBefore().size();
        }
        old.subList(next, old.size()).forEach(l -> text.append(l).append('\n'));
        boolean isNew = change.sort() == FileChange.Sort.ADDED;
        return Optional.of(new CodeFile(
                change.path(), isNew ? CodeFile.Sort.ADDED : CodeFile.Sort.CHANGED, text.toString(), before));
    }

    /**
     * The differences between what two answers end in. Files are compared by path, blocks by their order; what both have
     * alike is left out.
     */
    public static List<FileChange> between(List<CodeFile> first, List<CodeFile> second) {
        Map<String, String> firstByName = byName(first, second);
        Map<String, String> secondByName = byName(second, first);
        List<FileChange> changes = new ArrayList<>();
        Map<String, String> all = new LinkedHashMap<>(firstByName);
        secondByName.forEach(all::putIfAbsent);
        for (String name : all.keySet()) {
            AnswerChanges.between(name, firstByName.getOrDefault(name, ""), secondByName.getOrDefault(name, ""))
                    .map(c -> new FileChange(
                            name,
                            name,
                            !firstByName.containsKey(name)
                                    ? FileChange.Sort.ADDED
                                    : secondByName.containsKey(name)
                                            ? FileChange.Sort.CHANGED
                                            : FileChange.Sort.REMOVED,
                            c.hunks()))
                    .ifPresent(changes::add);
        }
        return LineNatures.told(changes);
    }

    /** Texts by name; blocks by number, whatever their language; a file that only the other changes as it started. */
    private static Map<String, String> byName(List<CodeFile> own, List<CodeFile> other) {
        Map<String, String> texts = new LinkedHashMap<>();
        int number = 0;
        for (CodeFile file : own) {
            if (file.sort() == CodeFile.Sort.BLOCK) {
                number++;
                texts.put("Block " + number, file.text());
            } else if (file.sort() != CodeFile.Sort.REMOVED) {
                texts.put(file.path(), file.text());
            }
        }
        Map<String, CodeFile> ownByPath = new HashMap<>();
        own.forEach(f -> ownByPath.put(f.path(), f));
        other.stream()
                .filter(f -> f.sort() == CodeFile.Sort.CHANGED || f.sort() == CodeFile.Sort.REMOVED)
                .filter(f -> !ownByPath.containsKey(f.path()))
                .forEach(f -> texts.put(f.path(), f.before()));
        return texts;
    }
}
