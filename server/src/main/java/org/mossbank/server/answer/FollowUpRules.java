package org.mossbank.server.answer;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.util.OptionalInt;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** When to give up: how many follow-ups an answer may get at most, the same for every candidate. */
@Service
@Transactional(readOnly = true)
public class FollowUpRules {
    private final FollowUpRuleRepository rules;
    private final AnswerRepository answers;
    private final Studies studies;
    private final EntityManager entities;

    FollowUpRules(FollowUpRuleRepository rules, AnswerRepository answers, Studies studies, EntityManager entities) {
        this.rules = rules;
        this.answers = answers;
        this.studies = studies;
        this.entities = entities;
    }

    /**
     * A study's rule.
     *
     * @param most    absent while there is none
     * @param version counts up with every change, -1 while there is none; sent back with the next one
     */
    record FollowUpRuleView(@Nullable Integer most, long version) {
        static final FollowUpRuleView NONE = new FollowUpRuleView(null, -1);
    }

    record WriteFollowUpRule(
            @Min(-1) long version,
            @Nullable @Min(0) @Max(FollowUp.MOST) Integer most) {}

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public FollowUpRuleView ofStudy(StudyId study) {
        return view(study);
    }

    private FollowUpRuleView view(StudyId study) {
        return rules.findById(study)
                .map(r -> new FollowUpRuleView(r.most(), r.version()))
                .orElse(FollowUpRuleView.NONE);
    }

    /** @throws Problem 400 if an answer has more already; 409 if it was changed in the meantime, or the round was opened */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public FollowUpRuleView write(StudyId study, WriteFollowUpRule request) {
        studies.requirePreparing(study);
        FollowUpRule rule = entities.find(FollowUpRule.class, study, LockModeType.PESSIMISTIC_WRITE);
        if (view(study).version() != request.version()) {
            throw new Problem(ProblemType.CHANGED_ELSEWHERE, "The rule was changed in another window since you saw it.")
                    .with("current", view(study));
        }
        Integer most = request.most();
        if (most == null) {
            if (rule != null) {
                entities.remove(rule);
            }
        } else {
            if (answers.ofStudy(study).stream()
                    .anyMatch(a -> a.view().followUps().size() > most)) {
                throw Problem.invalid("most", "must not be less than what an answer already has");
            }
            if (rule == null) {
                entities.persist(FollowUpRule.of(study, most));
            } else {
                rule.write(most);
            }
        }
        entities.flush();
        return view(study);
    }

    /** The most that the study allows; empty while it has no rule. */
    @SystemOnly
    public OptionalInt most(StudyId study) {
        return rules.findById(study).map(r -> OptionalInt.of(r.most())).orElse(OptionalInt.empty());
    }

    /** Lays down the rule of a study that is brought in. */
    @SystemOnly
    @Transactional
    public void add(StudyId study, int most) {
        entities.persist(FollowUpRule.of(study, most));
    }

    /** @throws Problem 400 if that is more than the rule allows */
    @SystemOnly
    public void require(StudyId study, int followUps) {
        OptionalInt most = most(study);
        if (most.isPresent() && followUps > most.getAsInt()) {
            throw Problem.invalid("followUps", "must be at most " + most.getAsInt() + ", as the study gives up then");
        }
    }
}
