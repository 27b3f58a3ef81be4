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

    OpenedSheets(SheetRepository sheets, RoundRepository rounds, ExpectationGate expectations, Prompts prompts) {
        this.sheets = sheets;
        this.rounds = rounds;
        this.expectations = expectations;
        this.prompts = prompts;
    }

    /** The sheet, unless its rater must say first what they expect. */
    Sheet sheet(SheetId id) {
        Sheet sheet = sheets.findById(id).orElseThrow();
        if (!rounds.findById(sheet.studyId()).orElseThrow().isClosed()) {
            expectations.refuseBefore(sheet.studyId(), sheet.raterId());
        }
        return sheet;
    }

    /** How many sheets its rater has. */
    int ofSheets(Sheet sheet) {
        return sheets.findByStudyIdAndRaterIdOrderByPlace(sheet.studyId(), sheet.raterId())
                .size();
    }

    PromptView promptOf(Sheet sheet) {
        return prompts.one(sheet.promptId()).orElseThrow();
    }
}
