package org.mossbank.server.ids;

import java.io.Serializable;
import java.util.UUID;

/**
 * What a row is known by. Each sort of row has a type of its own, so that one cannot be passed where another is meant; on
 * the wire and in the database it is its value.
 */
public sealed interface Id<T extends Id<T>> extends Comparable<T>, Serializable
        permits AccountId,
                AnswerId,
                CandidateId,
                CriterionId,
                KindId,
                PromptId,
                RepairId,
                SheetAnswerId,
                SheetId,
                StudyId {
    UUID value();

    @Override
    default int compareTo(T other) {
        return value().compareTo(other.value());
    }
}
