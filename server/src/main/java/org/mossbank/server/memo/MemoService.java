package org.mossbank.server.memo;

import java.util.List;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.memo.document.MemoBasis;
import org.mossbank.server.memo.document.MemoComposer;
import org.mossbank.server.memo.document.MemoDocument;
import org.mossbank.server.memo.document.MemoHead;
import org.mossbank.server.memo.document.WholeMemo;
import org.mossbank.server.memo.paper.MemoMarkdown;
import org.mossbank.server.memo.paper.MemoPackage;
import org.mossbank.server.memo.paper.MemoPage;
import org.mossbank.server.recommendation.Recommendations;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyAccess;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;

/** Reading, writing and signing a study's memo, once grading has ended. Figures are worked out while no transaction is open. */
@Service
class MemoService {
    /** Rows of the appendix that are shown at once. */
    static final int WINDOW = 100;

    private final MemoDrafts drafts;
    private final MemoAfterwards afterwards;
    private final MemoReader reader;
    private final Recommendations recommendations;
    private final StudyZip archives;
    private final Studies studies;
    private final StudyAccess access;
    private final MemoHands hands;

    MemoService(
            MemoDrafts drafts,
            MemoAfterwards afterwards,
            MemoReader reader,
            Recommendations recommendations,
            StudyZip archives,
            Studies studies,
            StudyAccess access,
            MemoHands hands) {
        this.drafts = drafts;
        this.afterwards = afterwards;
        this.reader = reader;
        this.recommendations = recommendations;
        this.archives = archives;
        this.studies = studies;
        this.access = access;
        this.hands = hands;
    }

    /** Who asks, what is being worked on, and who may work how much. */
    @org.springframework.stereotype.Component
    record MemoHands(CurrentAccount current, Grading grading, HeavyWork heavy) {}

    /** @throws Problem 409 before grading has ended */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public MemoViews.MemosView all(StudyId study) {
        recommendations.requireEnded(study);
        List<MemoHead> versions = drafts.heads(study);
        boolean writing = versions.stream().anyMatch(v -> v.signed() == null);
        return new MemoViews.MemosView(versions, !writing && access.mayPrepare(study));
    }

    /** @throws Problem 409 before grading has ended, or while one is being written */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public MemoViews.MemoView begin(StudyId study, MemoViews.BeginMemo request) {
        recommendations.requireEnded(study);
        return view(study, drafts.begin(study, request.change()));
    }

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public MemoViews.MemoView one(StudyId study, int number) {
        recommendations.requireEnded(study);
        return view(study, drafts.one(study, number));
    }

    private MemoViews.MemoView view(StudyId study, Memo memo) {
        boolean lead = access.mayPrepare(study);
        List<MemoBasis.Dissent> dissents = drafts.dissents(memo.id());
        FrozenMemo frozen = memo.isSigned() ? drafts.frozen(memo.id()) : null;
        return new MemoViews.MemoView(
                memo.head(),
                memo.names(),
                MemoDrafts.words(memo),
                memo.version(),
                frozen == null ? live(study, memo, dissents) : frozen.document(),
                frozen == null ? null : frozen.archiveChecksum(),
                dissents.stream()
                        .filter(d -> d.raterId().equals(hands.current().id()))
                        .map(MemoBasis.Dissent::text)
                        .findFirst()
                        .orElse(null),
                afterwards.entries(memo.id()),
                lead ? afterwards.links(memo.id()) : List.of(),
                lead && !memo.isSigned(),
                afterwards.mayCountersign(memo));
    }

    private MemoDocument live(StudyId study, Memo memo, List<MemoBasis.Dissent> dissents) {
        MemoBasis basis = reader.of(study, dissents);
        return hands.heavy().run(() -> MemoComposer.compose(basis, memo.names(), memo.words()));
    }

    /** @throws Problem 409 if it was changed in the meantime, or is signed */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public MemoViews.KeptDraft write(StudyId study, int number, MemoViews.WriteMemo request) {
        return drafts.write(study, number, request);
    }

    /** @throws Problem 409 if it is signed */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public void drop(StudyId study, int number) {
        drafts.drop(study, number);
    }

