package buoys.alarms;

import java.util.List;

final class AlarmDesk {
    private final AlarmRules rules = new AlarmRules();

    List<String> toCall(List<Reading> readings) {
        return readings.stream()
                .filter(r -> rules.check(r).equals("CRITICAL"))
                .map(Reading::buoy)
                .distinct()
                .toList();
    }

    boolean isQuiet(List<Reading> readings) {
        return readings.stream().allMatch(r -> rules.check(r).equals("OK"));
    }
}
