package org.mossbank.server.source;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface SourceRepository extends JpaRepository<Source, UUID> {
    @Query("select distinct s from Source s left join fetch s.headers where s.studyId = :study")
    List<Source> ofStudy(UUID study);

    @Query("select s from Source s where s.studyId = :study and s.candidateId = :candidate")
    Optional<Source> ofCandidate(UUID study, UUID candidate);
}
