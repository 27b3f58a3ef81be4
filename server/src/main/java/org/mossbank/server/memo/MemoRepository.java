package org.mossbank.server.memo;

import jakarta.persistence.LockModeType;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface MemoRepository extends JpaRepository<Memo, UUID> {
    List<Memo> findByStudyIdOrderByNumber(StudyId study);

    Optional<Memo> findByStudyIdAndNumber(StudyId study, int number);

    Optional<Memo> findFirstByStudyIdOrderByNumberDesc(StudyId study);

    /** Those of the studies that have a signed memo. */
    @Query(
            "select m.studyId as id, count(m) as signed from Memo m where m.studyId in :studies and m.signedAt is not null group by m.studyId")
    List<Signed> signed(Collection<StudyId> studies);

    /** A study with a signed memo. */
    interface Signed {
        StudyId getId();
    }

    /** Alone, to change it. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select m from Memo m where m.studyId = :study and m.number = :number")
    Optional<Memo> lock(StudyId study, int number);
}
