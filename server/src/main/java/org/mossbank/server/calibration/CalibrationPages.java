package org.mossbank.server.calibration;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.IntSummaryStatistics;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.Mark;
import org.mossbank.server.grading.RemarkContent;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyPeople;
import org.springframework.stereotype.Component;

/** Puts together what is seen of a calibration's answers. Within the transaction of whoever asks. */
@Component
class CalibrationPages {
    private final StudyPeople names;
    private final Studies studies;
    private final Masking masking;
    private final CalibrationWordRepository words;

    CalibrationPages(StudyPeople names, Studies studies, Masking masking, CalibrationWordRepository words) {
        this.names = names;
        this.studies = studies;
        this.masking = masking;
        this.words = words;
    }

    /**
     * Who reads a page.
     *
     * @param leads  whether they settle levels
     * @param spoken what is left of somebody's words for a reader who must not know names
     */
    record Reader(AccountId id, boolean leads, UnaryOperator<String> spoken) {}

    /** The answer as raters read it. */
    String text(CalibrationBasis.Shown shown) {
        return Require.known(masking.forRaters(List.of(shown.id())), shown.id()).text();
    }

    /** Those who have sent something in, by name. */
    List<AccountView> raters(CalibrationBasis basis) {
        return names.of(basis.calibration().key().studyId(), basis.raters()).values().stream()
                .sorted(Comparator.comparing(AccountView::displayName).thenComparing(AccountView::signInName))
                .toList();
    }

    List<CalibrationViews.AnswerLevels> levels(CalibrationBasis basis, List<AccountView> raters) {
        Map<CalibrationBasis.Cell, Map<AccountId, Mark>> before = basis.marks(basis.first());
        Map<CalibrationBasis.Cell, Map<AccountId, Mark>> after = basis.marks(basis.again());
        Map<CalibrationBasis.Cell, Integer> reference = basis.levels(Calibrations.Source.REFERENCE);
        Map<CalibrationBasis.Cell, Integer> settled = basis.levels(Calibrations.Source.SETTLED);
        Map<CalibrationBasis.Cell, Integer> said = new HashMap<>();
        Map<Object, Integer> saidOfWhole = new HashMap<>();
        Calibration.Key key = basis.calibration().key();
        words.counted(key.studyId(), key.number()).forEach(w -> {
            if (w.criterionId() == null) {
                saidOfWhole.put(w.answerId(), (int) w.words());
            } else {
                said.merge(
                        new CalibrationBasis.Cell(w.answerId(), basis.key(w.criterionId())),
                        (int) w.words(),
                        Integer::sum);
            }
        });
        return basis.answers().stream()
                .map(shown -> new CalibrationViews.AnswerLevels(
                        shown.place(),
                        shown.prompt().title(),
                        shown.ofPrompt(),
                        basis.criteriaFor(shown.prompt()).stream()
                                .map(c -> new CalibrationBasis.Cell(shown.id(), c.key()))
                                .map(cell -> new CalibrationViews.CellLevels(
                                        cell.criterion(),
                                        inOrder(before.getOrDefault(cell, Map.of()), raters),
                                        basis.again().isEmpty()
                                                ? List.of()
                                                : inOrder(after.getOrDefault(cell, Map.of()), raters),
                                        distance(before.getOrDefault(cell, Map.of())),
                                        reference.get(cell),
                                        settled.get(cell),
                                        said.getOrDefault(cell, 0)))
                                .toList(),
                        saidOfWhole.getOrDefault(shown.id(), 0)))
                .toList();
    }

    private static List<@Nullable Integer> inOrder(Map<AccountId, Mark> marks, List<AccountView> raters) {
        List<@Nullable Integer> levels = new ArrayList<>();
        for (AccountView rater : raters) {
            Mark mark = marks.get(rater.id());
            levels.add(mark == null ? null : mark.level());
        }
        return levels;
    }

    private static int distance(Map<AccountId, Mark> marks) {
        IntSummaryStatistics levels = marks.values().stream()
                .map(Mark::level)
                .filter(Objects::nonNull)
                .mapToInt(Integer::intValue)
                .summaryStatistics();
        return levels.getCount() == 0 ? 0 : levels.getMax() - levels.getMin();
    }

