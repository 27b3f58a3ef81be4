package org.mossbank.server.agreement;

import org.mossbank.server.figures.FiguresAhead;
import org.mossbank.server.grading.RoundClosed;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** What a round gave is worked out when it is closed: whoever closes it waits for that, and whoever opens it then does not. */
@Component
class WorkedOutAtClose {
    private final FiguresAhead ahead;

    WorkedOutAtClose(FiguresAhead ahead) {
        this.ahead = ahead;
    }

    @SystemOnly
    @EventListener
    void workOut(RoundClosed closed) {
        ahead.now(closed.studyId());
    }
}
