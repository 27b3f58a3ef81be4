package org.mossbank.server.plan;

import java.util.List;
import org.mossbank.core.assignment.Assignment;
import org.mossbank.core.assignment.SheetPlan;
import org.mossbank.core.estimate.Resamples;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.database.Snapshot;
import org.springframework.stereotype.Component;

/** Draws a plan: the study's seed makes preview and round the same. */
@Component
class PlanDrawing {
    private final PlanBases bases;
    private final PlanOutlook outlook;
    private final Snapshot snapshot;
    private final HeavyWork heavy;

    PlanDrawing(PlanBases bases, PlanOutlook outlook, Snapshot snapshot, HeavyWork heavy) {
        this.bases = bases;
        this.outlook = outlook;
        this.snapshot = snapshot;
        this.heavy = heavy;
    }

    /** A plan that was drawn, with what it was drawn from. */
    record Drawn(PlanBasis basis, List<SheetPlan> plan, PlanView view) {}

    Drawn of(StudyId study, PlanRequest request) {
        PlanBasis basis = snapshot.of(() -> bases.of(study, request));
        List<SheetPlan> plan = heavy.run(() -> plan(basis, request));
        return new Drawn(basis, plan, outlook.view(basis, plan));
    }

    /** What keeps the round from being opened by it, in sentences. */
    List<String> missing(Drawn drawn) {
        return outlook.missing(drawn.basis);
    }

    /** What it should wait for, in sentences. */
    List<String> unmet(StudyId study) {
        return outlook.unmet(study);
    }

    /** Whether the study is still what it was drawn from. Called within the transaction that opens the round. */
    boolean holds(StudyId study, PlanRequest request, Drawn drawn) {
        return bases.of(study, request).equals(drawn.basis);
    }

    private static List<SheetPlan> plan(PlanBasis basis, PlanRequest request) {
        return Assignment.plan(
                basis.task(),
                request.options(),
                Resamples.generator(basis.study().seed()));
    }
}
