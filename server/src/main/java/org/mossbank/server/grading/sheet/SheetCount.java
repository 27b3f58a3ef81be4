package org.mossbank.server.grading.sheet;

import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;

/** How many of something belong to a thing. */
public record SheetCount(UUID id, long count) {
    public static Map<UUID, Long> byId(List<SheetCount> counts) {
        return counts.stream().collect(Collectors.toMap(SheetCount::id, SheetCount::count));
    }
}
