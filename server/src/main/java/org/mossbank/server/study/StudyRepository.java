package org.mossbank.server.study;

import jakarta.persistence.LockModeType;
import java.util.Optional;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface StudyRepository extends JpaRepository<Study, StudyId> {
    /** Alone, to change it. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select s from Study s where s.id = :study")
    Optional<Study> lock(StudyId study);

    /** Shared with others who change parts of it, against opening its round. */
    @Lock(LockModeType.PESSIMISTIC_READ)
    @Query("select s from Study s where s.id = :study")
    Optional<Study> hold(StudyId study);
}
