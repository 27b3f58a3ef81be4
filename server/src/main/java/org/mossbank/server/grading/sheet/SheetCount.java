package org.mossbank.server.grading.sheet;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.mossbank.server.ids.Id;

/** How many of something belong to a thing. */
public record SheetCount<T extends Id<T>>(T id, long count) {
    public static <T extends Id<T>> Map<T, Long> byId(List<SheetCount<T>> counts) {
        return counts.stream().collect(Collectors.toMap(SheetCount::id, SheetCount::count));
    }
}
