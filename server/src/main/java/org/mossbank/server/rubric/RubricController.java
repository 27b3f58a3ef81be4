package org.mossbank.server.rubric;

import jakarta.validation.Valid;
import java.util.List;
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
@LargeBody(LargeBody.FORM)
@RequestMapping("/api/studies/{studyId}/rubric")
class RubricController {
    private final RubricService rubrics;
    private final OnRecord record;

    RubricController(RubricService rubrics, OnRecord record) {
        this.record = record;
        this.rubrics = rubrics;
    }

    /** The rubric as it is, with its versions. */
    @GetMapping
    RubricService.RubricView ofStudy(@PathVariable StudyId studyId) {
        return rubrics.ofStudy(studyId);
    }

    /** One version of the rubric. */
    @GetMapping("/versions/{number}")
    RubricService.RubricView version(@PathVariable StudyId studyId, @PathVariable int number) {
        return rubrics.version(studyId, number);
    }

    /** Writes the rubric's draft. */
    @MayRefuse({ProblemType.BRIEF_CLOSED, ProblemType.CALIBRATING, ProblemType.ROUND_OPENED})
    @PutMapping
    RubricService.RubricView write(
            @PathVariable StudyId studyId, @Valid @RequestBody RubricService.WriteRubric request) {
        return rubrics.write(studyId, request);
    }

    /** Publishes the draft as the rubric's next version. */
    @MayRefuse({ProblemType.NOT_READY, ProblemType.ROUND_OPENED})
    @PostMapping("/publish")
    RubricService.RubricView publish(
            @PathVariable StudyId studyId, @Valid @RequestBody RubricService.PublishRubric request) {
        return record.of(studyId, () -> rubrics.publish(studyId, request));
    }

    /** What weights and gate do to answers that shine or fail on one criterion. */
    @PostMapping("/examples")
    List<ScoreExamples.Example> examples(
            @PathVariable StudyId studyId, @Valid @RequestBody ScoreExamples.Weighing weighing) {
        return rubrics.examples(studyId, weighing);
    }
}
