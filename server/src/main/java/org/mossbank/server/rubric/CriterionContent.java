package org.mossbank.server.rubric;

import jakarta.validation.Valid;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.shared.FreeKey;

/**
 * A criterion as it is written.
 *
 * @param key    names it over versions; absent for a new one
 * @param weight share in the overall score; weights need not sum to 1
 * @param floor  least agreement on it, where it is not the brief's
 * @param levels from 0 up; two make a pass or fail
 * @param kindIds the kinds it is for; none for all
 * @param traits kinds of remark to offer
 */
public record CriterionContent(
        @Nullable @Pattern(regexp = FreeKey.FORM) String key,

        @NotNull @Size(max = 80) String name,
        @NotNull @Size(max = 500) String question,
        @DecimalMin("0") @DecimalMax("1000000") double weight,
        @Nullable @DecimalMin("-1") @DecimalMax("1") Double floor,

        @NotNull @Size(min = 2, max = HIGHEST_LEVEL + 1, message = "must be 2 to 10")
        List<@Valid @NotNull LevelContent> levels,

        @NotNull @Size(max = MOST_KINDS) List<@NotNull KindId> kindIds,
        @NotNull @Size(max = 40) List<@NotBlank @Size(max = 80) String> traits) {

    /** Levels run from 0 to this at most. */
    public static final int HIGHEST_LEVEL = 9;

    static final int MOST_KINDS = 60;

    public CriterionContent {
        levels = List.copyOf(levels);
        kindIds = List.copyOf(kindIds);
        traits = List.copyOf(traits);
    }

    /** A level's name (its number, if blank) and its anchors. */
    public record LevelContent(
            @NotNull @Size(max = 80) String name,
            @NotNull @Size(max = 60) List<@Valid @NotNull AnchorContent> anchors) {
        public LevelContent {
            anchors = List.copyOf(anchors);
        }

        LevelContent withAnchor(KindId kind, String text) {
            return new LevelContent(
                    name,
                    Stream.concat(
                                    anchors.stream().filter(a -> !a.kindId().equals(kind)),
                                    Stream.of(new AnchorContent(kind, text)))
                            .toList());
        }
    }

    /** What the level looks like in answers to one kind of prompt. */
    public record AnchorContent(
            @NotNull KindId kindId,
            @NotNull @Size(max = 1000) String text) {}

    CriterionContent withLevels(List<LevelContent> other) {
        return new CriterionContent(key, name, question, weight, floor, other, kindIds, traits);
    }

    CriterionContent withKey(String newKey) {
        return new CriterionContent(newKey, name, question, weight, floor, levels, kindIds, traits);
    }
}
