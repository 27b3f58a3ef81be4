package org.mossbank.server.expected;

import jakarta.validation.Valid;
import java.util.List;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/studies/{studyId}")
class ExpectedController {
    private final ExpectedService expected;

    ExpectedController(ExpectedService expected) {
        this.expected = expected;
    }

    /** Figures that others published of candidates. */
    @GetMapping("/claims")
    List<ClaimContent> claims(@PathVariable StudyId studyId) {
        return expected.claims(studyId);
    }

    /** Writes down what is claimed, all of it, while the study is being prepared. */
    @MayRefuse(ProblemType.ROUND_OPENED)
    @PutMapping("/claims")
    List<ClaimContent> write(@PathVariable StudyId studyId, @Valid @RequestBody ExpectedService.WriteClaims request) {
        return expected.write(studyId, request);
    }

    /** What was expected and claimed, held against what came out; hidden while raters grade. */
    @MayRefuse({ProblemType.STANDINGS_HIDDEN, ProblemType.NOT_READY})
    @GetMapping("/recommendation/expected")
    ExpectedReport report(@PathVariable StudyId studyId) {
        return expected.report(studyId);
    }

    /** Says which candidate somebody's words are taken for, once grading has ended. */
    @MayRefuse({ProblemType.STANDINGS_HIDDEN, ProblemType.NOT_READY})
    @PutMapping("/expectations/{accountId}/match")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void match(
            @PathVariable StudyId studyId,
            @PathVariable AccountId accountId,
            @Valid @RequestBody ExpectedService.MatchWords request) {
        expected.match(studyId, accountId, request);
    }
}
