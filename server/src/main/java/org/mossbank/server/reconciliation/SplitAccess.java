package org.mossbank.server.reconciliation;

import java.util.UUID;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.StudyAccess;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** A split is there for the lead, unless they grade, and for the raters it concerns; for anybody else there is none. */
@Component("splitAccess")
@Transactional(readOnly = true)
public class SplitAccess {
    private final ReconciliationRepository splits;
    private final ThirdLookRepository looks;
    private final StudyAccess studies;
    private final SplitReaders readers;
    private final CurrentAccount current;

    SplitAccess(
            ReconciliationRepository splits,
            ThirdLookRepository looks,
            StudyAccess studies,
            SplitReaders readers,
            CurrentAccount current) {
        this.splits = splits;
        this.looks = looks;
        this.studies = studies;
        this.readers = readers;
        this.current = current;
    }

    public boolean mayRead(UUID split) {
        Reconciliation found = splits.findById(split).orElseThrow(SplitAccess::none);
        if (!studies.mayPrepare(found.studyId()) && !readers.mayRead(found, current.id())) {
            throw none();
        }
        return true;
    }

    /** Whoever was asked for a third look, and belongs to the study. */
    public boolean isAskedToLook(UUID split) {
        Reconciliation found = splits.findById(split).orElseThrow(SplitAccess::none);
        studies.mayEnter(found.studyId());
        looks.findById(new ThirdLook.Key(split, current.id())).orElseThrow(SplitAccess::none);
        return true;
    }

    /** Whoever reads the split, or was asked to look at its answer. */
    public boolean maySeeAnswer(UUID split) {
        return looks.existsById(new ThirdLook.Key(split, current.id())) ? isAskedToLook(split) : mayRead(split);
    }

    private static Problem none() {
        return Problem.notFound("This split");
    }
}
