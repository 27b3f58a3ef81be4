package org.mossbank.server.files;

import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** The ids that things got when they were brought in, by the keys that their files have for them. */
public record NewIds(
        Map<String, UUID> people,
        Map<String, UUID> kinds,
        Map<String, UUID> prompts,
        Map<String, UUID> candidates,
        Map<String, UUID> answers,
        Map<String, UUID> criteria) {
    /** The account of a person; absent where nobody is named. */
    public @Nullable UUID person(@Nullable String key) {
        return key == null ? null : people.get(key);
    }

    /** An answer; absent where none is named. */
    public @Nullable UUID answer(@Nullable String key) {
        return key == null ? null : answers.get(key);
    }
}
