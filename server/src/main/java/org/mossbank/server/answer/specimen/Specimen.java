package org.mossbank.server.answer.specimen;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Embeddable;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.OrderBy;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.hibernate.annotations.Fetch;
import org.hibernate.annotations.FetchMode;
import org.hibernate.annotations.SQLRestriction;
import org.mossbank.server.answer.AnswerText;
import org.mossbank.server.answer.Outcome;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;

/**
 * An answer of no candidate, by which raters calibrate: a row among the answers, so that sheets, remarks and talk hold on to it
 * as to any other, and another entity than candidates’ answers, so that nothing that counts ever meets it.
 */
@Entity
@Table(name = "answer")
@SQLRestriction("candidate_id is null")
class Specimen {
    /** A level's row. */
    @Embeddable
    record LevelRow(String criterionKey, int level, int highestLevel, String reason, String saidBy, Instant saidAt) {}

    @Id
    private AnswerId id;

    private StudyId studyId;
    private String key;
    private PromptId promptId;
    private int attempt;

    @Enumerated(EnumType.STRING)
    private Outcome outcome;

    private String text;
    private boolean estimated;
    private int filesChanged;
    private int linesAdded;
    private int linesRemoved;
    private boolean changesComplete;

    @ElementCollection
    @CollectionTable(name = "specimen_level", joinColumns = @JoinColumn(name = "answer_id"))
    @OrderBy("criterionKey")
    @Fetch(FetchMode.SUBSELECT)
    private List<LevelRow> levels = new ArrayList<>();

    @Version
    private long version;

    @SuppressWarnings("NullAway.Init")
    protected Specimen() {}

    static Specimen of(StudyId studyId, PromptId promptId, Specimens.NewSpecimen start) {
        Specimen specimen = new Specimen();
        specimen.id = AnswerId.random();
        specimen.studyId = studyId;
        specimen.promptId = promptId;
        specimen.key = start.key();
        specimen.attempt = start.place();
        specimen.outcome = Outcome.COMPLETE;
        specimen.text = start.text();
        specimen.changesComplete = true;
        start.levels()
                .forEach(l -> specimen.levels.add(
                        new LevelRow(l.criterion(), l.level(), l.highestLevel(), l.reason(), l.by(), l.at())));
        return specimen;
    }

    /** What raters read from now on. */
    void read(String masked) {
        text = masked;
    }

    AnswerText blind() {
        return new AnswerText(id, promptId, outcome, text);
    }

    SpecimenView view() {
        return new SpecimenView(
                id,
                key,
                promptId,
                attempt,
                text,
                levels.stream()
                        .map(l -> new SpecimenView.SpecimenLevel(
                                l.criterionKey(), l.level(), l.highestLevel(), l.reason(), l.saidBy(), l.saidAt()))
                        .toList());
    }
}
