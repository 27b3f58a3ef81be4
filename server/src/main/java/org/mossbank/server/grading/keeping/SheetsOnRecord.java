package org.mossbank.server.grading.keeping;

import org.mossbank.server.acts.ActSort;
import org.mossbank.server.acts.Acts;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.study.StudyPeople;
import org.springframework.stereotype.Component;

/** Puts on the study's record what a lead does with single sheets, in words. Within the transaction that does it. */
@Component
class SheetsOnRecord {
    private final Acts acts;
    private final StudyPeople people;
    private final Prompts prompts;

    SheetsOnRecord(Acts acts, StudyPeople people, Prompts prompts) {
        this.acts = acts;
        this.people = people;
        this.prompts = prompts;
    }

    void keep(ActSort sort, Sheet sheet, String reason) {
        acts.keep(sheet.studyId(), sort, named(sheet), reason);
    }

    void keep(ActSort sort, StudyId study, AccountId rater, String reason) {
        acts.keep(study, sort, people.name(study, rater), reason);
    }

    void handedOver(Sheet sheet, AccountId to, String reason) {
        acts.keep(
                sheet.studyId(),
                ActSort.SHEET_HANDED_OVER,
                "%s, to %s".formatted(named(sheet), people.name(sheet.studyId(), to)),
                reason);
    }

    /** Whose it is, and for which prompt. */
    private String named(Sheet sheet) {
        return "%s: %s%s"
                .formatted(
                        people.name(sheet.studyId(), sheet.raterId()),
                        prompts.one(sheet.studyId(), sheet.promptId())
                                .map(PromptView::title)
                                .orElse(""),
                        sheet.isRepeat() ? " (again)" : "");
    }
}
