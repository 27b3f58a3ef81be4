package org.mossbank.server.grading.desk;

import org.mossbank.server.grading.sheet.RoundRepository;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.springframework.stereotype.Component;

/** Sheets that their raters may look at. */
@Component
class OpenedSheets {
    private final SheetRepository sheets;
    private final RoundRepository rounds;
    private final ExpectationGate expectations;
    private final Prompts prompts;
    private final Repeats repeats;

    OpenedSheets(
            SheetRepository sheets,
            RoundRepository rounds,
            ExpectationGate expectations,
            Prompts prompts,
            Repeats repeats) {
        this.repeats = repeats;
        this.sheets = sheets;
        this.rounds = rounds;
        this.expectations = expectations;
        this.prompts = prompts;
    }

    /** The sheet, unless its rater must say first what they expect, or has its prompt before them a second time. */
    Sheet sheet(SheetId id) {
        Sheet sheet = sheets.findById(id).orElseThrow();
        if (!rounds.findById(sheet.studyId()).orElseThrow().isClosed()) {
            expectations.refuseBefore(sheet.studyId(), sheet.raterId());
            repeats.refuseFirstMeanwhile(sheet);
        }
        return sheet;
    }

    /** How many sheets its rater has. */
    int ofSheets(Sheet sheet) {
        return sheets.findByStudyIdAndRaterIdOrderByPlace(sheet.studyId(), sheet.raterId())
                .size();
    }

    /** Whether its reference answer may be shown, if it is sent in. */
    boolean mayShowReference(Sheet sheet) {
        return sheet.isSent() && !repeats.isToCome(sheet);
    }

    PromptView promptOf(Sheet sheet) {
        return prompts.one(sheet.promptId()).orElseThrow();
    }
}
