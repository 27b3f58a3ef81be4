package org.mossbank.server.masking;

import jakarta.validation.Valid;
import org.mossbank.server.acts.OnRecord;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.LargeBody;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

@RestController
@LargeBody(LargeBody.DECISIONS)
@RequestMapping("/api/studies/{studyId}/masking")
class MaskingController {
    private final MaskingService masking;
    private final OnRecord record;

    MaskingController(MaskingService masking, OnRecord record) {
        this.record = record;
        this.masking = masking;
    }

    /** What gives candidates away in their answers, and what is masked of it. */
    @GetMapping
    MaskingView view(@PathVariable StudyId studyId) {
        return masking.view(studyId);
    }

    /** Sets the words that are looked for beside the candidates' names. */
    @MayRefuse(ProblemType.ROUND_OPENED)
    @PutMapping("/words")
    MaskingView writeWords(@PathVariable StudyId studyId, @Valid @RequestBody MaskingService.WriteWords request) {
        return record.of(studyId, () -> masking.writeWords(studyId, request));
    }

    /** Masks passages, or lets them stand. */
    @MayRefuse({ProblemType.CALIBRATING, ProblemType.ROUND_OPENED})
    @PostMapping("/decisions")
    MaskingView decide(@PathVariable StudyId studyId, @Valid @RequestBody MaskingService.Decide request) {
        return record.of(studyId, () -> masking.decide(studyId, request));
    }
}
