package org.mossbank.server.grading.sheet;

import jakarta.persistence.LockModeType;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.RepeatDistance;
import org.mossbank.server.grading.SaidOfAnswers;
import org.mossbank.server.grading.SentPlace;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

public interface SheetRepository extends JpaRepository<Sheet, SheetId> {
    /** How many sheets a rater has in each study. */
    @Query("""
            select new org.mossbank.server.grading.sheet.SheetCount(s.studyId, count(s)) from Sheet s
            where s.raterId = :rater group by s.studyId""")
    List<SheetCount<StudyId>> byStudy(AccountId rater);

    List<Sheet> findByRaterIdAndStudyIdInOrderByPlace(AccountId raterId, Collection<StudyId> studyIds);

    /** How many sheets a rater has in each study that are neither sent in nor withdrawn. */
    @Query("""
            select new org.mossbank.server.grading.sheet.SheetCount(s.studyId, count(s)) from Sheet s
            where s.raterId = :rater and s.sentAt is null and s.withdrawnAt is null group by s.studyId""")
    List<SheetCount<StudyId>> waiting(AccountId rater);

    /** Of a study's sheets that were not withdrawn, how many there are and how many are sent in. */
    record SheetsIn(StudyId studyId, long all, long in) {}

    @Query("""
            select new org.mossbank.server.grading.sheet.SheetRepository$SheetsIn(s.studyId, count(s), count(s.sentAt)) from Sheet s
            where s.studyId in :studies and s.withdrawnAt is null group by s.studyId""")
    List<SheetsIn> sentIn(Collection<StudyId> studies);

    List<Sheet> findByStudyIdOrderByRaterIdAscPlaceAsc(StudyId studyId);

    /** A sheet on the board of a round, of which there may be thousands. */
    record OnBoard(
            SheetId id,
            PromptId promptId,
            AccountId raterId,
            int place,
            boolean repeat,
            @Nullable Integer rubricVersion,
            @Nullable Instant sentAt,
            @Nullable String withdrawnReason) {}

    @Query("""
            select new org.mossbank.server.grading.sheet.SheetRepository$OnBoard(s.id, s.promptId, s.raterId, s.place, s.repeat,
                s.rubricVersion, s.sentAt, s.withdrawnReason)
            from Sheet s where s.studyId = :study order by s.raterId, s.place""")
    List<OnBoard> onBoard(StudyId study);

    List<Sheet> findByStudyIdAndRaterIdOrderByPlace(StudyId studyId, AccountId raterId);

    List<Sheet> findByStudyIdAndPromptId(StudyId studyId, PromptId promptId);

    List<Sheet> findByPromptIdIn(Collection<PromptId> prompts);

    List<Sheet> findByStudyIdAndPromptIdIn(StudyId study, Collection<PromptId> prompts);

    /** With how long they were looked at; nothing was done on them. */
    @Modifying
    @Query(nativeQuery = true, value = """
                    with gone as (select a.id from sheet_answer a join sheet s on s.id = a.sheet_id
                            where s.study_id = :#{#study.value()} and s.rater_id = :#{#rater.value()}),
                        times as (delete from active_time where sheet_answer_id in (select id from gone) returning 1)
                    delete from sheet_answer where id in (select id from gone)""")
    void forgetAnswers(StudyId study, AccountId rater);

    void deleteByStudyIdAndRaterId(StudyId study, AccountId rater);

    /** One writer a sheet at a time: two tabs take turns. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select s from Sheet s where s.id = :sheet")
    Optional<Sheet> lock(SheetId sheet);

    /** What never changes about a sheet. */
    record Ids(
            StudyId studyId,
            AccountId raterId,
            PromptId promptId,
            @Nullable Integer rubricVersion) {}

    /** Without the sheet itself, so that it is read afresh when it is locked. */
    @Query("""
            select new org.mossbank.server.grading.sheet.SheetRepository$Ids(s.studyId, s.raterId, s.promptId, s.rubricVersion)
            from Sheet s where s.id = :sheet""")
    Optional<Ids> ids(SheetId sheet);

    /** Marks made so far on each sheet. */
    @Query("""
            select new org.mossbank.server.grading.sheet.SheetCount(a.sheetId, count(g))
            from SheetAnswer a join Grade g on g.key.sheetAnswerId = a.id
            where a.sheetId in :sheets and (g.level is not null or g.notApplicable = true)
            group by a.sheetId""")
    List<SheetCount<SheetId>> countMarks(List<SheetId> sheets);

    /** The same of each sheet that a rater has in some studies. */
    @Query("""
            select new org.mossbank.server.grading.sheet.SheetCount(a.sheetId, count(g))
            from SheetAnswer a join Grade g on g.key.sheetAnswerId = a.id
            where a.sheetId in (select s.id from Sheet s where s.raterId = :rater and s.studyId in :studies)
                and (g.level is not null or g.notApplicable = true)
            group by a.sheetId""")
    List<SheetCount<SheetId>> countOwnMarks(AccountId rater, Collection<StudyId> studies);

