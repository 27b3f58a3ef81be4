package org.mossbank.server.answer;

import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What services say has answered. */
@Service
public class AnsweringModels {
    private final AnswerRepository answers;

    AnsweringModels(AnswerRepository answers) {
        this.answers = answers;
    }

    /** For a candidate so far, in the order of names; none where its service never said. */
    @SystemOnly
    @Transactional(readOnly = true)
    public Set<String> of(StudyId study, CandidateId candidate) {
        return answers.models(study, candidate).stream()
                .flatMap(all -> Measures.modelsIn(all).stream())
                .collect(Collectors.toCollection(TreeSet::new));
    }
}
