package org.mossbank.server.trait;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.mossbank.server.grading.RemarkContent.Stance;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.shared.wording.Numerals;

/** Says of each candidate what was said of it most often. */
final class TraitSentences {
    /** As many traits of each sort as one reads. */
    private static final int NAMED = 2;
    /** Said of one answer alone it is no habit. */
    private static final int FEWEST = 2;

    private TraitSentences() {}

    /** @param points may be none */
    static List<String> of(
            List<TraitReport.TraitCandidate> candidates,
            List<TraitReport.TraitRow> rows,
            List<TraitReport.PointsCell> points) {
        List<String> all = new ArrayList<>();
        for (TraitReport.TraitCandidate candidate : candidates) {
            List<String> parts = new ArrayList<>();
            said(Stance.FAULT, "fault found with ", candidate.id(), rows).ifPresent(parts::add);
            said(Stance.CREDIT, "praised for ", candidate.id(), rows).ifPresent(parts::add);
            points.stream()
                    .filter(p ->
                            p.candidateId().equals(candidate.id()) && p.share().value() != null)
                    .map(p -> "covers " + share(p) + " of the key points")
                    .forEach(parts::add);
            if (!parts.isEmpty()) {
                all.add(candidate.name() + ": " + String.join("; ", parts) + ".");
            }
        }
        return all;
    }

    private static String share(TraitReport.PointsCell cell) {
        Double value = cell.share().value();
        return Numerals.percent(value == null ? 0 : value);
    }

    private static Optional<String> said(
            Stance stance, String how, CandidateId candidate, List<TraitReport.TraitRow> rows) {
        List<Counted> most = rows.stream()
                .filter(r -> r.stance() == stance)
                .flatMap(r -> r.cells().stream()
                        .filter(c -> c.candidateId().equals(candidate) && c.answers() >= FEWEST)
                        .map(c -> new Counted(r.trait(), c)))
                .sorted(Comparator.comparingInt((Counted c) -> -c.cell.answers())
                        .thenComparing(Counted::trait))
                .limit(NAMED)
                .toList();
        return most.isEmpty()
                ? Optional.empty()
                : Optional.of(how
                        + most.stream()
                                .map(c -> "“" + c.trait + "” in " + c.cell.answers()
                                        + (c == most.get(0) ? " of " + c.cell.of() + " answers" : ""))
                                .collect(Collectors.joining(", ")));
    }

    private record Counted(String trait, TraitReport.TraitCell cell) {}
}
