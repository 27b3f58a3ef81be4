package org.mossbank.server.reconciliation;

import jakarta.persistence.EntityManager;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.FiguresChanged;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Component;

/** One writer a split at a time, and only while it is open. Within the transaction of whoever writes. */
@Component
class SplitLocks {
    private final ReconciliationRepository splits;
    private final Grading grading;
    private final SplitPages pages;
    private final EntityManager entities;
    private final ApplicationEventPublisher events;

    SplitLocks(
            ReconciliationRepository splits,
            Grading grading,
            SplitPages pages,
            EntityManager entities,
            ApplicationEventPublisher events) {
        this.splits = splits;
        this.grading = grading;
        this.pages = pages;
        this.entities = entities;
        this.events = events;
    }

    Reconciliation found(UUID id) {
        return splits.findById(id).orElseThrow(() -> Problem.notFound("This split"));
    }

    /** The round first, then the split: one order, no deadlock. */
    Reconciliation locked(UUID id) {
        grading.requireOpen(found(id).studyId());
        Reconciliation split = splits.lock(id).orElseThrow(() -> Problem.notFound("This split"));
        entities.refresh(split);
        return split;
    }

    /** @throws Problem 409 if somebody has closed it, saying who and how */
    Reconciliation open(UUID id) {
        Reconciliation split = locked(id);
        SplitClosing closing = split.closing();
        if (closing != null) {
            throw new Problem(ProblemType.SPLIT_CLOSED, closedAlready(closing));
        }
        return split;
    }

    private static String closedAlready(SplitClosing closing) {
        Double level = closing.level();
        return level == null
                ? "%s has left this split open. Nothing is added until it is opened again.".formatted(closing.by())
                : "This split is settled at %s by %s. Nothing is added until it is opened again."
                        .formatted(plain(level), closing.by());
    }

    private static String plain(double level) {
        return level == Math.rint(level) ? String.valueOf((int) level) : String.valueOf(level);
    }

    void requireLevel(Reconciliation split, int level) {
        CriterionView criterion = pages.criterion(split);
        if (level > criterion.highestLevel()) {
            throw Problem.invalid("level", "must be at most " + criterion.highestLevel());
        }
    }

    /** With or without a settled grade; figures that use it are worked out anew. */
    void close(Reconciliation split, @Nullable SplitClosing closing) {
        if (closing == null) {
            split.openAgain();
        } else {
            split.close(closing);
        }
        entities.flush();
        events.publishEvent(new FiguresChanged(split.studyId()));
    }
}
