package org.mossbank.server.study.people;

import java.util.List;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.audit.Audit;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.Role;
import org.mossbank.server.study.RoundStage;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Who leads a study. It always has a lead, and nobody comes to lead while they must not know who wrote what. */
@Service
@Transactional
class Leadership {
    private final Studies studies;
    private final MembershipRepository memberships;
    private final Accounts accounts;
    private final CurrentAccount current;
    private final Audit audit;

    Leadership(
            Studies studies, MembershipRepository memberships, Accounts accounts, CurrentAccount current, Audit audit) {
        this.studies = studies;
        this.memberships = memberships;
        this.accounts = accounts;
        this.current = current;
        this.audit = audit;
    }

    /** @throws Problem 404 if they are not of the study; 409 while they grade, or before they have accepted */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public void letLead(StudyId study, AccountId account) {
        studies.claim(study);
        Membership member = memberships
                .findById(new Membership.Key(study, account))
                .orElseThrow(() -> Problem.notFound("This person"));
        if (!member.isAccepted()) {
            throw new Problem(ProblemType.NOT_READY, "This person was asked and has not accepted yet.");
        }
        if (member.role() == Role.LEAD) {
            return;
        }
        if (!Require.known(accounts.byId(List.of(account)), account).active()) {
            throw new Problem(ProblemType.ACCOUNT_DEACTIVATED, "This person has left, and cannot lead.");
        }
        RoundStage.Stage stage = studies.stage(study);
        if (member.grades() && stage == RoundStage.Stage.GRADING) {
            throw new Problem(
                    ProblemType.ROUND_OPENED,
                    "They grade in this round and must not know who wrote what. They can lead once it is closed.");
        }
        if (stage == RoundStage.Stage.PREPARING) {
            member.leaveGrading();
        }
        member.become(Role.LEAD);
        audit.keep(
                AuditSort.LEAD_ADDED,
                study,
                Require.known(accounts.byId(List.of(account)), account).signInName());
    }

    /**
     * @throws Problem 409 if nobody else leads it, or whoever asks graded in it: that a lead did so is said with the
     *     outcome
     */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    public void stepBack(StudyId study) {
        // Of two who step back at the same time, one stays.
        studies.claim(study);
        Membership own =
                memberships.findById(new Membership.Key(study, current.id())).orElseThrow();
        if (own.grades()) {
            throw new Problem(
                    ProblemType.LAST_LEAD,
                    "You grade in this study as its lead, and its outcome says so. You stay one.");
        }
        List<AccountId> others = memberships.ofStudy(study).stream()
                .filter(m -> m.role() == Role.LEAD && m.isAccepted())
                .map(Membership::accountId)
                .filter(a -> !a.equals(current.id()))
                .toList();
        // Whoever has left, or was never here, leads nothing.
        if (accounts.byId(others).values().stream().noneMatch(a -> a.active() && a.canSignIn())) {
            throw new Problem(
                    ProblemType.LAST_LEAD, "Nobody else leads this study. Hand it over, or let somebody else lead it.");
        }
        own.become(Role.READER);
        audit.keep(AuditSort.LEAD_STEPPED_BACK, study, "");
    }

    /** Both at once: the study is never without a lead. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public void handOver(StudyId study, AccountId account) {
        if (account.equals(current.id())) {
            throw Problem.invalid("accountId", "is whoever asks");
        }
        letLead(study, account);
        memberships.flush();
        stepBack(study);
    }
}
