package org.mossbank.server.source;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Embeddable;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.OrderColumn;
import jakarta.persistence.Version;
import java.util.ArrayList;
import java.util.List;
import org.hibernate.annotations.Fetch;
import org.hibernate.annotations.FetchMode;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;

@Entity
class Source {
    /** A header's row. */
    @Embeddable
    record HeaderRow(String name, String value) {}

    @Id
    private CandidateId candidateId;

    private StudyId studyId;
    private String url;

    @Enumerated(EnumType.STRING)
    private SourceContent.Method method;

    @ElementCollection
    @Fetch(FetchMode.SUBSELECT)
    @CollectionTable(name = "source_header", joinColumns = @JoinColumn(name = "candidate_id"))
    @OrderColumn(name = "place")
    private List<HeaderRow> headers = new ArrayList<>();

    private String body;
    private String turnAsked;
    private String turnReplied;

    @Enumerated(EnumType.STRING)
    private SourceContent.Shape shape;

    private String textPointer;
    private String inputTokensPointer;
    private String outputTokensPointer;
    private String finishPointer;
    private String modelPointer;
    private String[] completeWords;
    private String[] refusedWords;
    private String endMark;
    private int mostOutputTokens;
    private long timeLimitMs;
    private int mostTries;
    private int mostAtOnce;

    @Version
    private long version;

    @SuppressWarnings("NullAway.Init")
    protected Source() {}

    static Source of(StudyId studyId, CandidateId candidateId, SourceContent content) {
        Source source = new Source();
        source.studyId = studyId;
        source.candidateId = candidateId;
        source.write(content);
        return source;
    }

    void write(SourceContent content) {
        url = content.url();
        method = content.method();
        List<HeaderRow> rows = content.headers().stream()
                .map(h -> new HeaderRow(h.name(), h.value()))
                .toList();
        if (!rows.equals(headers)) {
            headers.clear();
            headers.addAll(rows);
        }
        body = content.body();
        turnAsked = content.turnAsked();
        turnReplied = content.turnReplied();
        shape = content.shape();
        textPointer = content.textPointer();
        inputTokensPointer = content.inputTokensPointer();
        outputTokensPointer = content.outputTokensPointer();
        finishPointer = content.finishPointer();
        modelPointer = content.modelPointer();
        completeWords = content.completeWords().toArray(String[]::new);
        refusedWords = content.refusedWords().toArray(String[]::new);
        endMark = content.endMark();
        mostOutputTokens = content.mostOutputTokens();
        timeLimitMs = content.timeLimitMs();
        mostTries = content.mostTries();
        mostAtOnce = content.mostAtOnce();
    }

    CandidateId candidateId() {
        return candidateId;
    }

    long version() {
        return version;
    }

    SourceContent content() {
        return new SourceContent(
                url,
                method,
                headers.stream()
                        .map(h -> new SourceContent.Header(h.name(), h.value()))
                        .toList(),
                body,
                turnAsked,
                turnReplied,
                shape,
                textPointer,
                inputTokensPointer,
                outputTokensPointer,
                finishPointer,
                modelPointer,
                List.of(completeWords),
                List.of(refusedWords),
                endMark,
                mostOutputTokens,
                timeLimitMs,
                mostTries,
                mostAtOnce);
    }
}
