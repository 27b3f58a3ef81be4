package org.mossbank.server.rubric;

import jakarta.validation.Valid;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.rubric.CriterionGrade;
import org.mossbank.core.rubric.OverallScore;
import org.mossbank.server.study.RuleTerms;

/** What weights and gate do to answers that shine or fail on one criterion. */
final class ScoreExamples {
    private ScoreExamples() {}

    record WeighedCriterion(
            @NotBlank String key,
            @DecimalMin("0") @DecimalMax("1000000") double weight,
            @Min(1) @Max(CriterionContent.HIGHEST_LEVEL) int highestLevel) {}

    record Weighing(
            @NotNull @Size(min = 1, max = 12) List<@Valid @NotNull WeighedCriterion> criteria,
            @Valid RuleTerms.@Nullable GateTerms gate) {}

    /**
     * @param share       of the whole weight
     * @param lowestHere  score of an answer at the lowest level here and the highest elsewhere
     * @param highestHere score of an answer at the highest level here and the lowest elsewhere
     */
    record Example(String key, double share, double lowestHere, double highestHere) {}

    /** One row a criterion; empty if none has weight. */
    static List<Example> of(Weighing weighing) {
        double total = weighing.criteria().stream()
                .mapToDouble(WeighedCriterion::weight)
                .sum();
        List<Example> examples = new ArrayList<>();
        if (total == 0) {
            return examples;
        }
        for (WeighedCriterion criterion : weighing.criteria()) {
            examples.add(new Example(
                    criterion.key(),
                    criterion.weight() / total,
                    score(weighing, criterion, false),
                    score(weighing, criterion, true)));
        }
        return examples;
    }

    private static double score(Weighing weighing, WeighedCriterion special, boolean highestThere) {
        return OverallScore.of(weighing.criteria().stream()
                        .map(c -> {
                            boolean high = (c == special) == highestThere;
                            CriterionGrade grade =
                                    CriterionGrade.of(c.weight(), high ? c.highestLevel() : 0, c.highestLevel());
                            return RuleTerms.GateTerms.apply(weighing.gate(), c.key(), grade);
                        })
                        .toList())
                .orElseThrow();
    }
}
