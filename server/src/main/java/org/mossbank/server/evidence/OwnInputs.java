package org.mossbank.server.evidence;

import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.grading.SheetsAtDesk;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.trial.InputEnd;
import org.mossbank.server.trial.Repairs;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Inputs that raters give the programs of all answers on a sheet, to see side by side what they do with them. */
@Service
class OwnInputs {
    static final int MOST_A_SHEET = 40;
    static final int MOST_A_MINUTE = 10;
    private static final Duration MINUTE = Duration.ofMinutes(1);

    private final OwnInputRepository inputs;
    private final SightOfTrials sight;
    private final Repairs repairs;
    private final DeskTrials.Reading reading;

    OwnInputs(OwnInputRepository inputs, SightOfTrials sight, Repairs repairs, DeskTrials.Reading reading) {
        this.inputs = inputs;
        this.sight = sight;
        this.repairs = repairs;
        this.reading = reading;
    }

    /**
     * @param arguments after the command, each as it is
     * @param input     standard input
     */
    record GiveInput(
            @NotNull @Size(max = 40) List<@NotNull @Size(max = 2_000) String> arguments,
            @NotNull @Size(max = 20_000) String input) {}

    /**
     * An input of one's own.
     *
     * @param ends of the programs that have had it
     */
    record InputOnSheet(UUID id, List<String> arguments, String input, Instant at, List<EndOnSheet> ends) {}

    /** What one answer's program did with it, masked. */
    record EndOnSheet(SheetAnswerId answerId, InputEnd end) {}

    /** How many more there may be on a sheet. Within the transaction of whoever asks. */
    @SystemOnly
    int left(SheetId sheet) {
        return Math.max(0, MOST_A_SHEET - inputs.countOf(sheet));
    }

    /** Why nothing can be tried here. */
    @SystemOnly
    Optional<String> missing() {
        return repairs.missing();
    }

    /** Those that were given on a sheet of one's own, oldest first. */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    @Transactional(propagation = Propagation.NEVER)
    public List<InputOnSheet> ofSheet(SheetId sheetId) {
        record Read(SightOfTrials.Sight sight, List<OwnInput> inputs, List<OwnInputEnd> ends) {}
        Read read = reading.snapshot()
                .of(() -> new Read(sight.of(sheetId), inputs.ofSheet(sheetId), inputs.endsOf(sheetId)));
        return reading.heavy().run(() -> {
            Map<UUID, List<OwnInputEnd>> byInput = read.ends.stream()
                    .collect(Collectors.groupingBy(e -> e.key().inputId()));
            return read.inputs.stream()
                    .map(i -> new InputOnSheet(
                            i.id(),
                            i.given().arguments(),
                            i.given().input(),
                            i.givenAt(),
                            byInput.getOrDefault(i.id(), List.of()).stream()
                                    .map(e -> end(read.sight, e))
                                    .toList()))
                    .toList();
        });
    }

    private static EndOnSheet end(SightOfTrials.Sight sight, OwnInputEnd end) {
        AnswerId answer = sight.sheet().answers().stream()
                .filter(a -> a.id().equals(end.key().sheetAnswerId()))
                .findFirst()
                .orElseThrow()
                .answerId();
        return new EndOnSheet(
                end.key().sheetAnswerId(), Require.known(sight.masks(), answer).end(end.end()));
    }

    /**
     * Gives an input: from then on it can be given to each answer. It is counted.
     *
     * @throws Problem 409 if nothing on the sheet takes one; 429 if there were too many
     */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    @Transactional
    public InputOnSheet give(SheetId sheetId, GiveInput request) {
        SightOfTrials.Sight of = sight.of(sheetId);
        of.requireOpen();
        if (of.visible().isEmpty() || of.check().filter(c -> !c.run().isBlank()).isEmpty()) {
            throw new Problem(ProblemType.NOT_READY, "No answer on this sheet can be given an input now.");
        }
        reading.turn().take("own inputs of " + of.sheet().raterId());
        Instant now = reading.clock().instant();
        if (inputs.countOf(sheetId) >= MOST_A_SHEET) {
            throw new Problem(ProblemType.TOO_MANY_INPUTS, "A sheet takes at most %d inputs.".formatted(MOST_A_SHEET));
        }
        if (inputs.countSince(of.sheet().raterId(), now.minus(MINUTE)) >= MOST_A_MINUTE) {
            throw new Problem(
                    ProblemType.TOO_MANY_INPUTS,
                    "At most %d inputs in a minute; wait a little.".formatted(MOST_A_MINUTE));
        }
        OwnInput input = OwnInput.of(of.sheet(), new InputEnd.Given(request.arguments, request.input), now);
        reading.entities().persist(input);
        reading.entities().flush();
        return new InputOnSheet(input.id(), request.arguments, request.input, now, List.of());
    }

    /**
     * Gives it to one answer's program. Asked again, it says what came the first time.
     *
     * @throws Problem 404 if there is no such input; 409 if the answer's trials are not shown, or nothing can be tried
     */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    @Transactional(propagation = Propagation.NEVER)
    public EndOnSheet answering(SheetId sheetId, UUID inputId, SheetAnswerId id) {
        record Read(
                SightOfTrials.Sight sight,
                SheetsAtDesk.AnswerAtDesk answer,
                OwnInput input,
                Optional<OwnInputEnd> end) {}
        OwnInputEnd.Key key = new OwnInputEnd.Key(inputId, id);
        Read read = reading.snapshot().of(() -> {
            SightOfTrials.Sight of = sight.of(sheetId);
            return new Read(
                    of,
                    of.open(id),
                    inputs.one(sheetId, inputId).orElseThrow(() -> Problem.notFound("This input")),
                    inputs.end(key));
        });
        OwnInputEnd known = read.end.orElse(null);
        if (known != null) {
            return reading.heavy().run(() -> end(read.sight, known));
        }
        InputEnd end = repairs.answering(read.sight.sheet().studyId(), read.answer.answerId(), read.input.given());
        OwnInputEnd kept = OwnInputEnd.of(key, end);
        reading.transactions().executeWithoutResult(status -> inputs.keep(inputId, id.value(), kept.text()));
        return reading.heavy().run(() -> end(read.sight, kept));
    }
}
