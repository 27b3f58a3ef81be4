package org.mossbank.server.grading.sheet;

import java.time.Instant;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

public interface GradingChangeRepository extends JpaRepository<GradingChange, UUID> {
    /** What sheets begin with, at the first revision of each cell; all arrays in the same order. */
    @Modifying
    @Query(nativeQuery = true, value = """
                    insert into grading_change (change_id, sheet_answer_id, part, item, value, revision, made_at)
                    select gen_random_uuid(), t.answer, t.part, t.item, t.value, 1, :now
                    from unnest(cast(:answers as uuid[]), cast(:parts as text[]), cast(:items as text[]),
                        cast(:values as text[])) as t (answer, part, item, value)""")
    void begin(UUID[] answers, String[] parts, String[] items, String[] values, Instant now);
}
