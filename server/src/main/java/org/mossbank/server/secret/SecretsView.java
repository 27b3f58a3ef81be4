package org.mossbank.server.secret;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.secrets.FoundSecret;
import org.mossbank.server.ids.PromptId;

/**
 * What looks like a secret in what candidates are sent of a study.
 *
 * @param open  of all that was found, how much nobody has looked at
 * @param total how much was found
 * @param found the first of it, what nobody has looked at first; never what it is itself
 */
record SecretsView(int open, int total, List<Found> found) {
    static final int MOST_SHOWN = 500;

    /** Which of a prompt's texts something stands in. */
    enum Part {
        REQUEST,
        CONSTRAINT,
        STARTING_FILE,
        FOLLOW_UP
    }

    /**
     * One place.
     *
     * @param prompt  its title
     * @param part    which of its texts
     * @param name    the path of the file; which constraint or follow-up, from 1; empty for the request
     * @param line    from 1
     * @param sort    what it looks like
     * @param hint    how it begins
     * @param digest  names it without saying it
     * @param cleared who said that it may be sent; absent until somebody did
     */
    record Found(
            PromptId promptId,
            String prompt,
            Part part,
            String name,
            int line,
            FoundSecret.Sort sort,
            String hint,
            String digest,
            @Nullable Cleared cleared) {}

    /**
     * That it may be sent.
     *
     * @param why       in the words of whoever said so
     * @param clearedAt when they said so
     * @param clearedBy their name
     */
    record Cleared(String why, Instant clearedAt, String clearedBy) {}
}
