package org.mossbank.server.grading;

import java.util.Map;
import org.mossbank.server.ids.SheetAnswerId;

/** What trials say of whether answers' code works. A rater may say otherwise, with a word why. */
public interface ProposedWorks {
    /** Of answers whose trials the rater sees; one that was not tried, or ended now so and now so, is left out. */
    Map<SheetAnswerId, Works> of(SheetsAtDesk.SheetAtDesk sheet);
}
