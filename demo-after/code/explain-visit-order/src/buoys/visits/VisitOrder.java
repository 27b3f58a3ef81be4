package buoys.visits;

import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;

/** Puts the buoys of a district into the order in which the tender visits them. */
final class VisitOrder {
    static List<Buoy> of(List<Buoy> district, LocalDate today) {
        return district.stream()
                .filter(b -> !b.dueOn().isAfter(today.plusDays(14)))
                .sorted(Comparator.comparing(Buoy::dueOn)
                        .thenComparing(Buoy::priority)
                        .reversed())
                .limit(12)
                .toList();
    }
}
