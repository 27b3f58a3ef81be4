package org.mossbank.server.grading;

import java.util.List;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What raters said of answers beside levels, for other modules: on first sheets sent in for sound prompts. */
@Service
@Transactional(readOnly = true)
public class SaidOfAnswers {
    private final SheetRepository sheets;
    private final Prompts prompts;

    SaidOfAnswers(SheetRepository sheets, Prompts prompts) {
        this.sheets = sheets;
        this.prompts = prompts;
    }

    /** How often raters said so of an answer's code. */
    public record WorksSaid(AnswerId answerId, Works works, long times) {}

    @SystemOnly
    public List<WorksSaid> works(StudyId study) {
        return sheets.worksSaid(study, prompts.soundIds(study));
    }

    /** What a rater found of an answer's code, with why it is otherwise than trials found. */
    public record WhySaid(AnswerId answerId, AccountId raterId, Works works, String why) {}

    /** Where raters said why. */
    @SystemOnly
    public List<WhySaid> whys(StudyId study) {
        return sheets.whysSaid(study, prompts.soundIds(study));
    }

    /** How often raters found so of an answer's key points. */
    public record PointsFound(AnswerId answerId, Verdict verdict, long times) {}

    @SystemOnly
    public List<PointsFound> points(StudyId study) {
        return sheets.pointsFound(study, prompts.soundIds(study));
    }

    /**
     * How many raters gave an answer credit for a trait, or found fault with it.
     *
     * @param trait as the rubric calls it
     */
    public record TraitSaid(AnswerId answerId, RemarkContent.Stance stance, String trait, long raters) {}

    @SystemOnly
    public List<TraitSaid> traits(StudyId study) {
        return sheets.traitsSaid(study, prompts.soundIds(study));
    }
}
