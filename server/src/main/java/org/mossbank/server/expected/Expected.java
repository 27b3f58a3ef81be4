package org.mossbank.server.expected;

import jakarta.persistence.EntityManager;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What was expected and claimed, for other modules. */
@Service
public class Expected {
    private final ClaimRepository claims;
    private final WordsTakenRepository matches;
    private final ExpectedComputation computation;
    private final Grading grading;
    private final EntityManager entities;

    Expected(
            ClaimRepository claims,
            WordsTakenRepository matches,
            ExpectedComputation computation,
            Grading grading,
            EntityManager entities) {
        this.claims = claims;
        this.matches = matches;
        this.computation = computation;
        this.grading = grading;
        this.entities = entities;
    }

    /** In the lead's order. */
    @SystemOnly
    @Transactional(readOnly = true)
    public List<ClaimContent> claims(StudyId study) {
        return claims.ofStudy(study).stream().map(Claim::content).toList();
    }

    /** By person. */
    @SystemOnly
    @Transactional(readOnly = true)
    public Map<AccountId, CandidateId> matches(StudyId study) {
        return matches.ofStudy(study).stream()
                .collect(Collectors.toMap(WordsTaken::accountId, WordsTaken::candidateId));
    }

    /** As an archive brings them. */
    @SystemOnly
    @Transactional
    public void restore(StudyId study, List<ClaimContent> all, Map<AccountId, CandidateId> words) {
        for (int place = 0; place < all.size(); place++) {
            entities.persist(Claim.of(study, place, all.get(place)));
        }
        words.forEach((account, candidate) -> entities.persist(WordsTaken.of(study, account, candidate)));
    }

    /**
     * What came of it. Worked out anew each time, as words may be matched after the close.
     *
     * @throws org.mossbank.server.shared.Problem 409 before grading has ended
     */
    @SystemOnly
    public ExpectedReport report(StudyId study) {
        grading.round(study).orElseThrow();
        return computation.of(study, claims(study), matches(study));
    }
}
