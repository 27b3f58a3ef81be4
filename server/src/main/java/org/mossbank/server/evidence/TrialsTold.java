package org.mossbank.server.evidence;

import java.util.Optional;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.study.RaterTerms;
import org.mossbank.server.study.Studies;
import org.mossbank.server.trial.Trials;
import org.mossbank.server.trial.TriedAnswer;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Whether raters saw trials, for whoever tells what grades rest on. */
@Service
@Transactional(readOnly = true)
public class TrialsTold {
    private final Studies studies;
    private final Trials trials;
    private final TrialSeenRepository seen;

    TrialsTold(Studies studies, Trials trials, TrialSeenRepository seen) {
        this.studies = studies;
        this.trials = trials;
        this.seen = seen;
    }

    /**
     * @param shown   when raters saw trials, by the brief
     * @param prompts that have a check
     * @param looks   how many times a rater looked at the trials of an answer
     */
    public record Told(RaterTerms.TrialsShown shown, int prompts, int looks) {}

    /** Empty where no answer was tried. */
    @SystemOnly
    public Optional<Told> of(StudyId study) {
        int prompts = (int) trials.ofStudy(study).values().stream()
                .map(TriedAnswer::promptId)
                .distinct()
                .count();
        return prompts == 0
                ? Optional.empty()
                : Optional.of(new Told(
                        studies.get(study).brief().raters().trials(),
                        prompts,
                        seen.ofStudy(study).size()));
    }
}
