package org.mossbank.server.candidate;

import jakarta.persistence.EntityManager;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Candidates, for other modules. */
@Service
@Transactional(readOnly = true)
public class Candidates {
    private final CandidateRepository candidates;
    private final EntityManager entities;

    Candidates(CandidateRepository candidates, EntityManager entities) {
        this.candidates = candidates;
        this.entities = entities;
    }

    public record NewCandidate(String key, CandidateContent content) {}

    /** Adds candidates in their order and returns the new ids by key. */
    @SystemOnly
    @Transactional
    public Map<String, CandidateId> add(StudyId study, List<NewCandidate> starts) {
        Map<String, CandidateId> ids = new LinkedHashMap<>();
        for (NewCandidate start : starts) {
            Candidate candidate = Candidate.of(study, start.key(), start.content(), ids.size());
            entities.persist(candidate);
            ids.put(start.key(), candidate.id());
        }
        return ids;
    }

    /** One candidate of a study; empty if it has none of this id. */
    @SystemOnly
    public Optional<CandidateView> one(StudyId study, CandidateId id) {
        return candidates.findById(id).filter(c -> c.studyId().equals(study)).map(Candidate::view);
    }

    /** One candidate; empty if there is none of this id. */
    @SystemOnly
    public Optional<CandidateView> one(CandidateId id) {
        return candidates.findById(id).map(Candidate::view);
    }

    /**
     * A candidate without its settings and considerations.
     *
     * @param price what it costs
     */
    public record Head(
            CandidateId id, String key, String name, String version, boolean baseline, CandidateContent.Price price) {}

    /** One candidate's head; empty if there is none of this id. */
    @SystemOnly
    public Optional<Head> head(CandidateId id) {
        return candidates.findById(id).map(Candidate::head);
    }

    /** The heads of a study's candidates. */
    @SystemOnly
    public List<Head> heads(StudyId study) {
        return candidates.findByStudyIdOrderByPlace(study).stream()
                .map(Candidate::head)
                .toList();
    }

    /** How many there are. */
    @SystemOnly
    public int count(StudyId study) {
        return candidates.countByStudyId(study);
    }

    @SystemOnly
    public List<CandidateView> ofStudy(StudyId study) {
        return candidates.findByStudyIdOrderByPlace(study).stream()
                .map(Candidate::view)
                .toList();
    }
}
