package org.mossbank.server.rubric;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.files.Keys;
import org.mossbank.server.files.NewIds;

/** A version of the rubric by keys, as the open format has it. */
public record KeyedVersion(Head head, List<KeyedCriterion> criteria) {
    public static KeyedVersion of(Rubrics.VersionCriteria version, Keys keys) {
        VersionView head = version.version();
        return new KeyedVersion(
                new Head(head.number(), head.publishedAt(), head.note()),
                version.criteria().stream().map(c -> KeyedCriterion.of(c, keys)).toList());
    }

    /** As it is kept. */
    public Rubrics.NewVersion kept(boolean inUse, NewIds ids) {
        return new Rubrics.NewVersion(
                head.version(),
                head.publishedAt(),
                head.note(),
                inUse,
                criteria.stream().map(c -> c.content(ids.kinds())).toList());
    }

    /**
     * What is said of a version.
     *
     * @param publishedAt absent for a draft
     */
    public record Head(int version, @Nullable Instant publishedAt, String note) {}
}
