package org.mossbank.server.grading.sheet;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.util.List;
import java.util.function.LongSupplier;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.Guess;
import org.mossbank.server.grading.Works;
import org.mossbank.server.grading.desk.SheetView;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;

/** An answer on a sheet, under an id of that sheet's own, with what its rater says of it as a whole. */
@Entity
public class SheetAnswer {
    @Id
    private SheetAnswerId id;

    private SheetId sheetId;
    private AnswerId answerId;
    private int place;
    private String reason;
    private long reasonRevision;

    @Nullable
    @Enumerated(EnumType.STRING)
    private Works works;

    /** Why the rater says otherwise than trials do. */
    private String worksWhy;

    private long worksRevision;

    @Nullable
    private Integer preference;

    private long preferenceRevision;

    @Nullable
    private CandidateId guessCandidateId;

    private boolean guessNone;
    private long guessRevision;

    @SuppressWarnings("NullAway.Init")
    protected SheetAnswer() {}

    public static SheetAnswer of(SheetId sheetId, AnswerId answerId, int place) {
        SheetAnswer answer = new SheetAnswer();
        answer.id = SheetAnswerId.random();
        answer.sheetId = sheetId;
        answer.answerId = answerId;
        answer.place = place;
        answer.reason = "";
        answer.worksWhy = "";
        return answer;
    }

    /** Takes over what was said of it before; each part at its first revision. */
    public void begin(Grading.AnswerRecord start) {
        Grading.Judgement judgement = start.judgement();
        if (!start.reason().isEmpty()) {
            explain(start.reason());
        }
        if (judgement.works() != null) {
            findWorks(judgement.works(), judgement.worksWhy());
        }
        if (judgement.preference() != null) {
            prefer(judgement.preference());
        }
        if (judgement.guess() != null) {
            guess(judgement.guess());
        }
    }

    public void explain(String newReason) {
        reason = newReason;
        reasonRevision++;
    }

    public void findWorks(@Nullable Works found, String why) {
        works = found;
        worksWhy = why;
        worksRevision++;
    }

    public void prefer(@Nullable Integer newPreference) {
        preference = newPreference;
        preferenceRevision++;
    }

    public void guess(@Nullable Guess guess) {
        guessCandidateId = guess == null ? null : guess.candidateId();
        guessNone = guess != null && guess.candidateId() == null;
        guessRevision++;
    }

    public SheetAnswerId id() {
        return id;
    }

    public SheetId sheetId() {
        return sheetId;
    }

    public AnswerId answerId() {
        return answerId;
    }

    public int place() {
        return place;
    }

    public String reason() {
        return reason;
    }

    public String worksWhy() {
        return worksWhy;
    }

    @Nullable
    public Works works() {
        return works;
    }

    @Nullable
    public Integer preference() {
        return preference;
    }

    /** Absent until the rater guessed, or said that they cannot. */
    @Nullable
    public Guess guess() {
        return guessCandidateId == null && !guessNone ? null : new Guess(guessCandidateId);
    }

    /** A cell that is kept with the answer itself. */
    private static DeskCell cell(LongSupplier revision, Supplier<Object> state) {
        return new DeskCell() {
            @Override
            public long revision() {
                return revision.getAsLong();
            }

            @Override
            public Object state() {
                return state.get();
            }

            @Override
            public boolean isRow() {
                return false;
            }
        };
    }

    public DeskCell reasonCell() {
        return cell(() -> reasonRevision, () -> new SheetView.ReasonOnSheet(reason, reasonRevision));
    }

    public DeskCell worksCell() {
        return cell(() -> worksRevision, this::worksOnSheet);
    }

    public SheetView.WorksOnSheet worksOnSheet() {
        return new SheetView.WorksOnSheet(works, worksWhy, worksRevision);
    }

    public DeskCell preferenceCell() {
        return cell(() -> preferenceRevision, this::preferenceOnSheet);
    }

    public SheetView.PreferenceOnSheet preferenceOnSheet() {
        return new SheetView.PreferenceOnSheet(preference, preferenceRevision);
    }

    public DeskCell guessCell(List<CandidateId> choices) {
        return cell(() -> guessRevision, () -> guessOnSheet(choices));
    }

    /** @param choices candidates in the order in which the rater sees them */
    public SheetView.GuessOnSheet guessOnSheet(List<CandidateId> choices) {
        int choice = guessCandidateId == null ? -1 : choices.indexOf(guessCandidateId);
        return new SheetView.GuessOnSheet(choice < 0 ? null : choice, guessNone, guessRevision);
    }

    public long reasonRevision() {
        return reasonRevision;
    }
}
