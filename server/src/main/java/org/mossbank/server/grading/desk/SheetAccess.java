package org.mossbank.server.grading.desk;

import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;

/** A sheet is there for its rater alone; for anybody else, lead or not, there is none. */
@Component("sheetAccess")
public class SheetAccess {
    private final SheetFrames frames;
    private final Studies studies;
    private final CurrentAccount current;

    SheetAccess(SheetFrames frames, Studies studies, CurrentAccount current) {
        this.frames = frames;
        this.studies = studies;
        this.current = current;
    }

    public boolean isOwn(SheetId sheet) {
        AccountId rater = current.id();
        frames.find(sheet)
                .filter(s -> s.raterId().equals(rater) && studies.hasAccepted(s.studyId(), rater))
                .orElseThrow(() -> Problem.notFound("This sheet"));
        return true;
    }
}
