package org.mossbank.server.calibration;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.server.answer.AnswersToSettle;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;

/** What keeps a calibration from being begun. Within the transaction of whoever begins it. */
@Component
class CalibrationReadiness {
    private final CalibrationReader reader;
    private final CalibrationRepository all;
    private final CalibrationSheets sheets;
    private final Studies studies;
    private final Prompts prompts;
    private final Rubrics rubrics;
    private final List<AnswersToSettle> others;

    CalibrationReadiness(
            CalibrationReader reader,
            CalibrationRepository all,
            CalibrationSheets sheets,
            Studies studies,
            Prompts prompts,
            Rubrics rubrics,
            List<AnswersToSettle> others) {
        this.reader = reader;
        this.all = all;
        this.sheets = sheets;
        this.studies = studies;
        this.prompts = prompts;
        this.rubrics = rubrics;
        this.others = others;
    }

    /** The newest version of the rubric that is published: what raters would grade by. */
    OptionalInt version(StudyId study) {
        return rubrics.newestPublished(study);
    }

    /**
     * @return the version of the rubric to grade by
     * @throws Problem 409 naming everything that is missing
     */
    int require(StudyId study, List<PromptId> chosen, List<AccountId> raters) {
        if (chosen.size() < CalibrationRequests.FEWEST_PROMPTS) {
            throw Problem.invalid(
                    "promptIds", "must be at least %d prompts".formatted(CalibrationRequests.FEWEST_PROMPTS));
        }
        List<String> missing = new ArrayList<>(missingOf(study, raters));
        missing.addAll(missingOf(
                study,
                chosen,
                sheets.gradable(study, chosen).stream()
                        .collect(Collectors.groupingBy(CalibrationSheets.Gradable::promptId, Collectors.counting()))));
        // What is still asked would change, and what is not masked would give its candidate away.
        others.forEach(o -> o.toSettle(study).ifPresent(open -> missing.add("Answers: " + open + ".")));
        int version = version(study).orElse(0);
        if (version == 0) {
            missing.add("The rubric is not published: raters would grade by a draft.");
        }
        if (!missing.isEmpty()) {
            throw new Problem(ProblemType.NOT_READY, String.join(" ", missing));
        }
        return version;
    }

    private List<String> missingOf(StudyId study, List<AccountId> raters) {
        List<String> missing = new ArrayList<>();
        if (raters.size() < 2) {
            missing.add("Two raters at least are needed to see whether they read the rubric alike.");
        }
        List<AccountId> asked = studies.notAccepted(study);
        long waiting = raters.stream().filter(asked::contains).count();
        if (waiting > 0) {
            missing.add(
                    waiting == 1
                            ? "One rater was asked and has not accepted yet."
                            : waiting + " raters were asked and have not accepted yet.");
        }
        boolean underWay = all.ofStudy(study).stream()
                .anyMatch(c -> reader.stage(c, reader.sheets(c.key())) != CalibrationViews.Stage.TALK);
        if (underWay) {
            missing.add("Another calibration is under way.");
        }
        return missing;
    }

    private List<String> missingOf(StudyId study, List<PromptId> chosen, Map<PromptId, Long> answered) {
        Map<PromptId, Prompts.Outline> known =
                prompts.outlines(study).stream().collect(Collectors.toMap(Prompts.Outline::id, Function.identity()));
        List<String> missing = new ArrayList<>();
        for (PromptId id : chosen) {
            Prompts.Outline prompt = known.get(id);
            if (prompt == null) {
                throw Problem.invalid("promptIds", "must be prompts of this study");
            }
            if (!prompt.isCounting()) {
                missing.add("“%s” was set aside or calibrated raters before.".formatted(prompt.title()));
            }
            if (answered.getOrDefault(id, 0L) < 2) {
                missing.add("“%s” has fewer than two answers to grade.".formatted(prompt.title()));
            }
        }
        return missing;
    }
}
