package org.mossbank.server.memo;

import jakarta.persistence.EntityManager;
import java.security.SecureRandom;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.account.Actor;
import org.mossbank.server.audit.Audit;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.memo.document.EntryView;
import org.mossbank.server.memo.document.WholeMemo;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.Sha256;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** What comes after a memo was signed: what is added to it, and links to read it by. */
@Service
@Transactional(readOnly = true)
class MemoAfterwards {
    private static final int TOKEN_BYTES = 32;

    private final MemoEntryRepository entries;
    private final MemoLinkRepository links;
    private final MemoDrafts drafts;
    private final EntityManager entities;
    private final Actor actor;
    private final Audit audit;
    private final Studies studies;
    private final SecureRandom random = new SecureRandom();

    MemoAfterwards(
            MemoEntryRepository entries,
            MemoLinkRepository links,
            MemoDrafts drafts,
            EntityManager entities,
            Actor actor,
            Audit audit,
            Studies studies) {
        this.studies = studies;
        this.entries = entries;
        this.links = links;
        this.drafts = drafts;
        this.entities = entities;
        this.actor = actor;
        this.audit = audit;
    }

    /** Oldest first. */
    @SystemOnly
    public List<EntryView> entries(UUID memo) {
        return entries.findByMemoIdOrderByAddedAt(memo).stream()
                .map(MemoEntry::view)
                .toList();
    }

    /** Oldest first. */
    @SystemOnly
    public List<MemoViews.LinkView> links(UUID memo) {
        return links.findByMemoIdOrderByMadeAt(memo).stream()
                .map(MemoLink::view)
                .toList();
    }

    private static void refuseUnlessSigned(Memo memo) {
        if (!memo.isSigned()) {
            throw new Problem(ProblemType.NOT_READY, "The memo is still being written. Sign it first.");
        }
    }

    /** @throws Problem 409 unless it is signed, or if whoever asks has signed it already */
    @SystemOnly
    @Transactional
    public EntryView add(Memo memo, MemoViews.AddEntry added) {
        refuseUnlessSigned(memo);
        if (added.sort() == EntryView.Sort.COUNTERSIGNED) {
            refuseSecondSignature(memo);
        }
        MemoEntry entry = MemoEntry.of(memo.id(), added, actor.id(), actor.name(), actor.now());
        entities.persist(entry);
        return entry.view();
    }

    private void refuseSecondSignature(Memo memo) {
        if (!mayCountersign(memo)) {
            throw new Problem(
                    ProblemType.CHANGED_ELSEWHERE,
                    "You have signed this memo already. A second person countersigns it.");
        }
    }

    /** Whether whoever asks is a second person to a signed memo, who has not put their name to it yet. */
    @SystemOnly
    public boolean mayCountersign(Memo memo) {
        return memo.isSigned()
                && !memo.isSignedBy(actor.id())
                && entries.findByMemoIdOrderByAddedAt(memo.id()).stream().noneMatch(e -> e.isSignatureOf(actor.id()));
    }

    /** A link and its token, which is kept nowhere. */
    record Made(MemoViews.LinkView link, String token) {}

    /** @throws Problem 409 unless it is signed */
    @SystemOnly
    @Transactional
    public Made link(Memo memo, int days) {
        refuseUnlessSigned(memo);
        byte[] bytes = new byte[TOKEN_BYTES];
        random.nextBytes(bytes);
        String token = Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
        Instant now = actor.now();
        MemoLink link = MemoLink.of(memo.id(), Sha256.of(token), now, actor.name(), now.plus(Duration.ofDays(days)));
        entities.persist(link);
        audit.keep(AuditSort.MEMO_LINK_MADE, memo.studyId(), days + " days");
        return new Made(link.view(), token);
    }

    /** @throws Problem 404 unless the memo has it */
    @SystemOnly
    @Transactional
    public void withdraw(Memo memo, UUID link) {
        links.findById(link)
                .filter(l -> l.memoId().equals(memo.id()))
                .orElseThrow(() -> Problem.notFound("This link"))
                .withdraw(actor.now());
    }

    /**
     * What a link opens. It may be long: it is read, and taken apart once no connection is held.
     *
     * @throws Problem 404 unless the link can be used
     */
    @SystemOnly
    @Transactional(propagation = Propagation.NEVER)
    public WholeMemo linked(String token) {
        return links.findByTokenHash(Sha256.of(token))
                .filter(l -> l.isLive(actor.now()))
                .flatMap(l -> drafts.byId(l.memoId()))
                .filter(m -> studies.isThere(m.studyId()))
                .map(this::whole)
                .orElseThrow(
                        () -> new Problem(
                                ProblemType.LINK_USED_OR_EXPIRED,
                                "This link has expired, was withdrawn or was never one. Whoever gave it to you can make a new one."));
    }

    /** A signed memo with what was added to it; the same goes for it. */
    @SystemOnly
    @Transactional(propagation = Propagation.NEVER)
    public WholeMemo whole(Memo memo) {
        FrozenMemo frozen = drafts.frozen(memo.id());
        return new WholeMemo(
                memo.head(), frozen.document(), frozen.appendix(), frozen.archiveChecksum(), entries(memo.id()));
    }
}
