package org.mossbank.server.agreement;

import org.mossbank.server.ids.StudyId;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

@RestController
class AgreementController {
    private final AgreementService agreement;

    AgreementController(AgreementService agreement) {
        this.agreement = agreement;
    }

    /** How alike raters grade, from the sheets sent in. */
    @GetMapping("/api/studies/{studyId}/agreement")
    AgreementReport report(@PathVariable StudyId studyId) {
        return agreement.report(studyId);
    }

    /** Where raters part: by prompt, pair of raters and pair of levels. */
    @GetMapping("/api/studies/{studyId}/agreement/diagnosis")
    DiagnosisReport diagnosis(@PathVariable StudyId studyId) {
        return agreement.diagnosis(studyId);
    }
}
