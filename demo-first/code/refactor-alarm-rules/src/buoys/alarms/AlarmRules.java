package buoys.alarms;

final class AlarmRules {
    String check(Reading r) {
        if (r.kind().equals("BATTERY")) {
            if (r.value() < 11.2) {
                return "CRITICAL";
            } else if (r.value() < 11.8) {
                return "WARNING";
            } else {
                return "OK";
            }
        }
        if (r.kind().equals("DRIFT")) {
            if (r.value() > 120) {
                return "CRITICAL";
            } else if (r.value() > 60) {
                return "WARNING";
            } else {
                return "OK";
            }
        }
        if (r.kind().equals("LAMP")) {
            if (r.value() < 0.5) {
                return "CRITICAL";
            } else {
                return "OK";
            }
        }
        return "OK";
    }
}
