package org.mossbank.core.masking;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.markdown.FencedBlock;

/**
 * Where a Markdown text is code: fenced blocks, and stretches between backticks in a line.
 *
 * <p>Cost: linear in the text; a question takes the logarithm of the number of regions.
 */
final class CodeRegions {
    /** Where each region begins and ends; none overlaps another. */
    private final TreeMap<Integer, Integer> regions = new TreeMap<>();

    private CodeRegions() {}

    static CodeRegions of(CharSequence text) {
        CodeRegions code = new CodeRegions();
        int at = 0;
        for (FencedBlock block : FencedBlock.in(text)) {
            code.inline(text, at, block.from());
            code.regions.put(block.from(), block.to());
            at = block.to();
        }
        code.inline(text, at, text.length());
        return code;
    }

    /** A run of backticks. */
    private record Run(int from, int to) {}

    /** A stretch between backticks ends on its line. */
    private void inline(CharSequence text, int from, int to) {
        List<Run> runs = new ArrayList<>();
        for (int i = from; i < to; i++) {
            char c = text.charAt(i);
            if (c == '\n' || c == '\r') {
                pair(runs);
                runs.clear();
            } else if (c == '`') {
                int begun = i;
                while (i + 1 < to && text.charAt(i + 1) == '`') {
                    i++;
                }
                runs.add(new Run(begun, i + 1));
            }
        }
        pair(runs);
    }

    /** As CommonMark has it: a run opens code if one of the same length follows, and the next such closes it. */
    private void pair(List<Run> runs) {
        Map<Integer, Deque<Run>> byLength = new HashMap<>();
        runs.forEach(r ->
                byLength.computeIfAbsent(r.to - r.from, n -> new ArrayDeque<>()).add(r));
        int closed = 0;
        for (Run run : runs) {
            Deque<Run> alike = Require.known(byLength, run.to - run.from);
            while (!alike.isEmpty() && alike.peek().from <= Math.max(run.from, closed - 1)) {
                alike.poll();
            }
            if (run.from >= closed && !alike.isEmpty()) {
                closed = alike.poll().to;
                regions.put(run.from, closed);
            }
        }
    }

    boolean hold(Span span) {
        Map.Entry<Integer, Integer> region = regions.floorEntry(span.from());
        return region != null && span.to() <= region.getValue();
    }
}
