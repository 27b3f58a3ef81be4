package org.mossbank.server.masking;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.masking.GiveAway;
import org.mossbank.core.masking.Span;
import org.mossbank.server.answer.FactsOfAnswers;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;

/**
 * What gives candidates away in a study's answers, for the lead.
 *
 * @param words     the words that the lead lists
 * @param version   of the words; sent back with the next writing
 * @param undecided stretches that nobody has decided on
 * @param answers   answers in which there is anything
 */
record MaskingView(List<String> words, long version, int undecided, List<AnswerInMasking> answers) {

    private static final int MOST_OF_AN_ANSWER = 200;
    private static final int MOST_IN_ALL = 2_000;

    /** The answers, with as many stretches as are shown at once. */
    static List<AnswerInMasking> shown(List<Stretches.AnswerStretches> found) {
        Set<Stretches.Stretch> shown = Collections.newSetFromMap(new IdentityHashMap<>());
        Map<Stretches.AnswerStretches, Integer> taken = new IdentityHashMap<>();
        for (boolean decided : List.of(false, true)) {
            for (Stretches.AnswerStretches answer : found) {
                int before = shown.size();
                int room = Math.min(MOST_OF_AN_ANSWER - taken.getOrDefault(answer, 0), MOST_IN_ALL - before);
                answer.stretches().stream()
                        .filter(s -> (s.accepted() != null) == decided)
                        .limit(room)
                        .forEach(shown::add);
                taken.merge(answer, shown.size() - before, Integer::sum);
            }
        }
        return found.stream().map(a -> AnswerInMasking.of(a, shown)).toList();
    }

    /**
     * An answer in which there is anything.
     *
     * @param stretches those to decide on before those that are decided, in the order of the text; no more than
     *                  anybody looks through at once, of this answer and of all
     * @param more      how many more there are
     * @param complete  whether the text was searched to its end
     */
    record AnswerInMasking(
            AnswerId answerId,
            PromptId promptId,
            CandidateId candidateId,
            int attempt,
            List<StretchView> stretches,
            int more,
            boolean complete) {
        private static AnswerInMasking of(Stretches.AnswerStretches found, Set<Stretches.Stretch> shown) {
            FactsOfAnswers.Whole answer = found.answer();
            List<Stretches.Stretch> own = found.stretches().stream()
                    .filter(shown::contains)
                    .sorted(Comparator.comparingInt(s -> s.span().from()))
                    .toList();
            return new AnswerInMasking(
                    answer.id(),
                    answer.promptId(),
                    answer.candidateId(),
                    answer.attempt(),
                    inLines(answer.text(), own),
                    found.stretches().size() - own.size(),
                    found.complete());
        }

        /** Counts lines once from the first stretch to the last. */
        private static List<StretchView> inLines(String text, List<Stretches.Stretch> inOrder) {
            List<StretchView> views = new ArrayList<>();
            int line = 1;
            int at = 0;
            for (Stretches.Stretch stretch : inOrder) {
                for (; at < stretch.span().from(); at++) {
                    line += text.charAt(at) == '\n' ? 1 : 0;
                }
                views.add(StretchView.of(text, stretch, line));
            }
            return views;
        }
    }

    /**
     * A stretch in its line.
     *
     * @param from     first character in the answer's text, from 0
     * @param to       after the last character
     * @param before   what stands before it in its line
     * @param after    what stands after it in its line
     * @param accepted whether raters read the replacement; absent while nobody decided
     */
    record StretchView(
            int from,
            int to,
            int line,
            String before,
            String found,
            String after,
            GiveAway.Sort sort,
            String replacement,
            @Nullable Boolean accepted) {
        /** Of a long line no more than this stands on either side. */
        private static final int AROUND = 120;

        static StretchView of(String text, Stretches.Stretch stretch, int line) {
            Span span = stretch.span();
            String above = text.substring(Math.max(0, span.from() - AROUND), span.from());
            String below = text.substring(span.to(), Math.min(text.length(), span.to() + AROUND));
            int newline = below.indexOf('\n');
            return new StretchView(
                    span.from(),
                    span.to(),
                    line,
                    above.substring(above.lastIndexOf('\n') + 1),
                    span.of(text),
                    newline < 0 ? below : below.substring(0, newline),
                    stretch.sort(),
                    stretch.replacement(),
                    stretch.accepted());
        }
    }
}
