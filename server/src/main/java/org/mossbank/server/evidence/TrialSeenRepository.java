package org.mossbank.server.evidence;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface TrialSeenRepository extends JpaRepository<TrialSeen, SheetAnswerId> {
    @Query("select s from TrialSeen s where s.sheetAnswerId in :answers")
    List<TrialSeen> of(Collection<SheetAnswerId> answers);

    default Set<SheetAnswerId> seenOf(Collection<SheetAnswerId> answers) {
        return of(answers).stream().map(TrialSeen::sheetAnswerId).collect(Collectors.toSet());
    }

    /** Once: whoever looks in two windows saw it first in one of them. */
    @Modifying
    @Query(
            value = "insert into trial_seen (sheet_answer_id, study_id, rater_id, answer_id, seen_at, level) "
                    + "values (:on, :study, :rater, :answer, :at, cast(:level as int)) on conflict do nothing",
            nativeQuery = true)
    void write(UUID on, UUID study, UUID rater, UUID answer, Instant at, @Nullable Integer level);

    @Query("select s from TrialSeen s where s.studyId = :study order by s.seenAt, s.sheetAnswerId")
    List<TrialSeen> ofStudy(StudyId study);
}
