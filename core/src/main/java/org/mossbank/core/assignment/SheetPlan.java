package org.mossbank.core.assignment;

import java.util.List;

/**
 * One rater's sheet for one prompt.
 *
 * @param rater   who grades it
 * @param prompt  whose answers are on it
 * @param place   when this rater gets it, from 0
 * @param repeat  whether it comes a second time, to see whether the rater agrees with themselves
 * @param answers the answers in this sheet's own order, first shown first
 */
public record SheetPlan(String rater, String prompt, int place, boolean repeat, List<String> answers) {
    public SheetPlan {
        answers = List.copyOf(answers);
    }
}
