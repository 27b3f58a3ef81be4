package org.mossbank.server.grading;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;

/** The sheet that a rater has before them, for modules that lay something beside it. */
public interface SheetsAtDesk {
    /**
     * A sheet of one's own. Called within the transaction of whoever asks.
     *
     * @throws Problem 404 if it is not one's own; 409 if its rater may not look at it yet
     */
    SheetAtDesk own(SheetId sheet);

    /** Whose sheet it is, and for what. */
    record Place(AccountId raterId, PromptId promptId, boolean repeat) {}

    /** All sheets of a study. Within the transaction of whoever asks. */
    Map<SheetId, Place> places(StudyId study);

    /** On whose sheet an answer lies. */
    record AnswerPlace(AccountId raterId, AnswerId answerId, boolean repeat) {}

    /** All answers on sheets of a study. Within the transaction of whoever asks. */
    Map<AnswerPlace, SheetAnswerId> answerPlaces(StudyId study);

    /**
     * @param isOpen  whether its rater may still change something on it
     * @param answers in their order on it
     */
    record SheetAtDesk(
            SheetId id,
            StudyId studyId,
            PromptId promptId,
            AccountId raterId,
            boolean isOpen,
            List<AnswerAtDesk> answers) {
        public SheetAtDesk {
            answers = List.copyOf(answers);
        }
    }

    /**
     * @param isGraded whether it is graded on the criterion that key points and trials speak for; on all, if there is none
     * @param level    on that criterion; absent if there is none
     */
    record AnswerAtDesk(
            SheetAnswerId id,
            AnswerId answerId,
            boolean isGraded,
            @Nullable Integer level) {}
}
