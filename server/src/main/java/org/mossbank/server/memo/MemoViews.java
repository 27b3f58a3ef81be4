package org.mossbank.server.memo;

import jakarta.validation.Valid;
import jakarta.validation.constraints.AssertTrue;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.memo.document.EntryView;
import org.mossbank.server.memo.document.EntryView.Sort;
import org.mossbank.server.memo.document.MemoDocument;
import org.mossbank.server.memo.document.MemoHead;
import org.mossbank.server.memo.document.MemoSection;
import org.mossbank.server.memo.document.NamesShown;

/** What is asked and told of memos. */
final class MemoViews {
    private static final int LONGEST_LINK_DAYS = 365;

    private MemoViews() {}

    /**
     * The versions of a study's memo.
     *
     * @param versions oldest first
     * @param mayBegin whether whoever asks may begin the next one now
     */
    record MemosView(List<MemoHead> versions, boolean mayBegin) {}

    /**
     * What the lead writes in one part.
     *
     * @param section the part
     * @param text    Markdown
     */
    record MemoWords(
            @NotNull MemoSection section,
            @NotNull @Size(max = MemoSection.LONGEST_WORDS) String text) {}

    /**
     * A version with all that it says.
     *
     * @param head     which version it is
     * @param names    how those who graded are called
     * @param words    what the lead writes, by part; parts without words are left out
     * @param version  counts up with every change; sent back with the next one
     * @param document what it says, as it stands; frozen once it is signed
     * @param checksum SHA-256 of the archive that its figures rest on; absent while it is being written
     * @param dissent  what whoever asks holds against it; absent if nothing
     * @param entries  what was added after it was signed, oldest first
     * @param links    for somebody without an account, oldest first; for leads alone
     * @param mayWrite whether whoever asks may change it
     * @param mayCountersign whether whoever asks is a second person who has not put their name to it yet
     */
    record MemoView(
            MemoHead head,
            NamesShown names,
            List<MemoWords> words,
            long version,
            MemoDocument document,
            @Nullable String checksum,
            @Nullable String dissent,
            List<EntryView> entries,
            List<LinkView> links,
            boolean mayWrite,
            boolean mayCountersign) {}

    /** @param change what is to be said otherwise, and why; may be empty for the first version alone */
    record BeginMemo(
            @NotNull @Size(max = MemoHead.LONGEST_CHANGE) String change) {}

    /**
     * A draft as it is to be kept.
     *
     * @param version of the draft that was changed
     * @param names   how those who graded are called
     * @param change  what it says otherwise than the version before, and why; may be empty in the first
     * @param words   by part
     */
    record WriteMemo(
            @Min(0) long version,
            @NotNull NamesShown names,
            @NotNull @Size(max = MemoHead.LONGEST_CHANGE) String change,
            @NotNull @Size(max = 16) List<@NotNull @Valid MemoWords> words) {
        @AssertTrue(message = "each part must be there once")
        boolean isEachPartOnce() {
            return words == null
                    || words.stream().map(MemoWords::section).distinct().count() == words.size();
        }
    }

    /**
     * A draft as it was kept.
     *
     * @param names   how those who graded are called
     * @param change  what it says otherwise than the version before, and why
     * @param words   by part
     * @param version counts up with every change
     */
    record KeptDraft(NamesShown names, String change, List<MemoWords> words, long version) {}

    /**
     * Signs what was read, and nothing else.
     *
     * @param version  of the draft
     * @param revision of the grades that its figures rest on
     */
    record SignMemo(@Min(0) long version, @Min(0) long revision) {}

    /** @param words nothing takes it back */
    record SayDissent(
            @NotNull @Size(max = EntryView.LONGEST_WORDS) String words) {}

    /**
     * What is added to a signed memo.
     *
     * @param words     may be empty for a signature alone
     * @param decidedBy who decided; for a decision alone
     */
    record AddEntry(
            @NotNull Sort sort,
            @NotNull @Size(max = EntryView.LONGEST_WORDS) String words,
            @NotNull @Size(max = EntryView.LONGEST_NAME) String decidedBy) {
        @AssertTrue(message = "a decision and a note must say something, and a decision who made it")
        boolean isSaid() {
            boolean signature = sort == EntryView.Sort.COUNTERSIGNED;
            boolean decision = sort == EntryView.Sort.DECIDED;
            return words == null
                    || decidedBy == null
                    || (signature || !words.isBlank()) && decision != decidedBy.isBlank();
        }
    }

    /**
     * A link with which somebody without an account reads one version.
     *
     * @param madeBy      a name
     * @param madeAt      when it was made
     * @param expiresAt   until when it can be used
     * @param withdrawnAt absent unless it was
     */
    record LinkView(
            UUID id,
            Instant madeAt,
            String madeBy,
            Instant expiresAt,
            @Nullable Instant withdrawnAt) {}

    /** @param days for which it can be used */
    record MakeLink(@Min(1) @Max(LONGEST_LINK_DAYS) int days) {}

    /**
     * A link that was just made.
     *
     * @param link    as it is listed
     * @param address where the memo is read, on this server; shown this once, as its token is kept nowhere
     */
    record NewLink(LinkView link, String address) {
        /** Without its address, so that no log can hold it. */
        @Override
        public String toString() {
            return "NewLink[" + link + "]";
        }
    }

    /**
     * A window of the appendix.
     *
     * @param table of the window
     * @param rows  how many there are in all
     * @param from  the first of the window, from 0
     */
    record AppendixView(MemoDocument.MemoTable table, int rows, int from) {}
}
