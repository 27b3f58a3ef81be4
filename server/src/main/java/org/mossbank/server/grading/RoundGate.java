package org.mossbank.server.grading;

import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
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
        return rounds.findById(study).map(RoundGate::stage).orElse(Stage.PREPARING);
    }

    private static Stage stage(Round round) {
        if (!round.isOpened()) {
            return Stage.PREPARING;
        }
        return round.isClosed() ? Stage.CLOSED : Stage.GRADING;
    }

    @Override
    public Map<StudyId, Stage> ofAll(Collection<StudyId> studies) {
        Map<StudyId, Stage> stages = new HashMap<>();
        studies.forEach(s -> stages.put(s, Stage.PREPARING));
        rounds.findAllById(studies).forEach(r -> stages.put(r.studyId(), stage(r)));
        return stages;
    }

    /** Figures are cached by the round's revision. */
    @EventListener
    void renew(FiguresChanged changed) {
        rounds.lock(changed.studyId()).ifPresent(Round::advance);
    }
}
