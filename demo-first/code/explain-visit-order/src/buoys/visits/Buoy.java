package buoys.visits;

import java.time.LocalDate;

/** Priority: 1 is a light that guides into a harbour, 5 a special mark. */
record Buoy(String name, int priority, LocalDate dueOn) {}
