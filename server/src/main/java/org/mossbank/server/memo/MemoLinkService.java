package org.mossbank.server.memo;

import java.util.UUID;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.memo.document.EntryView;
import org.mossbank.server.memo.document.WholeMemo;
import org.mossbank.server.memo.paper.MemoPage;
import org.mossbank.server.recommendation.Recommendations;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.Problem;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;

/** What is added to a signed memo, and links for those who have no account. */
@Service
class MemoLinkService {
    private final MemoDrafts drafts;
    private final MemoAfterwards afterwards;
    private final Recommendations recommendations;
    private final HeavyWork heavy;

    MemoLinkService(MemoDrafts drafts, MemoAfterwards afterwards, Recommendations recommendations, HeavyWork heavy) {
        this.drafts = drafts;
        this.afterwards = afterwards;
        this.recommendations = recommendations;
        this.heavy = heavy;
    }

    /** @throws Problem 409 unless it is signed */
    @PreAuthorize("@studyAccess.maySeeAll(#study) and @recentProof.isGiven()")
    public EntryView countersign(StudyId study, int number, MemoViews.AddEntry request) {
        recommendations.requireEnded(study);
        return afterwards.add(drafts.one(study, number), request);
    }

    /** @throws Problem 409 unless it is signed */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public EntryView add(StudyId study, int number, MemoViews.AddEntry request) {
        recommendations.requireEnded(study);
        return afterwards.add(drafts.one(study, number), request);
    }

    /** @throws Problem 409 unless it is signed */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public MemoViews.NewLink link(StudyId study, int number, MemoViews.MakeLink request) {
        MemoAfterwards.Made made = afterwards.link(drafts.one(study, number), request.days());
        return new MemoViews.NewLink(made.link(), MemoLinkController.ADDRESS + made.token());
    }

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public void withdraw(StudyId study, int number, UUID link) {
        afterwards.withdraw(drafts.one(study, number), link);
    }

    /**
     * The page that a link opens, for whoever has it.
     *
     * @throws Problem 404 unless it can be used
     */
    @PreAuthorize("permitAll()")
    public String page(String token) {
        WholeMemo whole = afterwards.linked(token);
        return heavy.run(() -> MemoPage.of(whole));
    }
}
