package org.mossbank.server.answer;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Optional;
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
    private static final long MOST_KEPT = 1_000;

    private final AnswerRepository answers;
    /** What is written down already: nearly every answer of a candidate comes of the same. */
    private final Cache<Whose, String> known =
            Caffeine.newBuilder().maximumSize(MOST_KEPT).build();

    AnsweringModels(AnswerRepository answers) {
        this.answers = answers;
    }

    private record Whose(StudyId study, CandidateId candidate) {}

    /**
     * Those that answered for a candidate so far, in the order of names, if another is none of them; empty if it is, or if its service
     * never said.
     */
    @SystemOnly
    @Transactional(readOnly = true)
    public Optional<Set<String>> othersThan(String model, StudyId study, CandidateId candidate) {
        Whose whose = new Whose(study, candidate);
        if (model.equals(known.getIfPresent(whose))) {
            return Optional.empty();
        }
        Set<String> before = answers.models(study, candidate).stream()
                .flatMap(all -> Measures.modelsIn(all).stream())
                .collect(Collectors.toCollection(TreeSet::new));
        if (before.contains(model)) {
            known.put(whose, model);
            return Optional.empty();
        }
        return before.isEmpty() ? Optional.empty() : Optional.of(before);
    }
}
