package org.mossbank.server.turn;

import jakarta.validation.Valid;
import java.util.List;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

@RestController
class TurnController {
    private final TurnService turns;

    TurnController(TurnService turns) {
        this.turns = turns;
    }

    /** What a lead found of each reply: whether it does what was asked. */
    @GetMapping("/api/studies/{studyId}/turn-verdicts")
    List<Turns.Said> ofStudy(@PathVariable StudyId studyId) {
        return turns.ofStudy(studyId);
    }

    /** Says whether a reply does what was asked, or takes it back; the first reply is turn 0. */
    @MayRefuse(ProblemType.ROUND_OPENED)
    @PutMapping("/api/studies/{studyId}/answers/{answerId}/turns/{turn}/verdict")
    List<Turns.Said> say(
            @PathVariable StudyId studyId,
            @PathVariable AnswerId answerId,
            @PathVariable int turn,
            @Valid @RequestBody TurnService.SayOfTurn request) {
        return turns.say(studyId, answerId, turn, request);
    }

    /** How much works, after how many follow-ups, and what each mended or broke; hidden while raters grade. */
    @MayRefuse({ProblemType.STANDINGS_HIDDEN, ProblemType.NOT_READY})
    @GetMapping("/api/studies/{studyId}/recommendation/work")
    WorkReport work(@PathVariable StudyId studyId) {
        return turns.work(studyId);
    }
}
