package org.mossbank.server.masking;

import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.masking.GiveAway;
import org.mossbank.core.masking.Span;
import org.mossbank.server.answer.AnswerView;

/**
 * What gives candidates away in a study's answers, for the lead.
 *
 * @param words     the words that the lead lists
 * @param version   of the words; sent back with the next writing
 * @param undecided stretches that nobody has decided on
 * @param answers   answers in which there is anything
 */
record MaskingView(List<String> words, long version, int undecided, List<AnswerInMasking> answers) {

    record AnswerInMasking(UUID answerId, UUID promptId, UUID candidateId, int attempt, List<StretchView> stretches) {
        static AnswerInMasking of(Stretches.AnswerStretches found) {
            AnswerView answer = found.answer();
            return new AnswerInMasking(
                    answer.id(),
                    answer.promptId(),
                    answer.candidateId(),
                    answer.attempt(),
                    found.stretches().stream()
                            .map(s -> StretchView.of(answer.wholeText(), s))
                            .toList());
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

        static StretchView of(String text, Stretches.Stretch stretch) {
            Span span = stretch.span();
            int lineStart = text.lastIndexOf('\n', span.from() - 1) + 1;
            int newline = text.indexOf('\n', span.to());
            int lineEnd = newline < 0 ? text.length() : newline;
            return new StretchView(
                    span.from(),
                    span.to(),
                    1
                            + (int) text.substring(0, span.from())
                                    .chars()
                                    .filter(c -> c == '\n')
                                    .count(),
                    text.substring(Math.max(lineStart, span.from() - AROUND), span.from()),
                    span.of(text),
                    text.substring(span.to(), Math.min(lineEnd, span.to() + AROUND)),
                    stretch.sort(),
                    stretch.replacement(),
                    stretch.accepted());
        }
    }
}
