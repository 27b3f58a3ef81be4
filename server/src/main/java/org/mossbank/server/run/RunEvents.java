package org.mossbank.server.run;

import org.mossbank.server.shared.live.LiveBoards;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** Tells a browser how a run goes: the whole board whenever it has changed. */
@Component
class RunEvents {
    private final RunBoards boards;
    private final LiveBoards live;

    RunEvents(RunBoards boards, LiveBoards live) {
        this.boards = boards;
        this.live = live;
    }

    /** A run that is paused may go on. */
    SseEmitter follow(RunView first) {
        return live.follow(first, () -> boards.view(first.id()), run -> true);
    }
}
