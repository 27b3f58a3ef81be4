package org.mossbank.server.grading;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.server.grading.sheet.Coverage;
import org.mossbank.server.grading.sheet.CoverageRepository;
import org.mossbank.server.grading.sheet.Grade;
import org.mossbank.server.grading.sheet.GradeRepository;
import org.mossbank.server.grading.sheet.Remark;
import org.mossbank.server.grading.sheet.RemarkRepository;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetAnswer;
import org.mossbank.server.grading.sheet.SheetAnswerRepository;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Chunks;
import org.springframework.stereotype.Component;

/** Reads sheets with all that is on them. Within the transaction of whoever asks. */
@Component
class SheetRecords {
    private final SheetRepository sheets;
    private final SheetAnswerRepository sheetAnswers;
    private final GradeRepository grades;
    private final CoverageRepository coverages;
    private final RemarkRepository remarks;

    SheetRecords(
            SheetRepository sheets,
            SheetAnswerRepository sheetAnswers,
            GradeRepository grades,
            CoverageRepository coverages,
            RemarkRepository remarks) {
        this.sheets = sheets;
        this.sheetAnswers = sheetAnswers;
        this.grades = grades;
        this.coverages = coverages;
        this.remarks = remarks;
    }

    /** Every sheet with all that is on it, by rater and place. */
    List<Grading.SheetRecord> ofStudy(StudyId study) {
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

    private static List<Grading.SheetRecord> records(List<Sheet> all, List<SheetAnswer> onSheets, Said said) {
        Map<SheetId, List<SheetAnswer>> bySheet =
                onSheets.stream().collect(Collectors.groupingBy(SheetAnswer::sheetId));
        return all.stream()
                .map(s -> new Grading.SheetRecord(
                        s.raterId(),
                        s.promptId(),
                        s.place(),
                        s.isRepeat(),
                        s.rubricVersion().orElse(null),
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
        Grading.AnswerRecord of(SheetAnswer answer) {
            Map<Integer, Verdict> verdicts = new TreeMap<>();
            for (Coverage one : coverage.getOrDefault(answer.id(), List.of())) {
                if (one.verdict() != null) {
                    verdicts.put(one.key().point(), one.verdict());
                }
            }
            return new Grading.AnswerRecord(
                    answer.answerId(),
                    answer.place(),
                    answer.reason(),
                    marks.getOrDefault(answer.id(), List.of()).stream()
                            .filter(g -> g.mark().isMade())
                            .collect(Collectors.toMap(g -> g.key().criterionId(), Grade::mark)),
                    new Grading.Judgement(
                            answer.works(),
                            answer.worksWhy(),
                            answer.preference(),
                            answer.guess(),
                            activeMs.getOrDefault(answer.id(), 0L)),
                    verdicts,
                    remarks.getOrDefault(answer.id(), List.of()).stream()
                            .flatMap(r -> r.content().stream())
                            .toList());
        }
    }

    /** The first sheets for one prompt that were sent in, or the repeats; how long each answer was looked at is left out. */
    List<Grading.SheetRecord> sentFor(StudyId study, PromptId prompt, boolean repeats) {
        List<Sheet> sent = sheets.findByStudyIdAndPromptId(study, prompt).stream()
                .filter(s -> s.isSent() && s.isRepeat() == repeats && !s.isWithdrawn())
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
