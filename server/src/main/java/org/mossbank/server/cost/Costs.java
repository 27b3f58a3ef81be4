package org.mossbank.server.cost;

import jakarta.persistence.EntityManager;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.tradeoff.ParetoFront;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.candidate.MonthlyCost;
import org.mossbank.server.candidate.TeamUse;
import org.mossbank.server.figures.FiguresOf;
import org.mossbank.server.figures.KeptFigures;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What answers took and what a month would cost, for other modules. Figures are kept by the revision of the grades. */
@Service
public class Costs {
    private static final FiguresOf<CostReport> COSTS = new FiguresOf<>("costs", CostReport.class);

    private final CostComputation computation;
    private final StatedUseRepository uses;
    private final Candidates candidates;
    private final Grading grading;
    private final KeptFigures kept;
    private final EntityManager entities;

    Costs(
            CostComputation computation,
            StatedUseRepository uses,
            Candidates candidates,
            Grading grading,
            KeptFigures kept,
            EntityManager entities) {
        this.computation = computation;
        this.uses = uses;
        this.candidates = candidates;
        this.grading = grading;
        this.kept = kept;
        this.entities = entities;
    }

    /** @throws org.mossbank.server.shared.Problem 409 before grading has ended */
    @SystemOnly
    public CostReport ofStudy(StudyId study) {
        long revision = grading.round(study).orElseThrow().revision();
        return kept.of(COSTS, study, revision, () -> computation.of(study));
    }

    /** How the team would use what it chooses; empty where nobody said so. */
    @SystemOnly
    public Optional<TeamCostReport.StatedUseView> statedUse(StudyId study) {
        return uses.findById(study).map(StatedUse::view);
    }

    /** As an archive brings it. */
    @SystemOnly
    @Transactional
    public void restore(StudyId study, TeamCostReport.StatedUseView stated) {
        entities.persist(StatedUse.of(study, stated));
    }

    /**
     * What a month would cost.
     *
     * @param stated as it is kept
     */
    @SystemOnly
    public TeamCostReport team(StudyId study, TeamUse use, TeamCostReport.@Nullable StatedUseView stated) {
        CostReport report = ofStudy(study);
        Map<CandidateId, Candidates.Head> heads =
                candidates.heads(study).stream().collect(Collectors.toMap(Candidates.Head::id, Function.identity()));
        List<TeamCostReport.TeamRow> rows = report.rows().stream()
                .map(r -> row(r, Objects.requireNonNull(heads.get(r.candidateId())), use, report.currency()))
                .toList();
        Set<String> currencies = rows.stream()
                .flatMap(r -> r.ways().stream())
                .map(TeamCostReport.PaidView::currency)
                .collect(Collectors.toSet());
        return new TeamCostReport(
                use,
                stated,
                use.tasksAMonth(),
                currencies.size() == 1 ? currencies.iterator().next() : null,
                rows,
                currencies.size() == 1 ? front(report, rows) : List.of());
    }

    private static TeamCostReport.TeamRow row(
            CostReport.CostRow row, Candidates.Head head, TeamUse use, @Nullable String currency) {
        MonthlyCost cost = MonthlyCost.of(
                head.price(),
                use,
                new MonthlyCost.Task(row.cost().value(), row.tokens().value(), currency));
        return new TeamCostReport.TeamRow(
                row.candidateId(),
                row.name(),
                row.ruledOut(),
                cost.ways().stream().map(Costs::way).toList(),
                cost.capUncounted());
    }

    private static TeamCostReport.PaidView way(MonthlyCost.Priced priced) {
        return new TeamCostReport.PaidView(
                priced.cost().way(),
                priced.cost().monthly(),
                priced.currency(),
                priced.cost().done(),
                priced.cost().stopped(),
                priced.cost().aTask().isPresent()
                        ? (Double) priced.cost().aTask().getAsDouble()
                        : null);
    }

    /** Of those that can be taken and get everything done. */
    private static List<CandidateId> front(CostReport report, List<TeamCostReport.TeamRow> rows) {
        Map<CandidateId, Double> scores = report.rows().stream()
                .filter(r -> r.score().value() != null)
                .collect(Collectors.toMap(
                        CostReport.CostRow::candidateId,
                        r -> Objects.requireNonNull(r.score().value())));
        List<ParetoFront.Option> options = new ArrayList<>();
        for (TeamCostReport.TeamRow row : rows) {
            Double score = scores.get(row.candidateId());
            if (!row.ruledOut()
                    && score != null
                    && !row.ways().isEmpty()
                    && row.ways().get(0).stopped() == 0) {
                options.add(new ParetoFront.Option(
                        row.candidateId().toString(), score, row.ways().get(0).monthly()));
            }
        }
        Set<String> names = Set.copyOf(ParetoFront.of(options));
        return rows.stream()
                .map(TeamCostReport.TeamRow::candidateId)
                .filter(id -> names.contains(id.toString()))
                .toList();
    }
}
