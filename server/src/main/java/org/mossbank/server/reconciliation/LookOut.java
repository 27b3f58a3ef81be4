package org.mossbank.server.reconciliation;

import java.util.LinkedHashSet;
import java.util.Set;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;

/** Who could look at the answer of a split blind: raters without a sheet for its prompt, who did not write it. */
@Component
class LookOut {
    private final Studies studies;
    private final Grading grading;
    private final Answers answers;
    private final Candidates candidates;
    private final ThirdLookRepository looks;

    LookOut(Studies studies, Grading grading, Answers answers, Candidates candidates, ThirdLookRepository looks) {
        this.studies = studies;
        this.grading = grading;
        this.answers = answers;
        this.candidates = candidates;
        this.looks = looks;
    }

    Set<AccountId> free(Reconciliation split) {
        AnswerView answer = answers.one(split.answerId()).orElseThrow();
        Set<AccountId> free = new LinkedHashSet<>(studies.raters(split.studyId()));
        studies.notAccepted(split.studyId()).forEach(free::remove);
        free.removeAll(grading.ratersOf(split.studyId(), answer.promptId()));
        looks.ofSplit(split.id()).forEach(l -> free.remove(l.key().raterId()));
        AccountId author = candidates
                .one(answer.candidateId())
                .map(CandidateView::content)
                .map(c -> c.personId())
                .orElse(null);
        if (author != null) {
            free.remove(author);
        }
        return free;
    }
}
