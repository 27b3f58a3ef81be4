package org.mossbank.server.grading.desk;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.Confidence;
import org.mossbank.server.grading.RemarkContent;
import org.mossbank.server.grading.Verdict;
import org.mossbank.server.grading.Works;
import org.mossbank.server.ids.SheetAnswerId;

/** What a rater's browser sends from the desk. */
public final class DeskRequests {
    private DeskRequests() {}

    /**
     * A change of one cell. Sending it again, under the same id, changes nothing.
     */
    public interface Change {
        /** Made by the client for this change. */
        UUID changeId();

        /** The revision that the rater saw; 0 for an empty cell. */
        long baseRevision();
    }

    /** Sets a cell of the grade table, or clears it with neither level nor "not applicable". */
    public record SetGrade(
            @NotNull UUID changeId,
            @Min(0) long baseRevision,
            @Nullable Integer level,
            boolean notApplicable,
            @Nullable Confidence confidence)
            implements Change {}

    /** Sets the reason for an answer's grades; empty text takes it away. */
    public record SetReason(
            @NotNull UUID changeId,
            @Min(0) long baseRevision,

            @NotNull @Size(max = 4000, message = "must not be longer than 4,000 characters")
            String text)
            implements Change {}

    /**
     * Says whether an answer's code works; absent takes it back.
     *
     * @param why they say otherwise than trials do; absent if that is not said
     */
    public record SetWorks(
            @NotNull UUID changeId,
            @Min(0) long baseRevision,
            @Nullable Works works,
            @Nullable @Size(max = 2000) String why)
            implements Change {}

    /** Gives an answer its place in the order of preference, from 1; absent takes it back. */
    public record SetPreference(
            @NotNull UUID changeId,
            @Min(0) long baseRevision,
            @Nullable @Min(1) @Max(99) Integer place) implements Change {}

    /** Says how far an answer holds a key point; absent takes it back. */
    public record SetCoverage(
            @NotNull UUID changeId,
            @Min(0) long baseRevision,
            @Nullable Verdict verdict) implements Change {}

    /** Writes a remark; absent removes it. */
    public record SetRemark(
            @NotNull UUID changeId,
            @Min(0) long baseRevision,
            @Nullable @Valid RemarkContent remark) implements Change {}

    /**
     * Guesses who wrote an answer; neither choice nor "no idea" takes it back.
     *
     * @param choice which of the choices on the sheet, from 0
     */
    public record SetGuess(
            @NotNull UUID changeId,
            @Min(0) long baseRevision,
            @Nullable @Min(0) Integer choice,
            boolean noIdea) implements Change {}

    /**
     * How long answers were looked at in one window, all in all so far; telling it again changes nothing.
     *
     * @param windowId made by the client for the window
     */
    public record TellTime(
            @NotNull UUID windowId, @NotNull @Size(max = 60) List<@Valid @NotNull AnswerTime> answers) {}

    /** @param ms active time, at most a day */
    public record AnswerTime(
            @NotNull SheetAnswerId answerId,
            @Min(0) @Max(86_400_000) long ms) {}
}
