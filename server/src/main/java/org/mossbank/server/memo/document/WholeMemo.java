package org.mossbank.server.memo.document;

import java.util.List;

/**
 * A version of the memo with all that goes on paper.
 *
 * @param checksum of the archive that its figures rest on; empty while it is being written
 * @param entries  what was added after it was signed, oldest first
 */
public record WholeMemo(
        MemoHead head,
        MemoDocument document,
        MemoDocument.MemoTable appendix,
        String checksum,
        List<EntryView> entries) {

    /** The tables of a part, with the long one where it belongs. */
    public List<MemoDocument.MemoTable> tables(MemoDocument.MemoPart part) {
        return part.section() == MemoSection.APPENDIX ? List.of(appendix) : part.tables();
    }
}
