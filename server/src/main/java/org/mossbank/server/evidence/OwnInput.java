package org.mossbank.server.evidence;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.grading.SheetsAtDesk;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.trial.InputEnd;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** An input that a rater gave the programs of all answers on a sheet. */
@Entity
class OwnInput {
    @Id
    private UUID id;

    private StudyId studyId;
    private SheetId sheetId;
    private AccountId raterId;

    /** As JSON. */
    private String arguments;

    private String input;
    private Instant givenAt;

    @SuppressWarnings("NullAway.Init")
    protected OwnInput() {}

    static OwnInput of(SheetsAtDesk.SheetAtDesk sheet, InputEnd.Given given, Instant at) {
        return of(sheet.studyId(), sheet.id(), sheet.raterId(), given, at);
    }

    static OwnInput of(StudyId study, SheetId sheet, AccountId rater, InputEnd.Given given, Instant at) {
        OwnInput input = new OwnInput();
        input.id = UUID.randomUUID();
        input.studyId = study;
        input.sheetId = sheet;
        input.raterId = rater;
        input.arguments = JsonMapper.shared().writeValueAsString(given.arguments());
        input.input = given.input();
        input.givenAt = at;
        return input;
    }

    UUID id() {
        return id;
    }

    SheetId sheetId() {
        return sheetId;
    }

    AccountId raterId() {
        return raterId;
    }

    Instant givenAt() {
        return givenAt;
    }

    InputEnd.Given given() {
        List<String> words = JsonMapper.shared().readValue(arguments, new TypeReference<>() {});
        return new InputEnd.Given(words, input);
    }
}
