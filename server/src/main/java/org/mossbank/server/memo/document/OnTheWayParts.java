package org.mossbank.server.memo.document;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import org.mossbank.server.acts.ActView;
import org.mossbank.server.acts.OutcomeTeller;
import org.mossbank.server.recommendation.RecommendationReport;
import org.mossbank.server.shared.wording.Numerals;
import org.mossbank.server.study.RuleTerms;

/** What a doubter asks for: limits, acts, expectations, and where raters see it otherwise. */
final class OnTheWayParts {
    private OnTheWayParts() {}

    static PartInHand limits(MemoBasis basis) {
        RecommendationReport report = basis.report();
        PartInHand part = new PartInHand(MemoSection.LIMITS);
        part.say(
                "What is said holds for other prompts and other raters of the sort that this study had; for other sorts of "
                        + "task, other settings or later versions it says nothing.");
        if (report.failed().answers() > 0) {
            part.say(failed(report));
        }
        report.unequalFollowUps()
                .forEach(u -> part.say(basis.name(u.candidateId()) + " got "
                        + Numerals.count(u.followUps(), "follow-up", "follow-ups") + " of its own on “" + u.title()
                        + "”, which the others did not."));
        if (report.unequalFollowUps().isEmpty()) {
            part.say("No candidate was followed up with words that another did not get.");
        }
        report.severalModels().forEach(s -> part.say(severalModels(s, basis)));
        RecommendationReport.LookingView looking = report.looking();
        part.say(
                looking.taken().isEmpty()
                        ? "Nobody saw how candidates stood before grading had ended."
                        : "Standings were seen "
                                + Numerals.count(looking.taken().size(), "time", "times")
                                + " before grading had ended, as the brief allows; what that costs is taken off what may be said.");
        return part;
    }

    private static String severalModels(RecommendationReport.SeveralModels several, MemoBasis basis) {
        return "More than one model answered for " + basis.name(several.candidateId()) + ", by its service's own word: "
                + several.answered().stream()
                        .map(a -> a.model() + " (" + Numerals.count(a.answers(), "answer", "answers") + ")")
                        .collect(Collectors.joining(", "))
                + ". They count as one candidate.";
    }

    private static String failed(RecommendationReport report) {
        boolean lowest = report.rule().terms().failedAnswers() == RuleTerms.FailedAnswers.LOWEST;
        String other = lowest ? "counted nowhere" : "got the lowest levels";
        String otherwise = report.failed().otherwise();
        return Numerals.count(report.failed().answers(), "answer", "answers") + " left nothing to grade and "
                + (lowest ? "got the lowest levels" : "count nowhere") + ", by the rule. If they " + other
                + (otherwise == null ? ", the outcome would be the same." : ", it would be: " + otherwise);
    }

    static PartInHand acts(MemoBasis basis) {
        PartInHand part = new PartInHand(MemoSection.ACTS);
        if (basis.acts().isEmpty()) {
            return part.say("Nothing that may change an outcome is on record.");
        }
        long changed = basis.acts().stream().filter(ActView::changedTheOutcome).count();
        part.say(
                changed == 0
                        ? "None of it changed the outcome."
                        : Numerals.count(changed, "act", "acts") + " changed what the rule said.");
        return part.table(
                "What people did that may change the outcome",
                List.of("When", "Who", "What", "Why", "Outcome before and after"),
                basis.acts().stream()
                        .map(a -> PartInHand.row(
                                Numerals.moment(a.at()),
                                a.by() + (a.namesKnown() ? ", knowing names" : ""),
                                what(a),
                                a.reason(),
                                outcome(a)))
                        .toList());
    }

    private static String what(ActView act) {
        String words = act.sort().name().toLowerCase(Locale.ROOT).replace('_', ' ');
        return act.subject().isEmpty() ? words : words + ": " + act.subject();
    }

    private static String outcome(ActView act) {
        if (act.changedTheOutcome()) {
            return told(act.before()) + " Then: " + told(act.after());
        }
        return act.after() == null ? "" : "the same";
    }

    private static String told(OutcomeTeller.@org.jspecify.annotations.Nullable Told told) {
        return Optional.ofNullable(told).map(OutcomeTeller.Told::headline).orElse("nothing could be said.");
    }

    static PartInHand dissent(MemoBasis basis, MemoNames names) {
        PartInHand part = new PartInHand(MemoSection.DISSENT);
        if (basis.dissents().isEmpty()) {
            return part.say("No rater has asked for it to be said.");
        }
        basis.dissents().forEach(d -> part.point(names.of(d.raterId()), d.text()));
        return part;
    }
}
