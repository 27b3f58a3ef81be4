package org.mossbank.server.reconciliation;

import java.util.List;
import java.util.Optional;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.answer.AnswerText;
import org.mossbank.server.grading.GradesSeen;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.study.RoundStage;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;

/**
 * Whom a split concerns, and from when on they may read its talk: once they have nothing left to grade, and nobody has
 * anything left to grade of its prompt. So grades that were given before anybody saw another's stay independent.
 */
@Component
class SplitReaders {
    private final Grading grading;
    private final Masking masking;
    private final Studies studies;
    private final ThirdLookRepository looks;

    SplitReaders(Grading grading, Masking masking, Studies studies, ThirdLookRepository looks) {
        this.grading = grading;
        this.masking = masking;
        this.studies = studies;
        this.looks = looks;
    }

    /** What a rater gave the answer of a split, on a sheet that counts. */
    record Rated(AccountId rater, Grading.AnswerRecord said) {}

    /** The answer as raters read it. */
    AnswerText answer(Reconciliation split) {
        return Require.known(masking.forRaters(List.of(split.answerId())), split.answerId());
    }

    List<Rated> rated(Reconciliation split, PromptId prompt) {
        return grading.sentRecords(split.studyId(), prompt).stream()
                .flatMap(s -> said(s, split.answerId()).stream().map(said -> new Rated(s.raterId(), said)))
                .filter(r -> r.said().marks().containsKey(split.criterionId()))
                .toList();
    }

    private static Optional<Grading.AnswerRecord> said(Grading.SheetRecord sheet, AnswerId answer) {
        return sheet.answers().stream().filter(a -> a.answerId().equals(answer)).findFirst();
    }

    boolean mayRead(Reconciliation split, AccountId reader) {
        return studies.hasAccepted(split.studyId(), reader) && isConcerned(split, reader) && isTime(split, reader);
    }

    private boolean isConcerned(Reconciliation split, AccountId reader) {
        return grading.answersSentBy(List.of(split.studyId()), reader).containsKey(split.answerId())
                || looks.findById(new ThirdLook.Key(split.id(), reader))
                        .filter(ThirdLook::isGiven)
                        .isPresent();
    }

    /** Whoever has read a talk, or spoken in one, has seen what others gave. */
    @Component
    static class Seen implements GradesSeen {
        private final TalkReadingRepository readings;

        Seen(TalkReadingRepository readings) {
            this.readings = readings;
        }

        @Override
        public boolean hasSeenOthers(StudyId study, AccountId rater, PromptId prompt) {
            return readings.hasRead(study, rater);
        }
    }

    private boolean isTime(Reconciliation split, AccountId reader) {
        if (studies.stage(split.studyId()) == RoundStage.Stage.CLOSED) {
            return true;
        }
        PromptId prompt = answer(split).promptId();
        return grading.unsent(List.of(split.studyId())).stream()
                .noneMatch(s -> s.raterId().equals(reader) || s.promptId().equals(prompt));
    }
}
