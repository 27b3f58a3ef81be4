package org.mossbank.server.memo;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.util.UUID;
import org.hibernate.annotations.Immutable;
import org.mossbank.server.memo.document.MemoDocument;
import org.mossbank.server.memo.rows.KeyedMemo;
import org.mossbank.server.shared.Sha256;
import tools.jackson.databind.json.JsonMapper;

/** What was signed, as it was then, with the archive that its figures rest on. Only ever added. */
@Entity
@Immutable
@Table(name = "memo_frozen")
class FrozenMemo {
    @Id
    private UUID memoId;

    private String document;
    private String appendix;
    private byte[] archive;
    private String archiveChecksum;

    @SuppressWarnings("NullAway.Init")
    protected FrozenMemo() {}

    static FrozenMemo of(UUID memo, MemoDocument document, MemoDocument.MemoTable appendix, byte[] archive) {
        FrozenMemo frozen = new FrozenMemo();
        frozen.memoId = memo;
        frozen.document = JsonMapper.shared().writeValueAsString(document);
        frozen.appendix = JsonMapper.shared().writeValueAsString(appendix);
        frozen.archive = archive.clone();
        frozen.archiveChecksum = Sha256.hex(archive);
        return frozen;
    }

    /** As an archive brings it. */
    static FrozenMemo of(UUID memo, KeyedMemo.Frozen brought) {
        FrozenMemo frozen = new FrozenMemo();
        frozen.memoId = memo;
        frozen.document = brought.document();
        frozen.appendix = brought.appendix();
        frozen.archive = brought.archive();
        frozen.archiveChecksum = Sha256.hex(frozen.archive);
        return frozen;
    }

    KeyedMemo.Frozen keyed() {
        return new KeyedMemo.Frozen(document, appendix, archive);
    }

    MemoDocument document() {
        return JsonMapper.shared().readValue(document, MemoDocument.class);
    }

    MemoDocument.MemoTable appendix() {
        return JsonMapper.shared().readValue(appendix, MemoDocument.MemoTable.class);
    }

    byte[] archive() {
        return archive.clone();
    }

    String archiveChecksum() {
        return archiveChecksum;
    }
}
