package org.mossbank.server.rubric;

import jakarta.validation.Valid;
import java.util.List;
import org.mossbank.server.acts.OnRecord;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.LargeBody;
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

    @GetMapping
    RubricService.RubricView ofStudy(@PathVariable StudyId studyId) {
        return rubrics.ofStudy(studyId);
    }

    @GetMapping("/versions/{number}")
    RubricService.RubricView version(@PathVariable StudyId studyId, @PathVariable int number) {
        return rubrics.version(studyId, number);
    }

    @PutMapping
    RubricService.RubricView write(
            @PathVariable StudyId studyId, @Valid @RequestBody RubricService.WriteRubric request) {
        return rubrics.write(studyId, request);
    }

    @PostMapping("/publish")
    RubricService.RubricView publish(
            @PathVariable StudyId studyId, @Valid @RequestBody RubricService.PublishRubric request) {
        return record.of(studyId, () -> rubrics.publish(studyId, request));
    }

    @PostMapping("/examples")
    List<ScoreExamples.Example> examples(
            @PathVariable StudyId studyId, @Valid @RequestBody ScoreExamples.Weighing weighing) {
        return rubrics.examples(studyId, weighing);
    }
}
