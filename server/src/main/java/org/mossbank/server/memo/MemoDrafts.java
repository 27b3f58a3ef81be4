package org.mossbank.server.memo;

import jakarta.persistence.EntityManager;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.mossbank.server.account.Actor;
import org.mossbank.server.audit.Audit;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.memo.document.MemoBasis;
import org.mossbank.server.memo.document.MemoHead;
import org.mossbank.server.memo.document.MemoSection;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Memos as they are kept: written, dropped, frozen. */
@Service
@Transactional(readOnly = true)
class MemoDrafts {
    private final MemoRepository memos;
    private final FrozenMemoRepository frozen;
    private final MemoDissentRepository dissents;
    private final EntityManager entities;
    private final Actor actor;
    private final Audit audit;

    MemoDrafts(
            MemoRepository memos,
            FrozenMemoRepository frozen,
            MemoDissentRepository dissents,
            EntityManager entities,
            Actor actor,
            Audit audit) {
        this.memos = memos;
        this.frozen = frozen;
        this.dissents = dissents;
        this.entities = entities;
        this.actor = actor;
        this.audit = audit;
    }

    private static Problem notHere() {
        return Problem.notFound("This memo");
    }

    /** Oldest first. */
    @SystemOnly
    public List<MemoHead> heads(StudyId study) {
        return memos.findByStudyIdOrderByNumber(study).stream().map(Memo::head).toList();
    }

    /** @throws Problem 404 unless the study has it */
    @SystemOnly
    public Memo one(StudyId study, int number) {
        return memos.findByStudyIdAndNumber(study, number).orElseThrow(MemoDrafts::notHere);
    }

    @SystemOnly
    public Optional<Memo> byId(UUID id) {
        return memos.findById(id);
    }

    /** What was signed. */
    @SystemOnly
    public FrozenMemo frozen(UUID memo) {
        return frozen.findById(memo).orElseThrow();
    }

    /** Oldest first. */
    @SystemOnly
    public List<MemoBasis.Dissent> dissents(UUID memo) {
        return dissents.ofMemo(memo).stream()
                .map(d -> new MemoBasis.Dissent(d.raterId(), d.words()))
                .toList();
    }

    /** @throws Problem 409 while one is being written; 400 if a later version says no reason */
    @SystemOnly
    @Transactional
    public Memo begin(StudyId study, String change) {
        Optional<Memo> last = memos.findFirstByStudyIdOrderByNumberDesc(study);
        if (last.filter(m -> !m.isSigned()).isPresent()) {
            throw new Problem(ProblemType.CHANGED_ELSEWHERE, "A memo is being written already.");
        }
        if (last.isPresent() && change.isBlank()) {
            throw Problem.invalid("change", "must say what the new version says otherwise, and why");
        }
        Memo memo = last.map(m -> m.next(change.strip(), actor.now(), actor.name()))
                .orElseGet(() -> Memo.first(study, actor.now(), actor.name()));
        entities.persist(memo);
        entities.flush();
        return memo;
    }

    /** @throws Problem 404 unless it is there; 409 if it is signed */
    private Memo unsigned(StudyId study, int number) {
        Memo memo = memos.lock(study, number).orElseThrow(MemoDrafts::notHere);
        entities.refresh(memo);
        refuseIfSigned(memo);
        return memo;
    }

    /** @throws Problem 409 if it is */
    static void refuseIfSigned(Memo memo) {
        if (memo.isSigned()) {
            throw new Problem(ProblemType.MEMO_SIGNED, "This memo is signed, and stays as it is. Begin a new version.");
        }
    }

    /** @throws Problem 409 with what is there now if it was changed in the meantime, or is signed */
    @SystemOnly
    @Transactional
    public MemoViews.KeptDraft write(StudyId study, int number, MemoViews.WriteMemo request) {
        Memo memo = unsigned(study, number);
        refuseIfChanged(memo, request.version());
        if (memo.number() > 1 && request.change().isBlank()) {
            throw Problem.invalid("change", "must say what this version says otherwise, and why");
        }
        Map<MemoSection, String> words = new EnumMap<>(MemoSection.class);
        request.words().stream().filter(w -> !w.text().isBlank()).forEach(w -> words.put(w.section(), w.text()));
        memo.write(request.names(), request.change().strip(), words);
        entities.flush();
        return kept(memo);
    }

    private static void refuseIfChanged(Memo memo, long version) {
        if (memo.version() != version) {
            throw new Problem(ProblemType.CHANGED_ELSEWHERE, "The memo was changed in another window since you saw it.")
                    .with("current", kept(memo));
        }
    }

    static MemoViews.KeptDraft kept(Memo memo) {
        return new MemoViews.KeptDraft(memo.names(), memo.change(), words(memo), memo.version());
    }

    static List<MemoViews.MemoWords> words(Memo memo) {
        return memo.words().entrySet().stream()
                .map(w -> new MemoViews.MemoWords(w.getKey(), w.getValue()))
                .toList();
    }

    /** @throws Problem 409 if it is signed */
    @SystemOnly
    @Transactional
    public void drop(StudyId study, int number) {
        entities.remove(unsigned(study, number));
    }

    /**
     * Keeps what a rater holds against it, or takes it back.
     *
     * @throws Problem 409 if it is signed
     */
    @SystemOnly
    @Transactional
    public void dissent(StudyId study, int number, AccountId rater, String words) {
        Memo memo = unsigned(study, number);
        MemoDissent.Key key = new MemoDissent.Key(memo.id(), rater);
        if (words.isBlank()) {
            dissents.findById(key).ifPresent(dissents::delete);
        } else {
            MemoDissent dissent = dissents.findById(key).orElseGet(() -> MemoDissent.of(memo.id(), rater));
            dissent.say(words.strip(), actor.now());
            dissents.save(dissent);
        }
    }

    /**
     * Signs a draft as it was read.
     *
     * @param read what raters held against it then: what one was told is kept must not be left out
     * @throws Problem 409 if it was changed or held something against in the meantime, or is signed
     */
    @SystemOnly
    @Transactional
    public void sign(StudyId study, int number, long version, List<MemoBasis.Dissent> read, FrozenMemo signed) {
        Memo memo = unsigned(study, number);
        refuseIfChanged(memo, version);
        if (!dissents(memo.id()).equals(read)) {
            throw new Problem(
                    ProblemType.CHANGED_ELSEWHERE,
                    "A rater has said in the meantime where they see it otherwise. Read it again before you sign.");
        }
        memo.sign(actor.now(), actor.id(), actor.name());
        audit.keep(AuditSort.MEMO_SIGNED, study, String.valueOf(number));
        entities.persist(signed);
    }
}
