package org.mossbank.server.answer;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import org.hibernate.annotations.Immutable;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;

/** Where an answer stands, a specimen too: what keys are taken, asked in one statement. Only ever read. */
@Entity
@Immutable
@Table(name = "answer")
class AnswerPlace {
    @Id
    private AnswerId id;

    private StudyId studyId;
    private String key;
    private PromptId promptId;

    @Nullable
    private CandidateId candidateId;

    private int attempt;

    @SuppressWarnings("NullAway.Init")
    protected AnswerPlace() {}
}
