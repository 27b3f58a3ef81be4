package org.mossbank.server.study;

import jakarta.persistence.LockModeType;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.study.people.LeaversShown;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface StudyRepository extends JpaRepository<Study, StudyId> {
    /** Alone, to change it. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select s from Study s where s.id = :study")
    Optional<Study> lock(StudyId study);

    /** A study in a list, without all that its brief says. */
    record Head(
            StudyId id,
            String title,
            Instant createdAt,
            @Nullable Instant putAwayAt) {}

    /** Of all studies that somebody belongs to, newest first. */
    @Query("""
            select new org.mossbank.server.study.StudyRepository$Head(s.id, s.title, s.createdAt, s.putAwayAt) from Study s
            where s.id in (select m.key.studyId from Membership m where m.key.accountId = :account and m.accepted = true)
            order by s.createdAt desc, s.id""")
    List<Head> headsOf(AccountId account);

    @Query("select count(s) > 0 from Study s where s.id = :study and s.deletedAt is not null")
    boolean isDeleted(StudyId study);

    @Query("select s.leaversShown from Study s where s.id = :study")
    LeaversShown leaversShown(StudyId study);

    /** Shared with others who change parts of it, against opening its round. */
    @Lock(LockModeType.PESSIMISTIC_READ)
    @Query("select s from Study s where s.id = :study")
    Optional<Study> hold(StudyId study);
}
