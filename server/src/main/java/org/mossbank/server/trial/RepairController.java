package org.mossbank.server.trial;

import jakarta.validation.Valid;
import java.util.List;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.RepairId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.LargeBody;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/studies/{studyId}/answers/{answerId}")
class RepairController {
    private final RepairService repairs;

    RepairController(RepairService repairs) {
        this.repairs = repairs;
    }

    /** What people changed of an answer's code so that it can be tried, and how that ended. */
    @GetMapping("/repairs")
    List<RepairService.RepairView> ofAnswer(@PathVariable StudyId studyId, @PathVariable AnswerId answerId) {
        return repairs.ofAnswer(studyId, answerId);
    }

    /** The files of an answer's code that may be changed so that it can be tried. */
    @MayRefuse({ProblemType.NOT_READY, ProblemType.TRIALS_OFF})
    @GetMapping("/repairable")
    List<RepairRequest.ChangedFile> files(@PathVariable StudyId studyId, @PathVariable AnswerId answerId) {
        return repairs.files(studyId, answerId);
    }

    /** Tries an answer's code with files of it changed, and keeps what came of it; the answer stays as it is. */
    @LargeBody(LargeBody.TEXTS)
    @MayRefuse({ProblemType.NOT_READY, ProblemType.TRIALS_OFF, ProblemType.TOO_LARGE, ProblemType.BUSY})
    @PostMapping("/repairs")
    RepairService.RepairResult make(
            @PathVariable StudyId studyId, @PathVariable AnswerId answerId, @Valid @RequestBody RepairRequest request) {
        return repairs.make(studyId, answerId, request);
    }

    /** What came of a repair, item by item, with its log. */
    @GetMapping("/repairs/{repairId}")
    TrialResult result(
            @PathVariable StudyId studyId, @PathVariable AnswerId answerId, @PathVariable RepairId repairId) {
        return repairs.result(studyId, answerId, repairId);
    }

    /** A picture of the page of an answer as it was repaired. */
    @GetMapping(path = "/repairs/{repairId}/pictures/{place}", produces = MediaType.IMAGE_PNG_VALUE)
    byte[] picture(
            @PathVariable StudyId studyId,
            @PathVariable AnswerId answerId,
            @PathVariable RepairId repairId,
            @PathVariable int place) {
        return repairs.picture(studyId, answerId, repairId, place);
    }
}
