package org.mossbank.server.grading;

import java.util.Map;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.StudyId;

/** What trials say of whether answers' code works. A rater may say otherwise, with a word why. */
public interface ProposedWorks {
    /** Whether there are trials that raters of a prompt see, from the start or later. */
    boolean areShown(StudyId study, PromptId prompt);

    /** Of answers whose trials the rater sees; one that was not tried, or ended now so and now so, is left out. */
    Map<SheetAnswerId, Works> of(SheetsAtDesk.SheetAtDesk sheet);
}
