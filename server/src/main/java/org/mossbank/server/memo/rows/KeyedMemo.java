package org.mossbank.server.memo.rows;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.memo.document.EntryView;
import org.mossbank.server.memo.document.MemoHead;
import org.mossbank.server.memo.document.MemoSection;
import org.mossbank.server.memo.document.NamesShown;

/**
 * A version of the memo, with raters by their keys. Links are left out: who has one has it from the study that made it.
 *
 * @param words  what the lead writes, by part
 * @param frozen what was signed; absent while it is being written
 */
public record KeyedMemo(
        MemoHead head,
        NamesShown names,
        Map<MemoSection, String> words,
        List<KeyedDissent> dissents,
        List<EntryView> entries,
        @Nullable Frozen frozen) {
    public KeyedMemo {
        words = Map.copyOf(words);
        dissents = List.copyOf(dissents);
        entries = List.copyOf(entries);
    }

    /** @param rater the key */
    public record KeyedDissent(String rater, String words, Instant saidAt) {}

    /** What was signed: the document and the table of the appendix as JSON, and the archive that they rest on. */
    public static final class Frozen {
        private final String document;
        private final String appendix;
        private final byte[] archive;

        public Frozen(String document, String appendix, byte[] archive) {
            this.document = document;
            this.appendix = appendix;
            this.archive = archive.clone();
        }

        public String document() {
            return document;
        }

        public String appendix() {
            return appendix;
        }

        public byte[] archive() {
            return archive.clone();
        }
    }
}
