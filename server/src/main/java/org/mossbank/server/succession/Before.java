package org.mossbank.server.succession;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The study before, as it stood when the next one was begun from it: enough to compare with, wherever this one is brought.
 *
 * @param title      of that study
 * @param endedAt    when its grading ended
 * @param candidates with where they stood
 * @param parts      what it was made of
 * @param grades     what raters gave the answers that are graded again
 */
public record Before(String title, Instant endedAt, List<Stood> candidates, List<Part> parts, List<Given> grades) {
    public Before {
        candidates = List.copyOf(candidates);
        parts = List.copyOf(parts);
        grades = List.copyOf(grades);
    }

    /** The same, made of parts that are named otherwise. */
    Before named(List<Part> others) {
        return new Before(title, endedAt, candidates, others, grades);
    }

    /**
     * Where a candidate stood.
     *
     * @param candidate key, the same in this study where it takes part again
     * @param settings  in one line
     * @param adjusted  score of 100; absent where it had none
     */
    public record Stood(
            String candidate,
            String name,
            String version,
            String settings,
            @Nullable Double adjusted,
            @Nullable Double low,
            @Nullable Double high) {}

    /** What a part is. */
    public enum Sort {
        PROMPT,
        CRITERION,
        RATER
    }

    /**
     * Something the study was made of.
     *
     * @param key    of the prompt or criterion, or the rater's name to sign in
     * @param weight of a criterion; absent for the others
     */
    public record Part(
            Sort sort, String key, String name, @Nullable Double weight) {}

    /**
     * What raters gave an answer on a criterion then.
     *
     * @param answer key, the same in both studies
     * @param level  mean over raters, from 0
     */
    public record Given(String answer, String criterion, double level, int highestLevel, int raters) {}
}
