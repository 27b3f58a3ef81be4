package org.mossbank.server.grading;

import java.util.Collection;
import org.mossbank.server.account.Actor;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetEvent;
import org.mossbank.server.grading.sheet.SheetEventRepository;
import org.mossbank.server.grading.sheet.SheetHistory;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** What becomes of the open sheets of somebody who leaves, for other modules. */
@Service
@Transactional(propagation = Propagation.MANDATORY)
public class OpenSheets {
    private final SheetRepository sheets;
    private final SheetEventRepository events;
    private final SheetHistory history;
    private final Actor actor;

    OpenSheets(SheetRepository sheets, SheetEventRepository events, SheetHistory history, Actor actor) {
        this.sheets = sheets;
        this.events = events;
        this.history = history;
        this.actor = actor;
    }

    /** Takes a rater's sheets away as if they had never been there; false, and none is taken, if anything was done on one. */
    @SystemOnly
    public boolean forgetUnbegun(StudyId study, AccountId rater) {
        if (events.isAnythingDone(study, rater)) {
            return false;
        }
        sheets.forgetAnswers(study, rater);
        sheets.deleteByStudyIdAndRaterId(study, rater);
        return true;
    }

    /** Withdraws what a rater has not sent in for some prompts; returns how many sheets that is. */
    @SystemOnly
    public int withdraw(StudyId study, AccountId rater, Collection<PromptId> prompts, String reason) {
        int withdrawn = 0;
        for (Sheet open : sheets.findByStudyIdAndPromptIdIn(study, prompts)) {
            if (open.raterId().equals(rater) && !open.isSent() && !open.isWithdrawn()) {
                Sheet sheet = history.lock(study, open.id());
                sheet.withdraw(reason, actor.now());
                history.happened(sheet, SheetEvent.Sort.WITHDRAWN, reason);
                withdrawn++;
            }
        }
        return withdrawn;
    }
}
