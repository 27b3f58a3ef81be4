package org.mossbank.server.plan;

import java.util.List;
import org.mossbank.server.ids.StudyId;

/** What a round should wait for, unless the lead says why it does not. A later module answers. */
public interface OpeningCondition {
    /** What is short, in sentences; empty if nothing is. */
    List<String> unmet(StudyId study);
}
