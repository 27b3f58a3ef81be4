package org.mossbank.server.grading;

import org.mossbank.server.grading.sheet.Round;
import org.mossbank.server.grading.sheet.RoundRepository;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.study.FiguresChanged;
import org.mossbank.server.study.RoundStage;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** How far a study's round is, for modules that come before it, and what they change after it was opened. */
@Component
class RoundGate implements RoundStage {
    private final RoundRepository rounds;

    RoundGate(RoundRepository rounds) {
        this.rounds = rounds;
    }

    @Override
    public Stage of(StudyId study) {
        return rounds.findById(study)
                .filter(Round::isOpened)
                .map(round -> round.isClosed() ? Stage.CLOSED : Stage.GRADING)
                .orElse(Stage.PREPARING);
    }

    /** Figures are cached by the round's revision. */
    @EventListener
    void renew(FiguresChanged changed) {
        rounds.lock(changed.studyId()).ifPresent(Round::advance);
    }
}
