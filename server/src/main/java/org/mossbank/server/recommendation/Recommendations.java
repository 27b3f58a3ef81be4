package org.mossbank.server.recommendation;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;

/** What was recommended once grading has ended, for other modules. Nothing here holds a transaction. */
@Service
public class Recommendations {
    private final RecommendationService.RecommendationReports reports;
    private final RecommendationBasis basis;
    private final Grading grading;
    private final HeavyWork heavy;

    Recommendations(
            RecommendationService.RecommendationReports reports,
            RecommendationBasis basis,
            Grading grading,
            HeavyWork heavy) {
        this.reports = reports;
        this.basis = basis;
        this.grading = grading;
        this.heavy = heavy;
    }

    /** @throws Problem 409 before grading has ended */
    @SystemOnly
    public void requireEnded(StudyId study) {
        Grading.RoundState round =
                grading.round(study).orElseThrow(() -> new Problem(ProblemType.NOT_READY, "Nothing is graded yet."));
        if (!round.hasEnded()) {
            throw hidden();
        }
    }

    static Problem hidden() {
        return new Problem(
                ProblemType.STANDINGS_HIDDEN,
                "How candidates stand is hidden until grading ends, so that nobody stops when they like what they see.");
    }

    /** @throws Problem 409 before grading has ended */
    @SystemOnly
    public RecommendationReport report(StudyId study) {
        requireEnded(study);
        return reports.of(study);
    }

    /** What that outcome hangs on. */
    @SystemOnly
    public RobustnessReport robustness(StudyId study) {
        return reports.robustness(study);
    }

    /** The mean score of 100 of every answer that has one, as the rule scores, without adjustment. */
    @SystemOnly
    public Map<AnswerId, Double> meanScores(StudyId study) {
        RecommendationData data = basis.of(study);
        return heavy.run(() -> {
            Map<String, Double> means =
                    data.graded(data.rule().failedAnswers(), true).meansOfAnswers(data.weights());
            Map<AnswerId, Double> byAnswer = new HashMap<>();
            data.answers().values().forEach(a -> {
                Double mean = means.get(a.key());
                if (mean != null) {
                    byAnswer.put(a.id(), mean);
                }
            });
            return byAnswer;
        });
    }

    /** What raters gave every answer that counts. */
    @SystemOnly
    public List<AnswerGrades> grades(StudyId study) {
        RecommendationData data = basis.of(study);
        return heavy.run(() -> AnswerGrades.of(data));
    }
}