    /** @throws Problem 403 unless whoever asks grades in the study; 409 if it is signed */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public void dissent(StudyId study, int number, MemoViews.SayDissent request) {
        if (!studies.raters(study).contains(hands.current().id())) {
            throw new Problem(ProblemType.NOT_ALLOWED, "Only who graded can hold something against the memo.");
        }
        drafts.dissent(study, number, hands.current().id(), request.words());
    }

    /**
     * Freezes what was read.
     *
     * @throws Problem 403 unless whoever asks has shown a short while ago who they are; 409 if words or grades were changed since, if
     *     it is signed, or while raters grade
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study) and @recentProof.isGiven()")
    public MemoViews.MemoView sign(StudyId study, int number, MemoViews.SignMemo request) {
        Memo memo = drafts.one(study, number);
        MemoDrafts.refuseIfSigned(memo);
        MemoBasis basis = reader.of(study, drafts.dissents(memo.id()));
        MemoDocument.MemoTable appendix = appendix(study, memo, basis);
        byte[] archive = archives.of(study);
        if (basis.report().revision() != request.revision() || revision(study) != request.revision()) {
            throw new Problem(
                    ProblemType.CHANGED_ELSEWHERE,
                    "What counts was changed since you read the memo. Read its figures again before you sign.");
        }
        FrozenMemo frozen = hands.heavy()
                .run(() -> FrozenMemo.of(
                        memo.id(), MemoComposer.compose(basis, memo.names(), memo.words()), appendix, archive));
        drafts.sign(study, number, request.version(), basis.dissents(), frozen);
        return view(study, drafts.one(study, number));
    }

    private long revision(StudyId study) {
        return hands.grading().round(study).map(Grading.RoundState::revision).orElse(-1L);
    }

    private MemoDocument.MemoTable appendix(StudyId study, Memo memo, MemoBasis basis) {
        var grades = recommendations.grades(study);
        return hands.heavy().run(() -> MemoComposer.appendix(basis, memo.names(), grades));
    }

    /** A window of every answer's grades. */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public MemoViews.AppendixView appendix(StudyId study, int number, int from) {
        MemoDocument.MemoTable all = whole(study, number).appendix();
        int first = Math.min(from, all.rows().size());
        return new MemoViews.AppendixView(
                new MemoDocument.MemoTable(
                        all.caption(),
                        all.heads(),
                        all.rows()
                                .subList(
                                        first,
                                        Math.min(first + WINDOW, all.rows().size()))),
                all.rows().size(),
                first);
    }

    /** All of a version, to be put on paper. */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public WholeMemo whole(StudyId study, int number) {
        recommendations.requireEnded(study);
        Memo memo = drafts.one(study, number);
        if (memo.isSigned()) {
            return afterwards.whole(memo);
        }
        MemoBasis basis = reader.of(study, drafts.dissents(memo.id()));
        MemoDocument.MemoTable appendix = appendix(study, memo, basis);
        return new WholeMemo(
                memo.head(),
                hands.heavy().run(() -> MemoComposer.compose(basis, memo.names(), memo.words())),
                appendix,
                "",
                List.of());
    }

    /** A version as one page of HTML. */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public String page(StudyId study, int number) {
        WholeMemo whole = whole(study, number);
        return hands.heavy().run(() -> MemoPage.of(whole));
    }

    /** A version as Markdown. */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public String markdown(StudyId study, int number) {
        WholeMemo whole = whole(study, number);
        return hands.heavy().run(() -> MemoMarkdown.of(whole));
    }

    /** The archive that a signed memo rests on, with the memo itself; for leads, as an archive names who gave what. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public MemoPackage files(StudyId study, int number) {
        recommendations.requireEnded(study);
        Memo memo = drafts.one(study, number);
        if (!memo.isSigned()) {
            throw new Problem(ProblemType.NOT_READY, "A memo rests on an archive once it is signed.");
        }
        byte[] archive = drafts.frozen(memo.id()).archive();
        WholeMemo whole = afterwards.whole(memo);
        return hands.heavy().run(() -> MemoPackage.of(whole, archive));
    }
}
