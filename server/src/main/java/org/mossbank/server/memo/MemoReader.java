package org.mossbank.server.memo;

import java.time.Clock;
import java.util.List;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.acts.Acts;
import org.mossbank.server.agreement.AgreementReport;
import org.mossbank.server.agreement.Agreements;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.cost.CostReport;
import org.mossbank.server.cost.Costs;
import org.mossbank.server.cost.TeamCostReport;
import org.mossbank.server.evidence.TrialsTold;
import org.mossbank.server.expected.Expected;
import org.mossbank.server.expected.ExpectedReport;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.memo.document.MemoBasis;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.recommendation.RecommendationReport;
import org.mossbank.server.recommendation.Recommendations;
import org.mossbank.server.recommendation.RobustnessReport;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.database.Snapshot;
import org.mossbank.server.study.Role;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyPeople;
import org.springframework.stereotype.Component;

/** Reads what a memo is written from. */
@Component
class MemoReader {
    private final Recommendations recommendations;
    private final Agreements agreements;
    private final MemoSubject subject;
    private final Grading grading;
    private final Acts acts;
    private final Snapshot snapshot;
    private final Costs costs;
    private final Clock clock;

    MemoReader(
            Recommendations recommendations,
            Agreements agreements,
            MemoSubject subject,
            Grading grading,
            Acts acts,
            Snapshot snapshot,
            Costs costs,
            Clock clock) {
        this.costs = costs;
        this.recommendations = recommendations;
        this.agreements = agreements;
        this.subject = subject;
        this.grading = grading;
        this.acts = acts;
        this.snapshot = snapshot;
        this.clock = clock;
    }

    /** The study itself: its people, and what they were to compare. */
    @Component
    static class MemoSubject {
        private final Studies studies;
        private final Candidates candidates;
        private final Prompts prompts;
        private final StudyPeople people;

        private final Expected expected;
        private final TrialsTold trials;

        MemoSubject(
                Studies studies,
                Candidates candidates,
                Prompts prompts,
                StudyPeople people,
                Expected expected,
                TrialsTold trials) {
            this.trials = trials;
            this.expected = expected;
            this.studies = studies;
            this.candidates = candidates;
            this.prompts = prompts;
            this.people = people;
        }

        private List<String> leads(StudyId study) {
            return people
                    .of(
                            study,
                            studies.members(study).entrySet().stream()
                                    .filter(m -> m.getValue() == Role.LEAD)
                                    .map(java.util.Map.Entry::getKey)
                                    .toList())
                    .values()
                    .stream()
                    .map(AccountView::displayName)
                    .toList();
        }
    }

    /**
     * As the study stands; its figures may take a while.
     *
     * @throws Problem 409 before grading has ended
     */
    MemoBasis of(StudyId study, List<MemoBasis.Dissent> dissents) {
        RecommendationReport report = recommendations.report(study);
        RobustnessReport robustness = recommendations.robustness(study);
        AgreementReport agreement = agreements.of(study).report();
        CostReport taken = costs.ofStudy(study);
        TeamCostReport team = costs.statedUse(study)
                .map(stated -> costs.team(study, stated.use(), stated))
                .orElse(null);
        ExpectedReport expected = subject.expected.report(study);
        return snapshot.of(() -> new MemoBasis(
                clock.instant(),
                subject.studies.get(study),
                grading.round(study).orElseThrow(),
                subject.candidates.ofStudy(study),
                subject.prompts.ofStudy(study),
                subject.people.of(study, subject.studies.raters(study)),
                subject.leads(study),
                agreement,
                report,
                robustness,
                taken,
                team,
                expected,
                subject.trials.of(study).orElse(null),
                acts.ofStudy(study),
                dissents));
    }
}
