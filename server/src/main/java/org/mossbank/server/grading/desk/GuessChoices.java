package org.mossbank.server.grading.desk;

import java.util.Comparator;
import java.util.List;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;
import org.springframework.stereotype.Component;

/** The candidates as choices of the source guess: by name, so that they show no order of entry. */
@Component
class GuessChoices {
    private final Candidates candidates;

    GuessChoices(Candidates candidates) {
        this.candidates = candidates;
    }

    private List<CandidateView> sorted(StudyId study) {
        return candidates.ofStudy(study).stream()
                .sorted(Comparator.comparing(CandidateView::name)
                        .thenComparing(c -> c.content().version())
                        .thenComparing(CandidateView::id))
                .toList();
    }

    List<CandidateId> candidates(StudyId study) {
        return sorted(study).stream().map(CandidateView::id).toList();
    }

    /** With the version where the name alone would not do. */
    List<String> names(StudyId study) {
        List<CandidateView> all = sorted(study);
        return all.stream()
                .map(c -> all.stream().filter(o -> o.name().equals(c.name())).count() > 1
                        ? c.name() + " " + c.content().version()
                        : c.name())
                .toList();
    }
}
