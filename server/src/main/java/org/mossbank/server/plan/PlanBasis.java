package org.mossbank.server.plan;

import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.mossbank.core.assignment.GradingTask;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.study.StudyView;

/** All that a plan is drawn from, with the names it uses. */
record PlanBasis(
        StudyView study,
        Map<String, AccountView> raters,
        Map<String, PromptView> prompts,
        Map<String, AnswerFacts> answers,
        GradingTask task) {

    /** Nobody grades answers to their own prompt, nor their own answers. */
    static Set<GradingTask.Bar> barred(
            Iterable<AccountView> raters,
            Iterable<PromptView> sound,
            List<AnswerFacts> answers,
            Map<CandidateId, CandidateView> candidates) {
        Set<GradingTask.Bar> barred = new HashSet<>();
        for (AccountView rater : raters) {
            for (PromptView prompt : sound) {
                if (rater.id().equals(prompt.authorId())) {
                    barred.add(new GradingTask.Bar(rater.signInName(), prompt.key()));
                }
            }
            for (AnswerFacts answer : answers) {
                AccountId person = Require.known(candidates, answer.candidateId())
                        .content()
                        .personId();
                if (rater.id().equals(person)) {
                    barred.add(new GradingTask.Bar(rater.signInName(), answer.key()));
                }
            }
        }
        return barred;
    }
}
