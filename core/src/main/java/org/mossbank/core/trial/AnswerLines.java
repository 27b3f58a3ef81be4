package org.mossbank.core.trial;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import org.mossbank.core.markdown.FencedBlock;

/**
 * The lines of an answer that its code stands on, to be found again from a file that it was put into: through a wrapper, out of a
 * difference, below imports that were lifted.
 *
 * <p>Cost: linear in the answer for looking through it; for a line, the places that read alike, at most {@value #MOST_ALIKE}.
 */
public final class AnswerLines {
    private static final int MOST_ALIKE = 200;
    private static final int MOST_AROUND = 4;

    private final List<String> texts = new ArrayList<>();
    private final List<Integer> numbers = new ArrayList<>();
    private final Map<String, List<Integer>> places = new HashMap<>();

    private AnswerLines(String answer) {
        int line = 1;
        int read = 0;
        for (FencedBlock block : FencedBlock.in(answer)) {
            for (; read < block.from(); read++) {
                line += answer.charAt(read) == '\n' ? 1 : 0;
            }
            boolean isDifference =
                    block.language().equals("diff") || block.language().equals("patch");
            List<String> lines = block.content().lines().toList();
            // The fence itself is a line; a difference that is only indented has none.
            int first = line + (answer.startsWith("    ", Math.max(0, block.from())) ? 0 : 1);
            for (int i = 0; i < lines.size(); i++) {
                add(isDifference ? undiffed(lines.get(i)) : lines.get(i), first + i);
            }
        }
    }

    private void add(String text, int number) {
        String plain = text.strip();
        List<Integer> alike = places.computeIfAbsent(plain, p -> new ArrayList<>());
        if (alike.size() < MOST_ALIKE) {
            alike.add(texts.size());
        }
        texts.add(plain);
        numbers.add(number);
    }

    private static String undiffed(String line) {
        return !line.isEmpty() && "+- ".indexOf(line.charAt(0)) >= 0 ? line.substring(1) : line;
    }

    /** @param answer Markdown */
    public static AnswerLines of(String answer) {
        return new AnswerLines(answer);
    }

    /**
     * The line of the answer, from 1, that a line of a file comes from: of those that read alike the one with most alike around it.
     * Empty if none does.
     *
     * @param file lines of the file
     * @param line in it, from 1
     */
    public OptionalInt find(List<String> file, int line) {
        if (line < 1 || line > file.size() || file.get(line - 1).isBlank()) {
            return OptionalInt.empty();
        }
        int best = -1;
        int most = -1;
        for (int place : places.getOrDefault(file.get(line - 1).strip(), List.of())) {
            int around = alike(file, line - 1, place, -1) + alike(file, line - 1, place, 1);
            // Of two that are alike, the later: it is what the answer ends in.
            if (around >= most) {
                best = place;
                most = around;
            }
        }
        return best < 0 ? OptionalInt.empty() : OptionalInt.of(numbers.get(best));
    }

    private int alike(List<String> file, int line, int place, int step) {
        int count = 0;
        for (int i = 1; i <= MOST_AROUND; i++) {
            int inFile = line + step * i;
            int inAnswer = place + step * i;
            if (inFile < 0
                    || inFile >= file.size()
                    || inAnswer < 0
                    || inAnswer >= texts.size()
                    || !file.get(inFile).strip().equals(texts.get(inAnswer))) {
                break;
            }
            count++;
        }
        return count;
    }
}
