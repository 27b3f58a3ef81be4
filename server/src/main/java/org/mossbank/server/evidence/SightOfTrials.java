package org.mossbank.server.evidence;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.trial.TrialStanding;
import org.mossbank.server.grading.ProposedWorks;
import org.mossbank.server.grading.SheetsAtDesk;
import org.mossbank.server.grading.Works;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.RaterTerms;
import org.mossbank.server.study.Studies;
import org.mossbank.server.trial.CheckContent;
import org.mossbank.server.trial.Trials;
import org.mossbank.server.trial.TriedAnswer;
import org.springframework.stereotype.Component;

/** What a rater sees of trials on a sheet of theirs, and when. Called within the transaction of whoever asks. */
@Component
class SightOfTrials implements ProposedWorks {
    private final SheetsAtDesk sheets;
    private final Studies studies;
    private final Trials trials;
    private final Masking masking;
    private final TrialSeenRepository seen;

    SightOfTrials(SheetsAtDesk sheets, Studies studies, Trials trials, Masking masking, TrialSeenRepository seen) {
        this.sheets = sheets;
        this.studies = studies;
        this.trials = trials;
        this.masking = masking;
        this.seen = seen;
    }

    /**
     * A sheet with what is known of its trials.
     *
     * @param visible those of its answers whose trials its rater sees
     * @param check   of its prompt; empty if it has none
     * @param masks   what takes out of texts what gives an answer's candidate away
     */
    record Sight(
            SheetsAtDesk.SheetAtDesk sheet,
            RaterTerms.TrialsShown shown,
            Set<SheetAnswerId> visible,
            Optional<CheckContent> check,
            Map<AnswerId, Shown> masks) {
        List<SheetsAtDesk.AnswerAtDesk> seenAnswers() {
            return sheet.answers().stream()
                    .filter(a -> visible.contains(a.id()))
                    .toList();
        }

        /** @throws Problem 404 if there is no such answer on it, or its rater does not see its trials */
        AnswerId seen(SheetAnswerId id) {
            return seenAnswers().stream()
                    .filter(a -> a.id().equals(id))
                    .map(SheetsAtDesk.AnswerAtDesk::answerId)
                    .findFirst()
                    .orElseThrow(() -> Problem.notFound("This answer"));
        }

        /**
         * An answer on it whose trials its rater sees, to do something with.
         *
         * @throws Problem 404 if there is none; 409 if they do not see them, or can do nothing on the sheet any more
         */
        SheetsAtDesk.AnswerAtDesk open(SheetAnswerId id) {
            SheetsAtDesk.AnswerAtDesk answer = sheet.answers().stream()
                    .filter(a -> a.id().equals(id))
                    .findFirst()
                    .orElseThrow(() -> Problem.notFound("This answer"));
            if (!visible.contains(id)) {
                throw new Problem(ProblemType.NOT_READY, "You do not see the trials of this answer now.");
            }
            requireOpen();
            return answer;
        }

        /** @throws Problem 409 if its rater can do nothing on the sheet any more */
        void requireOpen() {
            if (!sheet.isOpen()) {
                throw new Problem(ProblemType.NOT_READY, "Nothing is tried on this sheet any more.");
            }
        }
    }

    /** @throws Problem 404 if the sheet is not one's own; 409 if its rater may not look at it yet */
    Sight of(SheetId id) {
        SheetsAtDesk.SheetAtDesk sheet = sheets.own(id);
        RaterTerms.TrialsShown shown = shown(sheet);
        Set<SheetAnswerId> visible = visible(sheet, shown);
        List<AnswerId> ids = sheet.answers().stream()
                .map(SheetsAtDesk.AnswerAtDesk::answerId)
                .toList();
        return new Sight(
                sheet,
                shown,
                visible,
                trials.check(sheet.promptId()),
                masking.ofCode(sheet.studyId(), ids).entrySet().stream()
                        .collect(Collectors.toMap(
                                Map.Entry::getKey,
                                e -> new Shown(
                                        e.getValue().masked(), e.getValue().named()))));
    }

    private RaterTerms.TrialsShown shown(SheetsAtDesk.SheetAtDesk sheet) {
        return studies.get(sheet.studyId()).brief().raters().trials();
    }

    /** What was seen once stays in sight, also if the grade is taken back. */
    private Set<SheetAnswerId> visible(SheetsAtDesk.SheetAtDesk sheet, RaterTerms.TrialsShown shown) {
        List<SheetAnswerId> ids =
                sheet.answers().stream().map(SheetsAtDesk.AnswerAtDesk::id).toList();
        return switch (shown) {
            case NEVER -> Set.of();
            case FROM_THE_START -> Set.copyOf(ids);
            case AFTER_OWN_GRADE -> {
                Set<SheetAnswerId> before = seen.seenOf(ids);
                yield sheet.answers().stream()
                        .filter(a -> a.isGraded() || before.contains(a.id()))
                        .map(SheetsAtDesk.AnswerAtDesk::id)
                        .collect(Collectors.toSet());
            }
        };
    }

    @Override
    public boolean areShown(StudyId study, PromptId prompt) {
        return studies.get(study).brief().raters().trials() != RaterTerms.TrialsShown.NEVER
                && trials.check(prompt).isPresent();
    }

    @Override
    public Map<SheetAnswerId, Works> of(SheetsAtDesk.SheetAtDesk sheet) {
        RaterTerms.TrialsShown shown = shown(sheet);
        if (shown == RaterTerms.TrialsShown.NEVER) {
            return Map.of();
        }
        Map<AnswerId, TriedAnswer> tried = trials.ofAnswers(sheet.answers().stream()
                .map(SheetsAtDesk.AnswerAtDesk::answerId)
                .toList());
        Set<SheetAnswerId> visible = tried.isEmpty() ? Set.of() : visible(sheet, shown);
        return sheet.answers().stream()
                .filter(a -> visible.contains(a.id()))
                .filter(a -> proposed(tried.get(a.answerId())).isPresent())
                .collect(Collectors.toMap(
                        SheetsAtDesk.AnswerAtDesk::id,
                        a -> proposed(tried.get(a.answerId())).orElseThrow()));
    }

    /** What trials say of whether its code works; empty if it was not tried, or ended now so and now so. */
    static Optional<Works> proposed(@Nullable TriedAnswer tried) {
        return Optional.ofNullable(tried)
                .filter(t -> t.last().filter(l -> !l.trials().isFlaky()).isPresent())
                .flatMap(TriedAnswer::standing)
                .map(SightOfTrials::works);
    }

    private static Works works(TrialStanding standing) {
        return standing instanceof TrialStanding.AsIs
                ? Works.AS_IS
                : standing instanceof TrialStanding.AfterRepair ? Works.AFTER_REPAIR : Works.NOT;
    }
}
