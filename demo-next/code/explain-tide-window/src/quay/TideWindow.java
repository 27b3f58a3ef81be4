package quay;

import java.time.Duration;
import java.time.Instant;

/** When the sill of the inner basin lets a ship pass. */
public final class TideWindow {
    private static final double SILL_METRES = 2.1;

    private final Instant highWater;
    private final double heightMetres;

    public TideWindow(Instant highWater, double heightMetres) {
        this.highWater = highWater;
        this.heightMetres = heightMetres;
    }

    public boolean isOpen(Instant time, double draughtMetres) {
        double hours = Duration.between(highWater, time).toMinutes() / 60.0;
        double level = heightMetres * Math.cos(hours * Math.PI / 6.2);
        return level > SILL_METRES + draughtMetres / 2;
    }
}