    @Query("""
            select new org.mossbank.server.grading.sheet.SheetCount(a.sheetId, count(a)) from SheetAnswer a
            where a.sheetId in (select s.id from Sheet s where s.raterId = :rater and s.studyId in :studies)
            group by a.sheetId""")
    List<SheetCount<SheetId>> countOwnAnswers(AccountId rater, Collection<StudyId> studies);

    @Query("""
            select new org.mossbank.server.grading.sheet.SheetCount(a.sheetId, count(a))
            from SheetAnswer a where a.sheetId in :sheets group by a.sheetId""")
    List<SheetCount<SheetId>> countAnswers(List<SheetId> sheets);

    /** Of what a sheet holds, how many answers there are, and how many have a reason. */
    record Held(SheetId id, long answers, long reasons) {}

    @Query("""
            select new org.mossbank.server.grading.sheet.SheetRepository$Held(a.sheetId, count(a), count(nullif(a.reason, '')))
            from SheetAnswer a where a.sheetId in (select s.id from Sheet s where s.studyId = :study) group by a.sheetId""")
    List<Held> heldBySheetsOf(StudyId study);

    /** Marks made so far on each sheet of a study that is not sent in yet: on one that is, all are made. */
    @Query("""
            select new org.mossbank.server.grading.sheet.SheetCount(a.sheetId, count(g))
            from SheetAnswer a join Grade g on g.key.sheetAnswerId = a.id
            where a.sheetId in (select s.id from Sheet s where s.studyId = :study and s.sentAt is null)
                and (g.level is not null or g.notApplicable = true)
            group by a.sheetId""")
    List<SheetCount<SheetId>> countMarksOnUnsent(StudyId study);

    @Query("""
            select cast(count(s) as int) from Sheet s
            where s.studyId = :study and s.promptId in :prompts and s.repeat = false
                and s.sentAt > :moment and s.withdrawnAt is null""")
    int countSentAfter(StudyId study, List<PromptId> prompts, Instant moment);

    @Query("""
            select cast(count(s) as int) from Sheet s
            where s.studyId = :study and s.promptId in :prompts and s.repeat = false and s.withdrawnAt is not null""")
    int countWithdrawn(StudyId study, List<PromptId> prompts);

    /** Of sheets for some prompts, repeats among them, but for those that were withdrawn. */
    @Query("""
            select new org.mossbank.server.grading.Grading$SheetTotals(
                cast(count(s.sentAt) as int), cast(count(s) as int))
            from Sheet s where s.studyId = :study and s.promptId in :prompts and s.withdrawnAt is null""")
    Grading.SheetTotals totals(StudyId study, List<PromptId> prompts);

    /** Where and when each answer was graded, on first sheets that were sent in for some prompts. */
    @Query("""
            select new org.mossbank.server.grading.SentPlace(
                s.raterId, a.answerId, s.place, a.place, s.sentAt, a.guessCandidateId)
            from Sheet s join SheetAnswer a on a.sheetId = s.id
            where s.studyId = :study and s.promptId in :prompts and s.repeat = false
                and s.sentAt is not null and s.withdrawnAt is null
            order by a.answerId, s.raterId""")
    List<SentPlace> sentPlaces(StudyId study, List<PromptId> prompts);

    @Query("""
            select new org.mossbank.server.grading.sheet.SheetCount(a.answerId, count(s))
            from Sheet s join SheetAnswer a on a.sheetId = s.id
            where s.studyId = :study and s.promptId in :prompts and s.repeat = false and s.sentAt is not null
                and s.withdrawnAt is null
            group by a.answerId""")
    List<SheetCount<AnswerId>> ratersByAnswer(StudyId study, List<PromptId> prompts);

    @Query("""
            select new org.mossbank.server.grading.SaidOfAnswers$WorksSaid(a.answerId, a.works, count(a))
            from Sheet s join SheetAnswer a on a.sheetId = s.id
            where s.studyId = :study and s.promptId in :prompts and s.repeat = false and s.sentAt is not null
                and s.withdrawnAt is null and a.works is not null
            group by a.answerId, a.works""")
    List<SaidOfAnswers.WorksSaid> worksSaid(StudyId study, List<PromptId> prompts);

    /** Whose a sheet is, and for what. */
    record SheetPlace(SheetId id, AccountId raterId, PromptId promptId, boolean repeat) {}

    @Query("""
            select new org.mossbank.server.grading.sheet.SheetRepository$SheetPlace(s.id, s.raterId, s.promptId, s.repeat)
            from Sheet s where s.studyId = :study""")
    List<SheetPlace> places(StudyId study);

