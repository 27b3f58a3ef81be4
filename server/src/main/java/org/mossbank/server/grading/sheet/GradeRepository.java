package org.mossbank.server.grading.sheet;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

public interface GradeRepository extends JpaRepository<Grade, Grade.Key> {
    @Query("select g from Grade g where g.key.sheetAnswerId in :sheetAnswers")
    List<Grade> ofSheetAnswers(Collection<SheetAnswerId> sheetAnswers);

    @Query("""
            select g from Grade g join SheetAnswer a on a.id = g.key.sheetAnswerId join Sheet s on s.id = a.sheetId
            where s.studyId = :study""")
    List<Grade> ofStudy(StudyId study);

    /** What sheets begin with, at the first revision; all arrays in the same order. */
    @Modifying
    @Query(nativeQuery = true, value = """
                    insert into grade (sheet_answer_id, criterion_id, level, not_applicable, confidence, revision)
                    select t.answer, t.criterion, t.level, t.not_applicable, t.confidence, 1
                    from unnest(cast(:answers as uuid[]), cast(:criteria as uuid[]), cast(:levels as int[]),
                        cast(:notApplicable as boolean[]), cast(:confidences as text[]))
                        as t (answer, criterion, level, not_applicable, confidence)""")
    void begin(
            UUID[] answers,
            UUID[] criteria,
            @Nullable Integer[] levels,
            Boolean[] notApplicable,
            @Nullable String[] confidences);
}
