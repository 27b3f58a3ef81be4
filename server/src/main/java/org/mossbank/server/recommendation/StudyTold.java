package org.mossbank.server.recommendation;

import java.util.List;
import java.util.Map;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.reconciliation.Reconciliations;
import org.mossbank.server.study.Declared;
import org.mossbank.server.study.Role;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyPeople;
import org.springframework.stereotype.Component;

/** What people said of a study and did with it: who grades, what they expected, when they looked. */
@Component
class StudyTold {
    private final Studies studies;
    private final StudyPeople people;
    private final Looks looks;
    private final Reconciliations reconciliations;

    StudyTold(Studies studies, StudyPeople people, Looks looks, Reconciliations reconciliations) {
        this.reconciliations = reconciliations;
        this.studies = studies;
        this.people = people;
        this.looks = looks;
    }

    Map<AccountId, AccountView> raters(StudyId study) {
        return people.of(study, studies.raters(study));
    }

    List<LookTaken> looks(StudyId study) {
        return looks.ofStudy(study);
    }

    List<Reconciliations.Settled> settled(StudyId study) {
        return reconciliations.settled(study);
    }

    List<RecommendationReport.ExpectationView> expectations(StudyId study) {
        Map<AccountId, Role> members = studies.members(study);
        List<Declared> declared = studies.expectations(study);
        Map<AccountId, AccountView> declarers =
                people.of(study, declared.stream().map(Declared::accountId).toList());
        return declared.stream()
                .map(d -> new RecommendationReport.ExpectationView(
                        Require.known(declarers, d.accountId()).displayName(),
                        members.get(d.accountId()) == Role.LEAD,
                        d.expects(),
                        d.usesToday(),
                        d.declaredAt()))
                .toList();
    }
}
