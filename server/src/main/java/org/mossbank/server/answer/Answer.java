package org.mossbank.server.answer;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Version;
import java.math.BigDecimal;
import java.util.UUID;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

@Entity
class Answer {
    @Id
    private UUID id;

    private UUID studyId;
    private String key;
    private UUID promptId;
    private UUID candidateId;
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

    @Version
    private long version;

    @SuppressWarnings("NullAway.Init")
    protected Answer() {}

    static Answer of(UUID studyId, UUID promptId, UUID candidateId, Answers.NewAnswer start) {
        Answer answer = new Answer();
        answer.id = UUID.randomUUID();
        answer.studyId = studyId;
        answer.key = start.key();
        answer.promptId = promptId;
        answer.candidateId = candidateId;
        answer.attempt = start.attempt();
        answer.write(start.outcome(), start.text(), start.measures());
        return answer;
    }

    void write(Outcome newOutcome, String newText, Measures measures) {
        outcome = newOutcome;
        text = newText;
        firstOutputMs = measures.firstOutputMs();
        totalMs = measures.totalMs();
        inputTokens = measures.inputTokens();
        outputTokens = measures.outputTokens();
        cost = measures.cost();
        currency = measures.currency();
    }

    UUID promptId() {
        return promptId;
    }

    UUID candidateId() {
        return candidateId;
    }

    int attempt() {
        return attempt;
    }

    long version() {
        return version;
    }

    UUID id() {
        return id;
    }

    AnswerText blind() {
        return new AnswerText(id, promptId, outcome, text);
    }

    AnswerView view() {
        BigDecimal plainCost =
                cost == null ? null : new BigDecimal(cost.stripTrailingZeros().toPlainString());
        Measures measures = new Measures(firstOutputMs, totalMs, inputTokens, outputTokens, plainCost, currency);
        return new AnswerView(id, key, promptId, candidateId, attempt, outcome, text, measures, version);
    }
}
