package org.mossbank.server.source;

import java.util.List;
import java.util.Optional;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface SourceRepository extends JpaRepository<Source, CandidateId> {
    @Query("select distinct s from Source s left join fetch s.headers where s.studyId = :study")
    List<Source> ofStudy(StudyId study);

    @Query("select s from Source s where s.studyId = :study and s.candidateId = :candidate")
    Optional<Source> ofCandidate(StudyId study, CandidateId candidate);
}
