package org.mossbank.server.rubric;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.KindId;

/**
 * A criterion with its scale.
 *
 * @param weight  share in the overall score; weights need not sum to 1
 * @param floor   least agreement on it, where it is not the brief's
 * @param levels  from 0 up
 * @param kindIds the kinds it is for; none for all
 * @param traits  kinds of remark to offer
 */
public record CriterionView(
        CriterionId id,
        String key,
        String name,
        String question,
        double weight,
        @Nullable Double floor,
        List<LevelView> levels,
        List<KindId> kindIds,
        List<String> traits) {
    /** One level, with an anchor for each kind that has one. */
    public record LevelView(int level, String name, List<AnchorView> anchors) {
        /** What it looks like in answers to prompts of a kind; empty where nothing says so. */
        public Optional<String> anchorFor(KindId kind) {
            return anchors.stream()
                    .filter(a -> a.kindId().equals(kind))
                    .map(AnchorView::text)
                    .findFirst();
        }
    }

    /** What a level looks like in answers to one kind of prompt. */
    public record AnchorView(KindId kindId, String text) {}

    /** As the rubric that a study starts from calls it. */
    private static final String CORRECTNESS = "correctness";

    /**
     * The criterion for whose level key points and trials speak: correctness, else the one that the rule's gate stands on.
     *
     * @param gate key of that one; absent if the rule has none
     */
    public static Optional<CriterionView> spokenFor(List<CriterionView> criteria, @Nullable String gate) {
        Optional<CriterionView> correctness =
                criteria.stream().filter(c -> c.key.equals(CORRECTNESS)).findFirst();
        return correctness.or(
                () -> criteria.stream().filter(c -> c.key.equals(gate)).findFirst());
    }

    public int highestLevel() {
        return levels.size() - 1;
    }

    /** Whether answers to prompts of this kind are graded on it. */
    public boolean appliesTo(KindId kind) {
        return kindIds.isEmpty() || kindIds.contains(kind);
    }

    CriterionContent content() {
        return new CriterionContent(
                key,
                name,
                question,
                weight,
                floor,
                levels.stream()
                        .map(l -> new CriterionContent.LevelContent(
                                l.name().equals(String.valueOf(l.level())) ? "" : l.name(),
                                l.anchors().stream()
                                        .map(a -> new CriterionContent.AnchorContent(a.kindId(), a.text()))
                                        .toList()))
                        .toList(),
                kindIds,
                traits);
    }
}
