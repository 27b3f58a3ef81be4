package org.mossbank.server.memo.document;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.candidate.TeamUse;
import org.mossbank.server.cost.CostReport;
import org.mossbank.server.cost.TeamCostReport;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.shared.wording.Numerals;

/** What an answer that works came to, and what a month would cost the team. */
final class CostParts {
    private CostParts() {}

    static void add(PartInHand part, MemoBasis basis) {
        String currency = basis.costs().currency();
        if (currency != null) {
            part.table(
                    "What an answer that works came to",
                    List.of("Candidate", "Work as they are#", "Left nothing#", "Paid for those#", "One that works#"),
                    basis.costs().rows().stream()
                            .map(r -> PartInHand.row(
                                    basis.name(r.candidateId()),
                                    r.working() + " of " + r.judged(),
                                    String.valueOf(r.empty()),
                                    money(r.wasted(), currency),
                                    money(r.oneThatWorks(), currency)))
                            .toList());
            notOutdone(basis, CostReport.Measure.COST)
                    .ifPresent(names -> part.say("In score and cost a prompt together nobody outdoes " + names + "."));
        }
        TeamCostReport team = basis.team();
        if (team != null) {
            month(part, basis, team);
        }
    }

    private static Optional<String> notOutdone(MemoBasis basis, CostReport.Measure measure) {
        return basis.costs().fronts().stream()
                .filter(f -> f.measure() == measure && !f.candidateIds().isEmpty())
                .findFirst()
                .map(f -> f.candidateIds().stream().map(basis::name).collect(Collectors.joining(", ")));
    }

    private static String money(Figure amount, String currency) {
        return amount.value() == null
                ? "not known: " + amount.undefinedReason()
                : Numerals.money(amount.value(), currency);
    }

    private static void month(PartInHand part, MemoBasis basis, TeamCostReport team) {
        TeamUse use = team.use();
        part.say("Used by " + Numerals.count(use.people(), "person", "people") + " for "
                + Numerals.fixed(use.tasksPerDay(), use.tasksPerDay() % 1 == 0 ? 0 : 1) + " tasks a day on "
                + Numerals.count(use.daysPerMonth(), "working day", "working days")
                + " a month, each task taken to take what a prompt of the study did:");
        List<List<String>> rows = new ArrayList<>();
        for (TeamCostReport.TeamRow row : team.rows()) {
            for (TeamCostReport.PaidView way : row.ways()) {
                rows.add(PartInHand.row(
                        basis.name(row.candidateId()) + (row.ruledOut() ? " (ruled out)" : ""),
                        way(way),
                        Numerals.money(way.monthly(), way.currency()),
                        String.valueOf(Math.round(way.stopped())) + " of " + Math.round(team.tasks())));
            }
            if (row.ways().isEmpty()) {
                rows.add(PartInHand.row(basis.name(row.candidateId()), "no price is known", "not known", ""));
            }
        }
        part.table(
                "A month for the team", List.of("Candidate", "Paid for", "A month#", "Tasks that a cap stops#"), rows);
    }

    private static String way(TeamCostReport.PaidView way) {
        return switch (way.way()) {
            case TOKENS -> "by tokens";
            case PLAN -> "by its plan";
            case PLAN_AND_TOKENS -> "by its plan, and by tokens what the cap stops";
        };
    }

    /** A figure each, by keys that an archive holds: of a month, that of the way which comes first. */
    static List<MemoDocument.MemoFigure> figures(MemoBasis basis) {
        List<MemoDocument.MemoFigure> all = new ArrayList<>();
        basis.costs()
                .rows()
                .forEach(r -> add(
                        all,
                        "one-that-works/",
                        basis,
                        r.candidateId(),
                        r.oneThatWorks().value()));
        TeamCostReport team = basis.team();
        if (team != null) {
            for (TeamCostReport.TeamRow row : team.rows()) {
                row.ways().stream()
                        .findFirst()
                        .ifPresent(w -> add(all, "month/", basis, row.candidateId(), w.monthly()));
            }
        }
        return all;
    }

    private static void add(
            List<MemoDocument.MemoFigure> all, String name, MemoBasis basis, CandidateId id, @Nullable Double value) {
        if (value != null) {
            all.add(new MemoDocument.MemoFigure(name + basis.key(id), value));
        }
    }
}
