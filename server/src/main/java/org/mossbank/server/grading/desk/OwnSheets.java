package org.mossbank.server.grading.desk;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.grading.sheet.Round;
import org.mossbank.server.grading.sheet.RoundRepository;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetCount;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyView;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The sheets of whoever asks. */
@Service
@Transactional(readOnly = true)
class OwnSheets {
    /** Studies whose round is closed, of which there are more with every year. */
    static final int MOST_CLOSED = 20;

    private final SheetRepository sheets;
    private final RoundRepository rounds;
    private final Studies studies;
    private final Prompts prompts;
    private final Rubrics rubrics;
    private final CurrentAccount current;

    OwnSheets(
            SheetRepository sheets,
            RoundRepository rounds,
            Studies studies,
            Prompts prompts,
            Rubrics rubrics,
            CurrentAccount current) {
        this.sheets = sheets;
        this.rounds = rounds;
        this.studies = studies;
        this.prompts = prompts;
        this.rubrics = rubrics;
        this.current = current;
    }

    /**
     * The sheets of whoever asks, by study, in the order in which they come.
     *
     * @param earlier which of the studies whose round is closed, so many at a time and those that closed last first; those whose
     *                round is open come with the first
     */
    @PreAuthorize("isAuthenticated()")
    public List<SheetSummary> mine(int earlier) {
        AccountId rater = current.id();
        Map<StudyId, Round> of = rounds(rater);
        Set<StudyId> shown = shown(of.values(), earlier);
        Map<StudyId, StudyView> views = studies.byId(shown);
        Map<PromptId, Prompts.Outline> outlines =
                prompts.outlines(shown).stream().collect(Collectors.toMap(Prompts.Outline::id, Function.identity()));
        Set<PromptId> sound = outlines.values().stream()
                .filter(p -> !p.isFaulty())
                .map(Prompts.Outline::id)
                .collect(Collectors.toSet());
        Map<StudyId, List<CriterionView>> criteria = rubrics.ofStudies(shown);
        Map<SheetId, Long> made = SheetCount.byId(sheets.countOwnMarks(rater, shown));
        Map<SheetId, Long> answers = SheetCount.byId(sheets.countOwnAnswers(rater, shown));
        List<SheetSummary> result = new ArrayList<>();
        sheets.findByRaterIdAndStudyIdInOrderByPlace(rater, shown).stream()
                .collect(Collectors.groupingBy(Sheet::studyId))
                .forEach((study, own) -> {
                    boolean closed = Require.known(of, study).isClosed();
                    for (Sheet sheet : closed ? own : Repeats.told(own, sound)) {
                        Prompts.Outline prompt = Require.known(outlines, sheet.promptId());
                        long cells = answers.getOrDefault(sheet.id(), 0L)
                                * DeskService.applicable(Require.known(criteria, study), prompt.kindId())
                                        .size();
                        String title = Require.known(views, study).title();
                        result.add(summary(sheet, title, prompt, made.getOrDefault(sheet.id(), 0L), cells, closed));
                    }
                });
        result.sort(Comparator.comparing(
                        (SheetSummary s) -> Require.known(views, s.studyId()).createdAt())
                .reversed()
                .thenComparing(SheetSummary::studyId, Comparator.comparing(StudyId::value))
                .thenComparing(SheetSummary::place));
        return result;
    }

    /** Of the studies in which somebody has sheets, and to which they belong still. */
    private Map<StudyId, Round> rounds(AccountId rater) {
        Set<StudyId> member = studies.ofMember(rater).keySet();
        return rounds
                .findAllById(SheetCount.byId(sheets.byStudy(rater)).keySet().stream()
                        .filter(member::contains)
                        .toList())
                .stream()
                .collect(Collectors.toMap(Round::studyId, Function.identity()));
    }

    private static Set<StudyId> shown(Collection<Round> of, int earlier) {
        Stream<Round> closed = of.stream()
                .filter(Round::isClosed)
                .sorted(Comparator.comparing((Round r) -> r.closedAt().orElseThrow())
                        .reversed()
                        .thenComparing(r -> r.studyId().value()))
                .skip((long) earlier * MOST_CLOSED)
                .limit(MOST_CLOSED);
        Stream<Round> open = earlier > 0 ? Stream.of() : of.stream().filter(r -> !r.isClosed());
        return Stream.concat(open, closed).map(Round::studyId).collect(Collectors.toSet());
    }

    private static SheetSummary summary(
            Sheet sheet, String studyTitle, Prompts.Outline prompt, long made, long cells, boolean closed) {
        return new SheetSummary(
                sheet.id(),
                sheet.studyId(),
                studyTitle,
                prompt.title(),
                prompt.kindName(),
                sheet.place() + 1,
                prompt.calibration(),
                made,
                cells,
                sheet.sentAt().orElse(null),
                closed,
                prompt.isFaulty(),
                sheet.isWithdrawn());
    }
}
