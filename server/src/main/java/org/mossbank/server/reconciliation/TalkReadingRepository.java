package org.mossbank.server.reconciliation;

import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface TalkReadingRepository extends JpaRepository<TalkReading, TalkReading.Key> {
    /** Reading twice at once is reading. */
    @Modifying
    @Query(value = """
                    insert into talk_reading (reconciliation_id, reader_id, first_read_at, last_read_at)
                    values (:reconciliation, :reader, :now, :now)
                    on conflict (reconciliation_id, reader_id) do update set last_read_at = excluded.last_read_at""", nativeQuery = true)
    void read(UUID reconciliation, UUID reader, Instant now);

    @Query("select t from TalkReading t where t.key.readerId = :reader")
    List<TalkReading> ofReader(AccountId reader);

    /** Talks of a study that somebody has read, spoken in or taken a stance in. */
    @Query("""
            select count(r) > 0 from Reconciliation r where r.studyId = :study and (
                exists (select t from TalkReading t where t.key.reconciliationId = r.id and t.key.readerId = :reader)
                or exists (select w from SplitWord w where w.reconciliationId = r.id and w.authorId = :reader)
                or exists (select s from Stance s where s.reconciliationId = r.id and s.raterId = :reader))""")
    boolean hasRead(StudyId study, AccountId reader);
}
