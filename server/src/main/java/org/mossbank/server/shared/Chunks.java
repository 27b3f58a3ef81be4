package org.mossbank.server.shared;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.function.Function;

/** Asks for many things by their ids, so many at a time as one statement may have parameters. */
public final class Chunks {
    /** The protocol allows 65,535; long statements are slow to read. */
    static final int MOST = 5_000;

    private Chunks() {}

    /** What all of them yield, in the order of the ids; nothing is asked for none. */
    public static <I, T> List<T> of(Collection<I> ids, Function<List<I>, List<T>> query) {
        List<I> all = List.copyOf(ids);
        List<T> found = new ArrayList<>();
        for (int from = 0; from < all.size(); from += MOST) {
            found.addAll(query.apply(all.subList(from, Math.min(all.size(), from + MOST))));
        }
        return found;
    }
}
