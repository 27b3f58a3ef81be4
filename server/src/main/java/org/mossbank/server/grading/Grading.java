package org.mossbank.server.grading;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.sheet.Coverage;
import org.mossbank.server.grading.sheet.CoverageRepository;
import org.mossbank.server.grading.sheet.Grade;
import org.mossbank.server.grading.sheet.GradeRepository;
import org.mossbank.server.grading.sheet.Remark;
import org.mossbank.server.grading.sheet.RemarkRepository;
import org.mossbank.server.grading.sheet.Round;
import org.mossbank.server.grading.sheet.RoundRepository;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetAnswer;
import org.mossbank.server.grading.sheet.SheetAnswerRepository;
import org.mossbank.server.grading.sheet.SheetCount;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.Chunks;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Rounds, sheets and grades, for other modules. */
@Service
@Transactional(readOnly = true)
public class Grading {
    private final RoundRepository rounds;
    private final SheetRepository sheets;
    private final SheetAnswerRepository sheetAnswers;
    private final GradeRepository grades;
    private final CoverageRepository coverages;
    private final RemarkRepository remarks;
    private final Prompts prompts;
    private final RoundOpening opening;
    private final SentGrades sentGrades;

    Grading(
            RoundRepository rounds,
            SheetRepository sheets,
            SheetAnswerRepository sheetAnswers,
            GradeRepository grades,
            CoverageRepository coverages,
            RemarkRepository remarks,
            Prompts prompts,
            RoundOpening opening,
            SentGrades sentGrades) {
        this.sentGrades = sentGrades;
        this.rounds = rounds;
        this.sheets = sheets;
        this.sheetAnswers = sheetAnswers;
        this.grades = grades;
        this.coverages = coverages;
        this.remarks = remarks;
        this.prompts = prompts;
        this.opening = opening;
    }

    /**
     * A sheet with all that is on it; places from 0.
     *
     * @param withdrawn absent unless the lead withdrew it; then nothing on it counts
     */
    public record SheetRecord(
            AccountId raterId,
            PromptId promptId,
            int place,
            boolean repeat,
            @Nullable Instant sentAt,
            @Nullable Withdrawn withdrawn,
            List<AnswerRecord> answers) {}

    /** When and why the lead withdrew a sheet. */
    public record Withdrawn(Instant at, String reason) {}

    /**
     * What a rater says of one answer.
     *
     * @param place    on the sheet, from 0
     * @param marks    by criterion
     * @param coverage by key point, from 0
     */
    public record AnswerRecord(
            AnswerId answerId,
            int place,
            String reason,
            Map<CriterionId, Mark> marks,
            Judgement judgement,
            Map<Integer, Verdict> coverage,
            List<RemarkContent> remarks) {
        /** An answer of which nothing is said yet. */
        public static AnswerRecord blank(AnswerId answerId, int place) {
            return new AnswerRecord(answerId, place, "", Map.of(), Judgement.NONE, Map.of(), List.of());
        }
    }

    /**
     * What a rater says of an answer as a whole.
     *
     * @param preference place in the order of preference, from 1
     * @param activeMs   how long it was looked at, in milliseconds; 0 if that was not measured
     */
    public record Judgement(
            @Nullable Works works,
            @Nullable Integer preference,
            @Nullable Guess guess,
            long activeMs) {
        public static final Judgement NONE = new Judgement(null, null, null, 0);
    }

    /** How the round was planned, and from when to when it runs. */
    public record NewRound(
            Instant openedAt,
            @Nullable Instant closedAt,
            @Nullable Instant namesOpenedAt,
            @Nullable Integer ratersAnAnswer,
            @Nullable Double repeatShare,
            boolean leadWasBlind) {}

    /**
     * The round as it stands.
     *
     * @param revision     counts up with everything that figures are computed from
     * @param namesOpenedAt when it was closed for the first time, from when on raters knew names
     * @param leadWasBlind whether the lead graded, and saw no more than a rater meanwhile
     */
    public record RoundState(
            Instant openedAt,
            @Nullable Instant closedAt,
            @Nullable Instant namesOpenedAt,
            long revision,
            @Nullable Integer ratersAnAnswer,
            @Nullable Double repeatShare,
            boolean leadWasBlind) {}

    /** Opens the round with its sheets, empty or partly graded; a closing time makes it a closed one. */
    @SystemOnly
    @Transactional
    public void open(StudyId study, NewRound round, List<SheetRecord> starts) {
        opening.open(study, round, starts);
    }

    /** The round, if it was opened. */
    @SystemOnly
    public Optional<RoundState> round(StudyId study) {
        return rounds.findById(study).map(Round::state);
    }

    /** How many sheets there are, and how many of them are sent in. */
    public record SheetTotals(int sent, int sheets) {}

    /** Of sheets for sound prompts that were not withdrawn. */
    @SystemOnly
    public SheetTotals totals(StudyId study) {
        List<PromptId> sound = sound(study);
        List<Sheet> all = sheets.findByStudyIdOrderByRaterIdAscPlaceAsc(study).stream()
                .filter(s -> sound.contains(s.promptId()) && !s.isWithdrawn())
                .toList();
        return new SheetTotals((int) all.stream().filter(Sheet::isSent).count(), all.size());
    }

    private List<PromptId> sound(StudyId study) {
        return prompts.soundIds(study);
    }

