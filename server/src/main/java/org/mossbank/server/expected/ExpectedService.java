package org.mossbank.server.expected;

import jakarta.persistence.EntityManager;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.recommendation.Recommendations;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Writing claims down with the brief, and matching people's words after the close. */
@Service
class ExpectedService {
    private final Expected expected;
    private final ClaimRepository claims;
    private final WordsTakenRepository matches;
    private final Recommendations recommendations;
    private final Candidates candidates;
    private final Studies studies;
    private final EntityManager entities;

    ExpectedService(
            Expected expected,
            ClaimRepository claims,
            WordsTakenRepository matches,
            Recommendations recommendations,
            Candidates candidates,
            Studies studies,
            EntityManager entities) {
        this.expected = expected;
        this.claims = claims;
        this.matches = matches;
        this.recommendations = recommendations;
        this.candidates = candidates;
        this.studies = studies;
        this.entities = entities;
    }

    /** @param claims all of them, in their order */
    record WriteClaims(@NotNull @Size(max = 200) List<@NotNull @Valid ClaimContent> claims) {}

    /** @param candidateId absent to take a match back */
    record MatchWords(@Nullable CandidateId candidateId) {}

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    @Transactional(readOnly = true)
    public List<ClaimContent> claims(StudyId study) {
        return expected.claims(study);
    }

    /** @throws Problem 400 for a candidate of another study; 409 once the round was opened, as claims are said beforehand */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public List<ClaimContent> write(StudyId study, WriteClaims request) {
        studies.requirePreparing(study);
        Set<CandidateId> known = models(study);
        if (!request.claims.stream().allMatch(c -> known.contains(c.candidateId()))) {
            throw Problem.invalid("claims", "must be of candidates of this study");
        }
        claims.deleteOfStudy(study);
        for (int place = 0; place < request.claims.size(); place++) {
            entities.persist(Claim.of(study, place, request.claims.get(place)));
        }
        entities.flush();
        return expected.claims(study);
    }

    private Set<CandidateId> models(StudyId study) {
        return candidates.ofStudy(study).stream()
                .filter(c -> !c.isBaseline())
                .map(CandidateView::id)
                .collect(Collectors.toSet());
    }

    /** @throws Problem 409 before grading has ended */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public ExpectedReport report(StudyId study) {
        recommendations.requireEnded(study);
        return expected.report(study);
    }

    /**
     * Takes somebody's words for a candidate.
     *
     * @throws Problem 400 for a candidate of another study; 404 for somebody who said nothing; 409 before grading has ended
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public void match(StudyId study, AccountId person, MatchWords request) {
        recommendations.requireEnded(study);
        studies.holdFor(study);
        if (studies.expectations(study).stream().noneMatch(d -> d.accountId().equals(person))) {
            throw Problem.notFound("This expectation");
        }
        CandidateId taken = request.candidateId;
        Optional<WordsTaken> before = matches.findById(new WordsTaken.Key(study, person));
        if (taken == null) {
            before.ifPresent(matches::delete);
            return;
        }
        if (!models(study).contains(taken)) {
            throw Problem.invalid("candidateId", "must be a candidate of this study");
        }
        before.ifPresentOrElse(m -> m.take(taken), () -> entities.persist(WordsTaken.of(study, person, taken)));
    }
}
