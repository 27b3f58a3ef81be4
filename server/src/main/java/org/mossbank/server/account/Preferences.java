package org.mossbank.server.account;

import jakarta.validation.constraints.AssertTrue;
import jakarta.validation.constraints.Size;
import java.time.ZoneId;
import org.jspecify.annotations.Nullable;

/**
 * What a person chose for themselves, wherever they sign in.
 *
 * @param theme    how pages look; as in the browser if it is absent
 * @param timeZone IANA name of the zone in which times are shown; the browser's if it is absent
 */
record Preferences(
        @Nullable Theme theme,
        @Size(min = 1, max = 64) @Nullable String timeZone) {
    /** How pages look. */
    enum Theme {
        /** As the reader's system. */
        SYSTEM,
        LIGHT,
        DARK
    }

    @AssertTrue(message = "is no zone that is known here")
    boolean isTimeZoneKnown() {
        return timeZone == null || ZoneId.getAvailableZoneIds().contains(timeZone);
    }
}
