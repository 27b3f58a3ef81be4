package org.mossbank.server.memo;

import jakarta.persistence.EntityManager;
import java.util.Comparator;
import java.util.List;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.files.Keys;
import org.mossbank.server.files.NewIds;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.memo.rows.KeyedMemo;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The versions of a study's memo, for archives. */
@Service
@Transactional(readOnly = true)
public class Memos {
    private final MemoRepository memos;
    private final FrozenMemoRepository frozen;
    private final MemoDissentRepository dissents;
    private final MemoEntryRepository entries;
    private final EntityManager entities;

    Memos(
            MemoRepository memos,
            FrozenMemoRepository frozen,
            MemoDissentRepository dissents,
            MemoEntryRepository entries,
            EntityManager entities) {
        this.memos = memos;
        this.frozen = frozen;
        this.dissents = dissents;
        this.entries = entries;
        this.entities = entities;
    }

    /** By number. */
    @SystemOnly
    public List<KeyedMemo> ofStudy(StudyId study, Keys keys) {
        return memos.findByStudyIdOrderByNumber(study).stream()
                .map(m -> keyed(m, keys))
                .toList();
    }

    private KeyedMemo keyed(Memo memo, Keys keys) {
        return new KeyedMemo(
                memo.head(),
                memo.names(),
                memo.words(),
                dissents.ofMemo(memo.id()).stream()
                        .map(d -> new KeyedMemo.KeyedDissent(keys.of(d.raterId()), d.words(), d.saidAt()))
                        .sorted(Comparator.comparing(KeyedMemo.KeyedDissent::rater))
                        .toList(),
                entries.findByMemoIdOrderByAddedAt(memo.id()).stream()
                        .map(MemoEntry::view)
                        .toList(),
                frozen.findById(memo.id()).map(FrozenMemo::keyed).orElse(null));
    }

    @SystemOnly
    @Transactional
    public void restore(StudyId study, List<KeyedMemo> all, NewIds ids) {
        for (KeyedMemo brought : all) {
            Memo memo = Memo.of(study, brought);
            entities.persist(memo);
            KeyedMemo.Frozen signed = brought.frozen();
            if (signed != null) {
                entities.persist(FrozenMemo.of(memo.id(), signed));
            }
            for (KeyedMemo.KeyedDissent one : brought.dissents()) {
                MemoDissent dissent = MemoDissent.of(memo.id(), Require.known(ids.people(), one.rater()));
                dissent.say(one.words(), one.saidAt());
                entities.persist(dissent);
            }
            brought.entries().forEach(e -> entities.persist(MemoEntry.of(memo.id(), e)));
        }
    }
}
