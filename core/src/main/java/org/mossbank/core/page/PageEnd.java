package org.mossbank.core.page;

import java.util.ArrayList;
import java.util.List;
import org.mossbank.core.trial.CheckItem;
import org.mossbank.core.trial.TrialOutcome;

/**
 * What came of a page at one size.
 *
 * @param steps that were come to, in their order; after one that could not be done none follows
 */
public record PageEnd(int width, int height, List<StepEnd> steps) {
    public PageEnd {
        steps = List.copyOf(steps);
    }

    /**
     * @param fault  why it could not be done; empty if it was
     * @param sights whether each was as it must be; fewer if a fault came before
     * @param focus  what keys go to afterwards, in words
     * @param errors that the page said
     */
    public record StepEnd(String fault, List<Boolean> sights, String focus, List<String> errors) {
        public StepEnd {
            sights = List.copyOf(sights);
            errors = List.copyOf(errors);
        }
    }

    /**
     * One item a step.
     *
     * @param asked         what was to be done and seen
     * @param errorsAllowed whether errors that a page says do not matter
     */
    public List<CheckItem> judge(List<PageStep> asked, boolean errorsAllowed) {
        List<CheckItem> items = new ArrayList<>();
        for (int i = 0; i < asked.size(); i++) {
            String name = "%d × %d, step %d: %s"
                    .formatted(width, height, i + 1, asked.get(i).words());
            items.add(
                    i < steps.size()
                            ? judged(name, asked.get(i), steps.get(i), errorsAllowed)
                            : CheckItem.ended(
                                    CheckItem.Sort.PAGE, name, TrialOutcome.WRONG_OUTPUT, "it was not come to"));
        }
        return items;
    }

    private static CheckItem judged(String name, PageStep asked, StepEnd end, boolean errorsAllowed) {
        if (!end.fault.isEmpty()) {
            return CheckItem.ended(CheckItem.Sort.PAGE, name, TrialOutcome.WRONG_OUTPUT, end.fault);
        }
        List<String> wrong = new ArrayList<>();
        for (int i = 0; i < asked.sights().size(); i++) {
            PageSight sight = asked.sights().get(i);
            if (i >= end.sights.size() || !end.sights.get(i)) {
                wrong.add(sight.missed(end.focus));
            }
        }
        if (!errorsAllowed && !end.errors.isEmpty()) {
            wrong.add("it said: " + end.errors.get(0));
        }
        return wrong.isEmpty()
                ? CheckItem.passed(CheckItem.Sort.PAGE, name)
                : CheckItem.ended(CheckItem.Sort.PAGE, name, TrialOutcome.WRONG_OUTPUT, String.join("; ", wrong));
    }
}
