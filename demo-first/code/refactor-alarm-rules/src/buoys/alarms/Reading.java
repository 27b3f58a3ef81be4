package buoys.alarms;

/** Kind: BATTERY in volts, DRIFT in metres, LAMP in ampere. */
record Reading(String buoy, String kind, double value) {}
