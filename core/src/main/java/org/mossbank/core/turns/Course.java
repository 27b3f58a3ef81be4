package org.mossbank.core.turns;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * An answer from its first reply to its last.
 *
 * @param verdicts one a reply, the first reply's first; empty where nobody said
 */
public record Course(List<Optional<TurnVerdict>> verdicts) {
    /** What a follow-up made of an answer. */
    public enum Step {
        MENDED,
        BROKE,
        /** It did not before, and does not after. */
        STUCK,
        /** It did before, and does after. */
        HELD
    }

    public Course {
        verdicts = List.copyOf(verdicts);
    }

    /**
     * After how many follow-ups it first does what was asked; 0 for the first reply. Empty where no reply is known to, and where one
     * before that is not known not to: it may have done so earlier.
     */
    public OptionalInt followUpsToWork() {
        for (int i = 0; i < verdicts.size(); i++) {
            Optional<TurnVerdict> verdict = verdicts.get(i);
            if (verdict.isEmpty()) {
                return OptionalInt.empty();
            }
            if (verdict.get().does()) {
                return OptionalInt.of(i);
            }
        }
        return OptionalInt.empty();
    }

    /** What is said of the last reply; empty where nobody said. */
    public Optional<TurnVerdict> last() {
        return verdicts.isEmpty() ? Optional.empty() : verdicts.get(verdicts.size() - 1);
    }

    /** Whether every reply is known not to do what was asked. */
    public boolean isWithoutSuccess() {
        return !verdicts.isEmpty()
                && verdicts.stream().allMatch(v -> v.filter(t -> !t.does()).isPresent());
    }

    /** One a follow-up, in order, of those whose reply and the one before are both known. */
    public List<Step> steps() {
        List<Step> steps = new ArrayList<>();
        for (int i = 1; i < verdicts.size(); i++) {
            Optional<TurnVerdict> before = verdicts.get(i - 1);
            Optional<TurnVerdict> after = verdicts.get(i);
            if (before.isPresent() && after.isPresent()) {
                steps.add(step(before.get().does(), after.get().does()));
            }
        }
        return steps;
    }

    private static Step step(boolean before, boolean after) {
        if (before) {
            return after ? Step.HELD : Step.BROKE;
        }
        return after ? Step.MENDED : Step.STUCK;
    }
}
