package org.mossbank.server.rubric;

import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.files.Keys;
import org.mossbank.server.ids.KindId;

/**
 * A criterion by keys, as the open format has it.
 *
 * @param levels from 0 up
 * @param kinds  keys of the kinds it is for; none for all
 */
public record KeyedCriterion(
        String key,
        String name,
        String question,
        double weight,
        @Nullable Double floor,
        List<KeyedLevel> levels,
        List<String> kinds,
        List<String> traits) {
    /**
     * A level.
     *
     * @param name    empty if it is called by its number
     * @param anchors text by key of the kind
     */
    public record KeyedLevel(String name, SortedMap<String, String> anchors) {}

    public int highestLevel() {
        return levels.size() - 1;
    }

    /** Whether it is for prompts of a kind. */
    public boolean isFor(String kind) {
        return kinds.isEmpty() || kinds.contains(kind);
    }

    /** A level that is called by its number has no name of its own. */
    static KeyedCriterion of(CriterionView criterion, Keys keys) {
        return new KeyedCriterion(
                criterion.key(),
                criterion.name(),
                criterion.question(),
                criterion.weight(),
                criterion.floor(),
                criterion.levels().stream()
                        .map(l -> new KeyedLevel(
                                l.name().equals(String.valueOf(l.level())) ? "" : l.name(),
                                l.anchors().stream()
                                        .collect(Collectors.toMap(
                                                a -> keys.of(a.kindId()),
                                                CriterionView.AnchorView::text,
                                                (a, b) -> a,
                                                TreeMap::new))))
                        .toList(),
                criterion.kindIds().stream().map(keys::of).sorted().toList(),
                criterion.traits());
    }

    CriterionContent content(Map<String, KindId> kindIds) {
        return new CriterionContent(
                key,
                name,
                question,
                weight,
                floor,
                levels.stream()
                        .map(l -> new CriterionContent.LevelContent(
                                l.name(),
                                l.anchors().entrySet().stream()
                                        .map(a -> new CriterionContent.AnchorContent(
                                                Require.known(kindIds, a.getKey()), a.getValue()))
                                        .toList()))
                        .toList(),
                kinds.stream().map(kindIds::get).toList(),
                traits);
    }
}
