package org.mossbank.server.secret;

import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;
import org.springframework.transaction.annotation.Transactional;

interface ClearedSecretRepository extends JpaRepository<ClearedSecret, ClearedSecret.Key> {
    @Query("select c from ClearedSecret c where c.key.studyId = :study")
    List<ClearedSecret> ofStudy(StudyId study);

    /** Two who say it at once both may. */
    @Modifying
    @Transactional
    @Query(nativeQuery = true, value = """
            insert into cleared_secret (study_id, digest, why, cleared_at, cleared_by)
            values (:study, :digest, :why, :clearedAt, :clearedBy)
            on conflict (study_id, digest) do update
            set why = excluded.why, cleared_at = excluded.cleared_at, cleared_by = excluded.cleared_by""")
    void clear(UUID study, String digest, String why, Instant clearedAt, String clearedBy);
}
