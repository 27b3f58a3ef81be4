package org.mossbank.core.comparison;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.UnaryOperator;

/**
 * How prompts belong together when they are resampled.
 *
 * @param kindOf   the kind within which a prompt is drawn
 * @param familyOf what is drawn as one: a prompt with its variants
 */
public record PromptGroups(UnaryOperator<String> kindOf, UnaryOperator<String> familyOf) {

    /** Every prompt is a family of its own. */
    public static PromptGroups byKind(UnaryOperator<String> kindOf) {
        return new PromptGroups(kindOf, UnaryOperator.identity());
    }

    /**
     * The families of each kind, as positions of their prompts. Kinds with a single family are put together; a lone one
     * joins the first kind that has more.
     */
    List<List<int[]>> strata(List<String> prompts) {
        Map<String, Map<String, List<Integer>>> byKind = new TreeMap<>();
        for (int p = 0; p < prompts.size(); p++) {
            byKind.computeIfAbsent(kindOf.apply(prompts.get(p)), k -> new TreeMap<>())
                    .computeIfAbsent(familyOf.apply(prompts.get(p)), f -> new ArrayList<>())
                    .add(p);
        }
        List<List<int[]>> strata = new ArrayList<>();
        List<int[]> singles = new ArrayList<>();
        for (Map<String, List<Integer>> families : byKind.values()) {
            List<int[]> members = new ArrayList<>(families.values().stream()
                    .map(f -> f.stream().mapToInt(Integer::intValue).toArray())
                    .toList());
            if (members.size() == 1) {
                singles.addAll(members);
            } else {
                strata.add(members);
            }
        }
        if (singles.size() == 1 && !strata.isEmpty()) {
            strata.get(0).addAll(singles);
        } else if (!singles.isEmpty()) {
            strata.add(singles);
        }
        return strata;
    }
}
