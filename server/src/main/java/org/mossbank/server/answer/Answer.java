package org.mossbank.server.answer;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Embeddable;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.OrderColumn;
import jakarta.persistence.Version;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import org.hibernate.annotations.Fetch;
import org.hibernate.annotations.FetchMode;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.annotations.SQLRestriction;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.change.ChangeSize;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;

/** What a candidate gave; a {@link org.mossbank.server.answer.specimen.Specimens specimen} is none. */
@Entity
@SQLRestriction("candidate_id is not null")
class Answer {
    /** A follow-up's row. */
    @Embeddable
    record FollowUpRow(String asked, String reply) {}

    @Id
    private AnswerId id;

    private StudyId studyId;
    private String key;
    private PromptId promptId;
    private CandidateId candidateId;
    private int attempt;

    @Enumerated(EnumType.STRING)
    private Outcome outcome;

    private String text;

    @Nullable
    private Long firstOutputMs;

    @Nullable
    private Long totalMs;

    @Nullable
    private Long inputTokens;

    @Nullable
    private Long outputTokens;

    @Nullable
    @Column(precision = 14, scale = 6)
    private BigDecimal cost;

    @Nullable
    @JdbcTypeCode(SqlTypes.CHAR)
    @Column(length = 3)
    private String currency;

    private boolean estimated;

    @Nullable
    private Integer tries;

    @Nullable
    private String model;

    private int filesChanged;
    private int linesAdded;
    private int linesRemoved;
    private boolean changesComplete;

    @ElementCollection
    @CollectionTable(name = "follow_up", joinColumns = @JoinColumn(name = "answer_id"))
    @OrderColumn(name = "place")
    @Fetch(FetchMode.SUBSELECT)
    private List<FollowUpRow> followUps = new ArrayList<>();

    @Version
    private long version;

    @SuppressWarnings("NullAway.Init")
    protected Answer() {}

    static Answer of(
            StudyId studyId, PromptId promptId, CandidateId candidateId, Answers.NewAnswer start, ChangeSize changed) {
        Answer answer = new Answer();
        answer.id = AnswerId.random();
        answer.studyId = studyId;
        answer.key = start.key();
        answer.promptId = promptId;
        answer.candidateId = candidateId;
        answer.attempt = start.attempt();
        answer.write(start.outcome(), start.text(), start.followUps(), start.measures(), changed);
        return answer;
    }

    /** @param changed how much the text changes in the starting code */
    void write(Outcome newOutcome, String newText, List<FollowUp> turns, Measures measures, ChangeSize changed) {
        outcome = newOutcome;
        text = newText;
        List<FollowUpRow> rows =
                turns.stream().map(t -> new FollowUpRow(t.asked(), t.reply())).toList();
        if (!rows.equals(followUps)) {
            followUps.clear();
            followUps.addAll(rows);
        }
        filesChanged = changed.files();
        linesAdded = changed.linesAdded();
        linesRemoved = changed.linesRemoved();
        changesComplete = changed.complete();
        estimated = measures.estimated();
        tries = measures.tries();
        model = measures.model();
        firstOutputMs = measures.firstOutputMs();
        totalMs = measures.totalMs();
        inputTokens = measures.inputTokens();
        outputTokens = measures.outputTokens();
        cost = measures.cost();
        currency = measures.currency();
    }

    StudyId studyId() {
        return studyId;
    }

    PromptId promptId() {
        return promptId;
    }

    CandidateId candidateId() {
        return candidateId;
    }

    int attempt() {
        return attempt;
    }

    long version() {
        return version;
    }

    AnswerId id() {
        return id;
    }

    AnswerText blind() {
        return new AnswerText(id, promptId, outcome, view().wholeText());
    }

    AnswerView view() {
        Measures measures =
                Measures.of(firstOutputMs, totalMs, inputTokens, outputTokens, cost, currency, estimated, tries, model);
        return new AnswerView(
                id,
                key,
                promptId,
                candidateId,
                attempt,
                outcome,
                text,
                followUps.stream().map(f -> new FollowUp(f.asked(), f.reply())).toList(),
                measures,
                new ChangeSize(filesChanged, linesAdded, linesRemoved, changesComplete),
                version);
    }
}
