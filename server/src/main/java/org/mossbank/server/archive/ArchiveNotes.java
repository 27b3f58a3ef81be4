package org.mossbank.server.archive;

import java.util.ArrayList;
import java.util.List;
import org.mossbank.server.candidate.CandidateNames;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.prompt.Prompts;
import org.springframework.stereotype.Component;

/** What somebody who brought in a study should look at. */
@Component
class ArchiveNotes {
    private final Prompts prompts;
    private final Candidates candidates;
    private final Masking masking;

    ArchiveNotes(Prompts prompts, Candidates candidates, Masking masking) {
        this.prompts = prompts;
        this.candidates = candidates;
        this.masking = masking;
    }

    /** In sentences. */
    List<String> of(StudyId study) {
        List<String> notes = new ArrayList<>();
        masking.namesLeft(study)
                .forEach(g -> notes.add(
                        "The answer " + g.answerKey() + " names " + g.candidate() + ", and it is not masked."));
        candidates
                .ofStudy(study)
                .forEach(c -> CandidateNames.pattern(c.name())
                        .ifPresent(name -> prompts.ofStudy(study).stream()
                                .filter(p -> name.matcher(
                                                p.title() + "\n" + p.content().request())
                                        .find())
                                .forEach(p -> notes.add("The prompt " + p.key() + " names " + c.name()
                                        + ". Raters will read it as it is."))));
        return notes;
    }
}
