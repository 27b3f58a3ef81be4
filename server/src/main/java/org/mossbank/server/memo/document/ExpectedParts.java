package org.mossbank.server.memo.document;

import java.util.List;
import java.util.Optional;
import org.mossbank.server.expected.ExpectedReport;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.shared.wording.Numerals;

/** What people expected, and what is claimed elsewhere, against what came out. */
final class ExpectedParts {
    private ExpectedParts() {}

    static PartInHand expectations(MemoBasis basis, NamesShown shown) {
        PartInHand part = new PartInHand(MemoSection.EXPECTATIONS);
        ExpectedReport expected = basis.expected();
        if (expected.expectations().isEmpty() && expected.measures().isEmpty()) {
            return part.say("Nobody was asked, or nobody said; no published figure was written down.");
        }
        if (!expected.expectations().isEmpty()) {
            part.say("Said before anybody saw an answer; raters did not know the candidates.");
            part.table(
                    "What people expected",
                    List.of("Who", "Expected to do best", "Came as number#", "Used at the time"),
                    expected.expectations().stream()
                            .map(e -> PartInHand.row(
                                    who(e, shown),
                                    said(e, basis),
                                    e.rank() == null ? "not known" : String.valueOf(e.rank()),
                                    e.usesToday().isBlank() ? "not said" : e.usesToday()))
                            .toList());
        }
        favourites(expected).ifPresent(part::say);
        expected.measures().forEach(m -> claims(part, basis, m));
        return part;
    }

    /** In their words, and whom these are taken for. */
    private static String said(ExpectedReport.Expecting expecting, MemoBasis basis) {
        String words = expecting.expects().isBlank() ? "nothing in particular" : expecting.expects();
        CandidateId taken = expecting.candidateId();
        return taken == null || expecting.byName() ? words : words + " (taken for " + basis.name(taken) + ")";
    }

    private static String who(ExpectedReport.Expecting expecting, NamesShown shown) {
        return shown == NamesShown.NOT_AT_ALL && expecting.lead()
                ? "the lead"
                : expecting.name() + (expecting.lead() && shown == NamesShown.BY_NAME ? ", lead" : "");
    }

    private static Optional<String> favourites(ExpectedReport expected) {
        ExpectedReport.FavouritesView found = expected.favourites();
        if (found == null) {
            return Optional.empty();
        }
        Figure p = found.p();
        return Optional.of(Numerals.count(found.raters(), "rater", "raters") + " with a favourite gave it "
                + ResultParts.value(found.higher(), 1) + " points more than others did ("
                + ResultParts.interval(found.higher(), 1) + "); "
                + (p.value() == null
                        ? "whether that is chance cannot be told: " + p.undefinedReason() + "."
                        : "as much or more would come of chance with p = " + Numerals.fixed(p.value(), 3) + "."));
    }

    private static void claims(PartInHand part, MemoBasis basis, ExpectedReport.MeasureClaimed measure) {
        part.table(
                "Published elsewhere: " + measure.measure() + " (" + (measure.higherIsBetter() ? "more" : "less")
                        + " is better)",
                List.of("Candidate", "Published#", "Score here#", "Where it stands"),
                measure.claims().stream()
                        .map(c -> PartInHand.row(
                                basis.name(c.candidateId()),
                                Numerals.fixed(c.value(), 1),
                                c.score() == null ? "none" : Numerals.fixed(c.score(), 1),
                                c.source() + (c.asOf() == null ? "" : ", as of " + c.asOf())))
                        .toList());
        if (measure.rho().value() != null) {
            part.say("These put " + Numerals.count(measure.pairs(), "candidate", "candidates")
                    + " in an order that goes with the scores here by a rank correlation of "
                    + ResultParts.value(measure.rho(), 2) + " (1 is the same order, −1 the opposite).");
        }
    }
}
