package org.mossbank.server.memo;

import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.study.RoundStage;
import org.mossbank.server.study.WaitsForLead;
import org.springframework.stereotype.Component;

/** Studies whose round is closed and whose memo nobody has signed. */
@Component
class MemoAwaited implements WaitsForLead {
    private final MemoRepository memos;

    MemoAwaited(MemoRepository memos) {
        this.memos = memos;
    }

    @Override
    public RoundStage.Stage stage() {
        return RoundStage.Stage.CLOSED;
    }

    @Override
    public Map<StudyId, String> of(Collection<StudyId> studies) {
        Map<StudyId, String> waits = new HashMap<>();
        studies.forEach(s -> waits.put(s, "no memo is signed yet"));
        memos.signed(studies).forEach(s -> waits.remove(s.getId()));
        return waits;
    }
}
