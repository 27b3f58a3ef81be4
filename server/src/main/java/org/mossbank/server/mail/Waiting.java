package org.mossbank.server.mail;

import java.util.List;
import org.mossbank.server.ids.AccountId;

/** What waits for somebody, for the day's letter; modules whose work waits tell of it. */
public interface Waiting {
    /** A line each, without candidates' names or grades; most often none. */
    List<String> waitsFor(AccountId account);
}
