package org.mossbank.server.evidence;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface OwnInputRepository extends JpaRepository<OwnInput, UUID> {
    @Query("select i from OwnInput i where i.sheetId = :sheet order by i.givenAt, i.id")
    List<OwnInput> ofSheet(SheetId sheet);

    @Query("select i from OwnInput i where i.id = :input and i.sheetId = :sheet")
    Optional<OwnInput> one(SheetId sheet, UUID input);

    @Query("select count(i) from OwnInput i where i.sheetId = :sheet")
    int countOf(SheetId sheet);

    @Query("select count(i) from OwnInput i where i.raterId = :rater and i.givenAt > :since")
    int countSince(AccountId rater, Instant since);

    @Query("select i from OwnInput i where i.studyId = :study order by i.givenAt, i.id")
    List<OwnInput> ofStudy(StudyId study);

    /** How often each rater gave one. */
    record Times(AccountId raterId, long times) {}

    @Query("select new org.mossbank.server.evidence.OwnInputRepository$Times(i.raterId, count(i)) from OwnInput i "
            + "where i.studyId = :study group by i.raterId")
    List<Times> times(StudyId study);

    @Query("select e from OwnInputEnd e where e.key.inputId in (select i.id from OwnInput i where i.sheetId = :sheet)")
    List<OwnInputEnd> endsOf(SheetId sheet);

    @Query("select e from OwnInputEnd e where e.key.inputId in (select i.id from OwnInput i where i.studyId = :study)")
    List<OwnInputEnd> endsOf(StudyId study);

    @Query("select e from OwnInputEnd e where e.key = :key")
    Optional<OwnInputEnd> end(OwnInputEnd.Key key);

    /** What came first stays. */
    @Modifying
    @Query(
            value = "insert into own_input_end (input_id, sheet_answer_id, result) values (:input, :answer, :result) "
                    + "on conflict do nothing",
            nativeQuery = true)
    void keep(UUID input, UUID answer, String result);
}
