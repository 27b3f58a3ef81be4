package org.mossbank.server.agreement;

import org.mossbank.server.figures.FiguresAhead;
import org.mossbank.server.grading.RoundClosed;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Component;
import org.springframework.transaction.event.TransactionalEventListener;

/** What a round gave is worked out as soon as it is closed, so that the first who opens it need not wait for all of it. */
@Component
class WorkedOutAtClose {
    private final FiguresAhead ahead;

    WorkedOutAtClose(FiguresAhead ahead) {
        this.ahead = ahead;
    }

    /** Once it is closed for everybody, as another connection reads it. */
    @SystemOnly
    @TransactionalEventListener
    void begin(RoundClosed closed) {
        ahead.of(closed.studyId());
    }
}
