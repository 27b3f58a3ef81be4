package org.mossbank.server.answer;

import java.util.List;
import org.mossbank.core.markdown.FencedBlock;

/** An answer as it is read from top to bottom: the first reply, then each follow-up with its own. */
final class WholeText {
    private WholeText() {}

    /** Markdown. Without follow-ups the first reply as it is. */
    static String of(String firstReply, List<FollowUp> followUps) {
        StringBuilder all = new StringBuilder(firstReply);
        String last = firstReply;
        int number = 0;
        for (FollowUp turn : followUps) {
            number++;
            all.append(FencedBlock.endOfOpen(last));
            all.append("\n\n#### Follow-up ").append(number).append("\n\n");
            turn.asked().lines().forEach(line -> all.append("> ").append(line).append('\n'));
            all.append("\n#### Reply to follow-up ").append(number).append("\n\n");
            all.append(turn.reply().isBlank() ? "*Nothing came.*\n" : turn.reply());
            last = turn.reply();
        }
        return all.toString();
    }
}