    /** On whose sheet an answer lies. */
    record AnswerPlace(SheetAnswerId id, AccountId raterId, AnswerId answerId, boolean repeat) {}

    @Query("""
            select new org.mossbank.server.grading.sheet.SheetRepository$AnswerPlace(a.id, s.raterId, a.answerId, s.repeat)
            from Sheet s join SheetAnswer a on a.sheetId = s.id where s.studyId = :study""")
    List<AnswerPlace> answerPlaces(StudyId study);

    @Query("""
            select new org.mossbank.server.grading.SaidOfAnswers$WhySaid(a.answerId, s.raterId, a.works, a.worksWhy)
            from Sheet s join SheetAnswer a on a.sheetId = s.id
            where s.studyId = :study and s.promptId in :prompts and s.repeat = false and s.sentAt is not null
                and s.withdrawnAt is null and a.works is not null and a.worksWhy <> ''
            order by a.answerId, s.raterId""")
    List<SaidOfAnswers.WhySaid> whysSaid(StudyId study, List<PromptId> prompts);

    @Query("""
            select new org.mossbank.server.grading.SaidOfAnswers$PointsFound(a.answerId, c.verdict, count(c))
            from Sheet s join SheetAnswer a on a.sheetId = s.id join Coverage c on c.key.sheetAnswerId = a.id
            where s.studyId = :study and s.promptId in :prompts and s.repeat = false and s.sentAt is not null
                and s.withdrawnAt is null and c.verdict is not null
            group by a.answerId, c.verdict""")
    List<SaidOfAnswers.PointsFound> pointsFound(StudyId study, List<PromptId> prompts);

    @Query("""
            select new org.mossbank.server.grading.SaidOfAnswers$TraitSaid(
                a.answerId, r.stance, r.trait, count(distinct s.raterId))
            from Sheet s join SheetAnswer a on a.sheetId = s.id join Remark r on r.sheetAnswerId = a.id
            where s.studyId = :study and s.promptId in :prompts and s.repeat = false and s.sentAt is not null
                and s.withdrawnAt is null and r.removed = false and r.trait <> ''
            group by a.answerId, r.stance, r.trait""")
    List<SaidOfAnswers.TraitSaid> traitsSaid(StudyId study, List<PromptId> prompts);

    /** First sheets with the ones on which their answers came again, both sent in for some prompts. */
    @Query("""
            select new org.mossbank.server.grading.RepeatDistance(s.raterId, t.place - s.place, s.sentAt, t.sentAt)
            from Sheet s join Sheet t on t.studyId = s.studyId and t.raterId = s.raterId and t.promptId = s.promptId
            where s.studyId = :study and s.promptId in :prompts and s.repeat = false and t.repeat = true
                and s.sentAt is not null and t.sentAt is not null
                and s.withdrawnAt is null and t.withdrawnAt is null""")
    List<RepeatDistance> repeatDistances(StudyId study, List<PromptId> prompts);

    record GradedAnswer(AnswerId answerId, PromptId promptId, long raters) {}

    /** How many raters have sent in a first sheet with each of some answers. */
    @Query("""
            select new org.mossbank.server.grading.sheet.SheetRepository$GradedAnswer(a.answerId, s.promptId, count(s))
            from Sheet s join SheetAnswer a on a.sheetId = s.id
            where a.answerId in :answers and s.repeat = false and s.sentAt is not null and s.withdrawnAt is null
            group by a.answerId, s.promptId""")
    List<GradedAnswer> gradedAnswers(List<AnswerId> answers);

    record SentAnswer(AnswerId answerId, PromptId promptId) {}

    /** Answers that a rater graded, on first sheets that were sent in. */
    @Query("""
            select new org.mossbank.server.grading.sheet.SheetRepository$SentAnswer(a.answerId, s.promptId)
            from Sheet s join SheetAnswer a on a.sheetId = s.id
            where s.studyId in :studies and s.raterId = :rater and s.repeat = false
                and s.sentAt is not null and s.withdrawnAt is null""")
    List<SentAnswer> answersSentBy(Collection<StudyId> studies, AccountId rater);

    /** Answers on sheets for some prompts, sent in or not. */
    @Query("""
            select distinct new org.mossbank.server.grading.sheet.SheetRepository$SentAnswer(a.answerId, s.promptId)
            from Sheet s join SheetAnswer a on a.sheetId = s.id
            where s.studyId = :study and s.promptId in :prompts""")
    List<SentAnswer> answersOn(StudyId study, Collection<PromptId> prompts);

    @Query("""
            select new org.mossbank.server.grading.Grading$Unsent(s.studyId, s.raterId, s.promptId)
            from Sheet s where s.studyId in :studies and s.sentAt is null and s.withdrawnAt is null""")
    List<Grading.Unsent> unsent(Collection<StudyId> studies);
}