    CalibrationViews.AnswerTalk answer(
            CalibrationBasis basis, CalibrationBasis.Shown shown, Reader reader, boolean talking) {
        PromptView prompt = shown.prompt();
        Calibration.Key key = basis.calibration().key();
        List<CalibrationWord> said =
                words.findByStudyIdAndNumberAndAnswerIdOrderBySaidAt(key.studyId(), key.number(), shown.id());
        Map<AccountId, AccountView> people = names.of(
                key.studyId(),
                Stream.concat(
                                basis.raters().stream(),
                                said.stream().map(w -> w.word().author()))
                        .distinct()
                        .toList());
        Map<AccountId, Grading.AnswerRecord> again = onAnswer(basis.again(), shown);
        return new CalibrationViews.AnswerTalk(
                key.studyId(),
                studies.get(key.studyId()).title(),
                key.number(),
                shown.place(),
                basis.answers().size(),
                shown.ofPrompt(),
                new CalibrationViews.AskedOf(
                        prompt.title(),
                        prompt.kind().id(),
                        prompt.kind().name(),
                        prompt.content().request(),
                        prompt.content().keyPoints()),
                basis.criteriaFor(prompt).stream()
                        .map(c -> criterion(c, prompt.kind().id()))
                        .toList(),
                text(shown),
                onAnswer(basis.first(), shown).entrySet().stream()
                        .map(e -> given(
                                basis,
                                name(e.getKey(), people),
                                e.getKey(),
                                e.getValue(),
                                again.get(e.getKey()),
                                reader))
                        .sorted(Comparator.comparing(CalibrationViews.GivenByRater::name))
                        .toList(),
                basis.agreed().stream()
                        .filter(a -> a.answerId().equals(shown.id()))
                        .map(a -> new CalibrationViews.AgreedView(
                                basis.key(a.criterionId()),
                                a.source(),
                                a.level(),
                                reader.spoken().apply(a.reason()),
                                a.by(),
                                a.at()))
                        .toList(),
                said.stream().map(w -> word(basis, w, people, reader)).toList(),
                talking,
                reader.leads());
    }

    private static Map<AccountId, Grading.AnswerRecord> onAnswer(
            List<Grading.SheetRecord> sheets, CalibrationBasis.Shown shown) {
        Map<AccountId, Grading.AnswerRecord> given = new HashMap<>();
        for (Grading.SheetRecord sheet : sheets) {
            sheet.answers().stream()
                    .filter(a -> a.answerId().equals(shown.id()))
                    .forEach(a -> given.put(sheet.raterId(), a));
        }
        return given;
    }

    private static CalibrationViews.AnchoredCriterion criterion(CriterionView criterion, KindId kind) {
        return new CalibrationViews.AnchoredCriterion(
                criterion.key(),
                criterion.name(),
                criterion.question(),
                criterion.levels().stream()
                        .map(l -> new CalibrationViews.LevelAnchor(
                                l.level(), l.name(), l.anchorFor(kind).orElse("")))
                        .toList());
    }

    private static CalibrationViews.GivenByRater given(
            CalibrationBasis basis,
            String name,
            AccountId rater,
            Grading.AnswerRecord first,
            Grading.@Nullable AnswerRecord again,
            Reader reader) {
        return new CalibrationViews.GivenByRater(
                name,
                rater.equals(reader.id()),
                levels(basis, first),
                again == null ? List.of() : levels(basis, again),
                reader.spoken().apply(first.reason()),
                first.judgement().works(),
                first.coverage().entrySet().stream()
                        .map(e -> new CalibrationViews.PointFound(e.getKey(), e.getValue()))
                        .toList(),
                first.remarks().stream()
                        .map(r -> new RemarkContent(
                                r.stance(), r.trait(), reader.spoken().apply(r.words()), r.lines()))
                        .toList());
    }

    private static List<CalibrationViews.GivenLevel> levels(CalibrationBasis basis, Grading.AnswerRecord given) {
        return given.marks().entrySet().stream()
                .map(e -> new CalibrationViews.GivenLevel(
                        basis.key(e.getKey()),
                        e.getValue().level(),
                        e.getValue().confidence()))
                .sorted(Comparator.comparing(CalibrationViews.GivenLevel::criterion))
                .toList();
    }

    private static CalibrationViews.SaidWord word(
            CalibrationBasis basis, CalibrationWord said, Map<AccountId, AccountView> people, Reader reader) {
        Calibrations.Word word = said.word();
        return new CalibrationViews.SaidWord(
                said.id(),
                name(word.author(), people),
                word.author().equals(reader.id()),
                word.criterionId() == null ? null : basis.key(word.criterionId()),
                word.lines(),
                reader.spoken().apply(word.words()),
                word.at());
    }

    private static String name(AccountId id, Map<AccountId, AccountView> people) {
        return Require.known(people, id).displayName();
    }
}
