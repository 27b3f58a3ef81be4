package org.mossbank.server.study;

import java.util.Optional;
import java.util.function.Supplier;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.acts.Sight;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.people.Membership;
import org.mossbank.server.study.people.MembershipRepository;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/**
 * Who may do what in a study. Each check throws 404 for somebody who is not of the study, so that its existence stays
 * private, and answers false (403) for a member whose role does not allow it.
 */
@Component("studyAccess")
@Transactional(readOnly = true)
public class StudyAccess implements Sight {
    private final MembershipRepository memberships;
    private final CurrentAccount current;
    private final Accounts accounts;
    private final RoundStage rounds;

    StudyAccess(MembershipRepository memberships, CurrentAccount current, Accounts accounts, RoundStage rounds) {
        this.memberships = memberships;
        this.current = current;
        this.accounts = accounts;
        this.rounds = rounds;
    }

    private Membership membership(StudyId study) {
        return memberships
                .findById(new Membership.Key(study, current.id()))
                .filter(Membership::isAccepted)
                .orElseThrow(() -> Problem.notFound("This study"));
    }

    /** Any member. */
    public boolean mayEnter(StudyId study) {
        membership(study);
        return true;
    }

    /** The lead, blind or not: for what shows no candidate, grade or result. */
    public boolean mayLead(StudyId study) {
        return membership(study).role() == Role.LEAD;
    }

    /** The lead, unless they grade in the open round: for what a rater must not know. */
    public boolean mayPrepare(StudyId study) {
        Membership own = membership(study);
        return own.role() == Role.LEAD && !isBlind(own);
    }

    /** Names, measures, all grades and results: the lead, and raters once the round is closed. */
    public boolean maySeeAll(StudyId study) {
        return !isBlind(membership(study));
    }

    @Override
    public boolean knowsNames(StudyId study) {
        return maySeeAll(study);
    }

    /** Nobody, before grading ends. */
    @Override
    public boolean seesStandings(StudyId study) {
        return rounds.of(study) != RoundStage.Stage.GRADING && maySeeAll(study);
    }

    /** Whether somebody belongs to a study in which they must not know yet what others do. */
    public boolean mustNotKnow(StudyId study) {
        return memberships
                .findById(new Membership.Key(study, current.id()))
                .filter(this::isBlind)
                .isPresent();
    }

    /** Whoever grades or reads knows nothing until the round is closed; a lead who grades only while it is open. */
    static boolean isBlind(Membership membership, Supplier<RoundStage.Stage> stage) {
        return membership.role() == Role.LEAD
                ? membership.grades() && stage.get() == RoundStage.Stage.GRADING
                : stage.get() != RoundStage.Stage.CLOSED;
    }

    private boolean isBlind(Membership membership) {
        // Of most leads it need not be asked.
        return isBlind(membership, () -> rounds.of(membership.studyId()));
    }

    /** Whoever may begin or bring in studies of their own. */
    public boolean mayBringIn() {
        AccountId id = current.id();
        return Optional.ofNullable(accounts.byId(java.util.List.of(id)).get(id))
                .map(AccountView::mayBringIn)
                .orElse(false);
    }
}