    /** How many sheets that count were sent in after a moment. */
    @SystemOnly
    public int sentAfter(StudyId study, Instant moment) {
        return sheets.countSentAfter(study, sound(study), moment);
    }

    /** Grades on sheets that were sent in for sound prompts, in a stable order; repeats are left out. */
    @SystemOnly
    public List<SentGrade> sentGrades(StudyId study) {
        return sentGrades.of(study, sound(study), false);
    }

    /** Where and when each answer to a sound prompt was graded, in a stable order; repeats are left out. */
    @SystemOnly
    public List<SentPlace> sentPlaces(StudyId study) {
        return sheets.sentPlaces(study, sound(study));
    }

    /** Grades on repeats that were sent in: what self-agreement sets against the first ones. */
    @SystemOnly
    public List<SentGrade> repeatGrades(StudyId study) {
        return sentGrades.of(study, sound(study), true);
    }

    /** How many raters have sent in a sheet with each answer to a sound prompt; answers that none has are left out. */
    @SystemOnly
    public Map<AnswerId, Long> ratersByAnswer(StudyId study) {
        return SheetCount.byId(sheets.ratersByAnswer(study, sound(study)));
    }

    /** Every sheet with all that is on it, by rater and place. */
    @SystemOnly
    public List<SheetRecord> records(StudyId study) {
        Said said = new Said(
                byAnswer(grades.ofStudy(study), g -> g.key().sheetAnswerId()),
                byAnswer(coverages.ofStudy(study), c -> c.key().sheetAnswerId()),
                byAnswer(remarks.ofStudy(study), Remark::sheetAnswerId),
                times(study));
        return records(sheets.findByStudyIdOrderByRaterIdAscPlaceAsc(study), sheetAnswers.ofStudy(study), said);
    }

    private static <T> Map<SheetAnswerId, List<T>> byAnswer(List<T> all, Function<T, SheetAnswerId> answer) {
        return all.stream().collect(Collectors.groupingBy(answer));
    }

    private static List<SheetRecord> records(List<Sheet> all, List<SheetAnswer> onSheets, Said said) {
        Map<SheetId, List<SheetAnswer>> bySheet =
                onSheets.stream().collect(Collectors.groupingBy(SheetAnswer::sheetId));
        return all.stream()
                .map(s -> new SheetRecord(
                        s.raterId(),
                        s.promptId(),
                        s.place(),
                        s.isRepeat(),
                        s.sentAt().orElse(null),
                        s.withdrawn(),
                        bySheet.getOrDefault(s.id(), List.of()).stream()
                                .map(said::of)
                                .toList()))
                .toList();
    }

    private Map<SheetAnswerId, Long> times(StudyId study) {
        return sheetAnswers.activeMs(study).stream()
                .collect(Collectors.toMap(t -> new SheetAnswerId(t.getId()), SheetAnswerRepository.ActiveTime::getMs));
    }

    /** What was said of answers on sheets, by the answer's id there. */
    private record Said(
            Map<SheetAnswerId, List<Grade>> marks,
            Map<SheetAnswerId, List<Coverage>> coverage,
            Map<SheetAnswerId, List<Remark>> remarks,
            Map<SheetAnswerId, Long> activeMs) {
        AnswerRecord of(SheetAnswer answer) {
            Map<Integer, Verdict> verdicts = new TreeMap<>();
            for (Coverage one : coverage.getOrDefault(answer.id(), List.of())) {
                if (one.verdict() != null) {
                    verdicts.put(one.key().point(), one.verdict());
                }
            }
            return new AnswerRecord(
                    answer.answerId(),
                    answer.place(),
                    answer.reason(),
                    marks.getOrDefault(answer.id(), List.of()).stream()
                            .filter(g -> g.mark().isMade())
                            .collect(Collectors.toMap(g -> g.key().criterionId(), Grade::mark)),
                    new Judgement(
                            answer.works(),
                            answer.preference(),
                            answer.guess(),
                            activeMs.getOrDefault(answer.id(), 0L)),
                    verdicts,
                    remarks.getOrDefault(answer.id(), List.of()).stream()
                            .flatMap(r -> r.content().stream())
                            .toList());
        }
    }

    /** The first sheets for one prompt that were sent in; how long each answer was looked at is left out. */
    @SystemOnly
    public List<SheetRecord> sentRecords(StudyId study, PromptId prompt) {
        List<Sheet> sent = sheets.findByStudyIdAndPromptId(study, prompt).stream()
                .filter(s -> s.isSent() && !s.isRepeat() && !s.isWithdrawn())
                .toList();
        List<SheetAnswer> onSheets =
                Chunks.of(sent.stream().map(Sheet::id).toList(), sheetAnswers::findBySheetIdInOrderByPlace);
        List<SheetAnswerId> ids = onSheets.stream().map(SheetAnswer::id).toList();
        Said said = new Said(
                byAnswer(Chunks.of(ids, grades::ofSheetAnswers), g -> g.key().sheetAnswerId()),
                byAnswer(Chunks.of(ids, coverages::ofSheetAnswers), c -> c.key().sheetAnswerId()),
                byAnswer(Chunks.of(ids, remarks::ofSheetAnswers), Remark::sheetAnswerId),
                Map.of());
        return records(sent, onSheets, said);
    }
}
