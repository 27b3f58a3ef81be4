package org.mossbank.core.comparison;

import java.util.BitSet;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;

/** Where each two candidates both have scores: worked out once for all grids with scores at the same places. */
final class PairPlaces {
    private final Layout layout;
    private final BitSet[] has;
    private final Map<Integer, Places> known = new ConcurrentHashMap<>();
    /** Pairs often stand at the very same places. */
    private final Map<BitSet, Places> alike = new ConcurrentHashMap<>();
    /** What this is without one prompt; absent where it is whole. */
    @Nullable
    private final PairPlaces whole;

    private final int leftOut;
    /** What is left of a pattern that several pairs share; by identity, as a pattern has no equal. */
    private final Map<CrossedPattern, Optional<CrossedPattern>> rests =
            Collections.synchronizedMap(new IdentityHashMap<>());

    /**
     * The places there are.
     *
     * @param promptOf of each place, ascending
     * @param raterOf  of each place
     * @param familyOf of each prompt
     * @param kindOf   of each prompt
     * @param raters   how many there are
     */
    record Layout(int[] promptOf, int[] raterOf, int[] familyOf, int[] kindOf, int raters) {}

    /** Where two candidates both have a score, ascending; the pattern is that of these places, if there is any. */
    record Places(int[] at, CrossedPattern pattern) {}

    /** @param has places of each candidate */
    PairPlaces(Layout layout, BitSet[] has) {
        this.layout = layout;
        this.has = has;
        this.whole = null;
        this.leftOut = -1;
    }

    /** @param leftOut the prompt that goes */
    PairPlaces(PairPlaces whole, int leftOut, BitSet[] has) {
        this.layout = whole.layout;
        this.has = has;
        this.whole = whole;
        this.leftOut = leftOut;
    }

    Places of(int first, int second) {
        int pair = Math.min(first, second) * has.length + Math.max(first, second);
        Places places = known.get(pair);
        if (places == null) {
            places = whole == null ? of(both(first, second)) : fewer(whole.of(first, second), first, second);
            known.put(pair, places);
        }
        return places;
    }

    private BitSet both(int first, int second) {
        BitSet both = (BitSet) has[first].clone();
        both.and(has[second]);
        return both;
    }

    /** Any places. */
    Places of(BitSet both) {
        return alike.computeIfAbsent(both, b -> {
            int[] at = b.stream().toArray();
            return new Places(at, pattern(at));
        });
    }

    /** Of the whole's, what is left of its pattern; empty if this is without no prompt, or the rest is laid out otherwise. */
    Optional<Rest> rest(int first, int second) {
        if (whole == null) {
            return Optional.empty();
        }
        Places all = whole.of(first, second);
        return rest(all).map(r -> new Rest(all, r, layout.familyOf[leftOut]));
    }

    /**
     * @param whole  with the prompt that is left out
     * @param family of that prompt
     */
    record Rest(Places whole, CrossedPattern pattern, int family) {}

    private Optional<CrossedPattern> rest(Places all) {
        return rests.computeIfAbsent(all.pattern, p -> p.without(layout.familyOf[leftOut]));
    }

    private Places fewer(Places all, int first, int second) {
        Optional<CrossedPattern> rest = rest(all);
        if (rest.isEmpty()) {
            return of(both(first, second));
        }
        int from = 0;
        while (from < all.at.length && layout.promptOf[all.at[from]] < leftOut) {
            from++;
        }
        int to = from;
        while (to < all.at.length && layout.promptOf[all.at[to]] == leftOut) {
            to++;
        }
        int[] at = new int[all.at.length - (to - from)];
        System.arraycopy(all.at, 0, at, 0, from);
        System.arraycopy(all.at, to, at, from, all.at.length - to);
        return new Places(at, rest.get());
    }

    private CrossedPattern pattern(int[] places) {
        int[] prompt = new int[places.length];
        int[] rater = new int[places.length];
        for (int i = 0; i < places.length; i++) {
            prompt[i] = layout.promptOf[places[i]];
            rater[i] = layout.raterOf[places[i]];
        }
        return new CrossedPattern(prompt, rater, layout.familyOf, layout.kindOf, layout.raters);
    }
}
