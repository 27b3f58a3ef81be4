package org.mossbank.server.source;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One exchange with a candidate.
 *
 * @param asked Markdown
 * @param reply absent while it is awaited
 */
public record Turn(String asked, @Nullable String reply) {
    /** For a service that takes one text only. */
    static String asOneText(List<Turn> turns) {
        StringBuilder all = new StringBuilder();
        for (Turn turn : turns) {
            if (!all.isEmpty()) {
                all.append("\n\n");
            }
            all.append(turn.asked());
            if (turn.reply() != null) {
                all.append("\n\nYour reply was:\n\n").append(turn.reply());
            }
        }
        return all.toString();
    }
}
