package org.mossbank.server.recommendation;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.mossbank.core.decision.Outcome;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.robustness.Robustness;
import org.mossbank.core.robustness.Statement;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.prompt.PromptView;

/** Puts into words what an outcome hangs on. */
final class RobustnessWords {
    /** Enough to name; the list has all of them. */
    private static final int NAMED = 3;

    private final RecommendationData data;
    private final Map<String, String> names;

    RobustnessWords(RecommendationData data) {
        this.data = data;
        this.names = data.candidates().stream().collect(Collectors.toMap(CandidateView::key, CandidateView::name));
    }

    String sentence(Robustness found) {
        List<Robustness.Without> changing =
                found.without().stream().filter(Robustness.Without::changes).toList();
        List<String> hangsOn =
                changing.stream().map(w -> name(w.factor(), w.name())).toList();
        String first = hangsOn.isEmpty()
                ? "It holds without any one "
                        + (isOfSomePrompts()
                                ? "of the " + Robustness.MOST_PROMPTS + " most unusual prompts, or any"
                                : "prompt,")
                        + " rater, criterion or kind."
                : "It hangs on "
                        + Sentences.joined(hangsOn.stream().limit(NAMED).toList())
                        + (hangsOn.size() > NAMED ? " and " + (hangsOn.size() - NAMED) + " more" : "")
                        + ": without "
                        + (hangsOn.size() == 1 ? "it" : "any one of them") + " it would be another"
                        + (changing.stream().anyMatch(w -> w.says().outcome() == Outcome.WITHHELD) ? " or none." : ".");
        return found.weightings() == 0
                ? first
                : first + " It holds for " + Math.round(100 * found.same()) + " % of weightings.";
    }

    /** Of many prompts not each is left out. */
    private boolean isOfSomePrompts() {
        return data.prompts().size() > Robustness.MOST_PROMPTS;
    }

    private String name(Robustness.Factor factor, String key) {
        return switch (factor) {
            case PROMPT -> "the prompt “" + promptTitle(key) + "”";
            case RATER -> raterName(key);
            case CRITERION -> "the criterion " + key;
            case KIND -> "the kind " + data.kindName(key);
        };
    }

    private String promptTitle(String key) {
        return data.prompts().values().stream()
                .filter(p -> p.key().equals(key))
                .map(PromptView::title)
                .findFirst()
                .orElse(key);
    }

    private String raterName(String key) {
        return data.raters().values().stream()
                .filter(r -> r.signInName().equals(key))
                .map(r -> r.displayName())
                .findFirst()
                .orElse(key);
    }

    RobustnessReport.WithoutView view(Robustness.Without without) {
        String name = switch (without.factor()) {
            case PROMPT -> promptTitle(without.name());
            case RATER -> raterName(without.name());
            case CRITERION -> without.name();
            case KIND -> data.kindName(without.name());
        };
        return new RobustnessReport.WithoutView(
                without.factor(), name, without.says().outcome(), says(without.says()), without.changes());
    }

    RobustnessReport.AlongView view(Robustness.Along along) {
        return new RobustnessReport.AlongView(
                along.criterion(),
                along.points().stream()
                        .map(p -> new RobustnessReport.PointView(p.weight(), says(p.says()), p.changes()))
                        .toList());
    }

    private String says(Statement statement) {
        return switch (statement.outcome()) {
            case RECOMMENDED ->
                statement.best().map(b -> Require.known(names, b)).orElse("") + " recommended";
            case SAFE_CHOICES ->
                Sentences.joined(statement.safe().stream()
                                .map(c -> Require.known(names, c))
                                .toList())
                        + (statement.safe().size() == 1 ? " a safe choice" : " safe choices");
            case UNDECIDED, BY_KIND -> "undecided";
            case WITHHELD -> "nothing to be said";
        };
    }
}
