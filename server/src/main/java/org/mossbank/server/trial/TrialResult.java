package org.mossbank.server.trial;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.trial.CheckItem;
import org.mossbank.core.trial.CompilerMessage;
import org.mossbank.core.trial.TrialSummary;
import org.mossbank.server.page.PictureOfPage;

/**
 * What came of one trial.
 *
 * @param items    what was asked, each with how it ended
 * @param messages what the compiler said of lines, each with the line of the answer where it is the answer's
 * @param log      what its steps wrote, cut at a stated size
 * @param millis   that its steps took together
 * @param memoryKb that it was seen to hold at once
 * @param repository what became of the repository; absent where none was changed
 * @param pictures   of its page, in the order in which they are kept; none where no page is looked at
 */
public record TrialResult(
        TrialSummary summary,
        List<CheckItem> items,
        List<MessageOfLine> messages,
        String log,
        long millis,
        long memoryKb,
        @Nullable RepositoryEnd repository,
        List<PictureOfPage> pictures) {
    public TrialResult {
        items = List.copyOf(items);
        messages = List.copyOf(messages);
        // Those that were kept before pages were looked at.
        pictures = List.copyOf(Objects.requireNonNullElse(pictures, List.of()));
    }

    /** The same where its pictures are not kept. */
    TrialResult withoutPictures(String why) {
        return new TrialResult(
                summary, items, messages, log + "== pictures\n" + why + "\n", millis, memoryKb, repository, List.of());
    }

    /**
     * A scratch copy of a repository with an answer's changes in it. It is gone; the repository is as it was.
     *
     * @param commit  full id
     * @param changed paths that the answer wrote, changed or removed
     * @param outside those of them that were there, and that the prompt does not show
     * @param fits    how changes fit where they do not fit exactly, in sentences
     */
    public record RepositoryEnd(String commit, List<String> changed, List<String> outside, List<String> fits) {
        public RepositoryEnd {
            changed = List.copyOf(changed);
            outside = List.copyOf(outside);
            fits = List.copyOf(fits);
        }
    }

    /** @param answerLine from 1, of the answer's text; absent where the line is not the answer's */
    public record MessageOfLine(
            CompilerMessage message, @Nullable Integer answerLine) {}
}
