package org.mossbank.server.files;

import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;

/**
 * The ids that things got when they were brought in, by the keys that their files have for them.
 *
 * @param criteria of the version of the rubric that counts
 * @param versions criteria of every version, by its number
 */
public record NewIds(
        Map<String, AccountId> people,
        Map<String, KindId> kinds,
        Map<String, PromptId> prompts,
        Map<String, CandidateId> candidates,
        Map<String, AnswerId> answers,
        Map<String, CriterionId> criteria,
        Map<Integer, Map<String, CriterionId>> versions) {
    /** Criteria of a version; without one, of the one that counts. */
    public Map<String, CriterionId> criteriaOf(@Nullable Integer version) {
        return version == null ? criteria : Require.known(versions, version);
    }

    /** The account of a person; absent where nobody is named. */
    public @Nullable AccountId person(@Nullable String key) {
        return key == null ? null : people.get(key);
    }

    /** An answer; absent where none is named. */
    public @Nullable AnswerId answer(@Nullable String key) {
        return key == null ? null : answers.get(key);
    }
}
