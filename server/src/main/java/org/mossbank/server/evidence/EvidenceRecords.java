package org.mossbank.server.evidence;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.SheetsAtDesk;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.trial.InputEnd;
import org.mossbank.server.trial.TrialRecords;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Checks, trials, and what raters saw and tried of their own, as an archive holds them. What programs did with inputs of raters' own is
 * not in it: they can be given again.
 */
@Service
public class EvidenceRecords {
    private final TrialRecords trials;
    private final OwnInputRepository inputs;
    private final TrialSeenRepository seen;
    private final SheetsAtDesk sheets;
    private final EntityManager entities;

    EvidenceRecords(
            TrialRecords trials,
            OwnInputRepository inputs,
            TrialSeenRepository seen,
            SheetsAtDesk sheets,
            EntityManager entities) {
        this.trials = trials;
        this.inputs = inputs;
        this.seen = seen;
        this.sheets = sheets;
        this.entities = entities;
    }

    public record Records(TrialRecords.Records trials, List<InputRecord> inputs, List<SeenRecord> seen) {}

    /** An input of a rater's own, by the place of the sheet that it was given on. */
    public record InputRecord(SheetsAtDesk.Place place, InputEnd.Given given, Instant at) {}

    /**
     * When a rater first saw the trials of an answer.
     *
     * @param level that they had graded it by then; absent if none
     */
    public record SeenRecord(
            AccountId raterId,
            AnswerId answerId,
            boolean repeat,
            Instant at,
            @Nullable Integer level) {}

    @SystemOnly
    @Transactional(readOnly = true)
    public Records ofStudy(StudyId study) {
        List<OwnInput> given = inputs.ofStudy(study);
        List<TrialSeen> looked = seen.ofStudy(study);
        Map<SheetId, SheetsAtDesk.Place> places = given.isEmpty() ? Map.of() : sheets.places(study);
        Map<SheetAnswerId, Boolean> repeats = new HashMap<>();
        if (!looked.isEmpty()) {
            sheets.answerPlaces(study).forEach((place, id) -> repeats.put(id, place.repeat()));
        }
        return new Records(
                trials.ofStudy(study),
                given.stream()
                        .flatMap(i -> Optional.ofNullable(places.get(i.sheetId()))
                                .map(p -> new InputRecord(p, i.given(), i.givenAt()))
                                .stream())
                        .toList(),
                looked.stream()
                        .map(s -> new SeenRecord(
                                s.seen().raterId(),
                                s.seen().answerId(),
                                repeats.getOrDefault(s.sheetAnswerId(), false),
                                s.seen().at(),
                                s.seen().level()))
                        .toList());
    }

    /** As an archive brings them, once its sheets are there; what is of no sheet is left out. */
    @SystemOnly
    @Transactional
    public void restore(StudyId study, Records records) {
        trials.restore(study, records.trials);
        if (!records.inputs.isEmpty()) {
            sheets.places(study)
                    .forEach((sheet, place) -> records.inputs.stream()
                            .filter(i -> i.place.equals(place))
                            .forEach(i -> entities.persist(OwnInput.of(study, sheet, place.raterId(), i.given, i.at))));
        }
        if (!records.seen.isEmpty()) {
            Map<SheetsAtDesk.AnswerPlace, SheetAnswerId> on = sheets.answerPlaces(study);
            for (SeenRecord r : records.seen) {
                Optional.ofNullable(on.get(new SheetsAtDesk.AnswerPlace(r.raterId, r.answerId, r.repeat)))
                        .ifPresent(id -> entities.persist(
                                TrialSeen.of(study, id, new TrialSeen.Seen(r.raterId, r.answerId, r.at, r.level))));
            }
        }
        entities.flush();
    }
}
