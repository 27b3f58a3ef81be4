package org.mossbank.server.study.people;

import jakarta.persistence.EntityManager;
import jakarta.validation.constraints.Email;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.account.Invitation;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.mail.MailOrder;
import org.mossbank.server.mail.MailSort;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.Role;
import org.mossbank.server.study.RoundStage;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Who belongs to a study, and as what. */
@Service
@Transactional(readOnly = true)
public class PeopleService {
    private final Studies studies;
    private final MembershipRepository memberships;
    private final ExpectationRepository expectations;
    private final Accounts accounts;
    private final CurrentAccount current;
    private final EntityManager entities;
    private final Moment moment;

    PeopleService(
            Studies studies,
            MembershipRepository memberships,
            ExpectationRepository expectations,
            Accounts accounts,
            CurrentAccount current,
            EntityManager entities,
            Moment moment) {
        this.studies = studies;
        this.memberships = memberships;
        this.expectations = expectations;
        this.accounts = accounts;
        this.current = current;
        this.entities = entities;
        this.moment = moment;
    }

    /**
     * @param name        as this study calls them
     * @param signInName  empty where the study does not show who somebody was
     * @param grades      whether the person grades
     * @param hasPassword whether they can sign in, or still need a link
     * @param accepted    whether they belong to the study; somebody with an account of their own is asked first
     * @param left        whether the person has left, and cannot sign in any more
     * @param mailTrouble why mail does not reach them; absent where it does, or none was sent
     * @param declared    whether they have said what they expect; what it was is not told here
     */
    record PersonView(
            AccountId accountId,
            String name,
            String signInName,
            Role role,
            boolean grades,
            boolean hasPassword,
            boolean accepted,
            boolean declared,
            boolean left,
            @Nullable String mailTrouble) {
        private PersonView hidden(String called) {
            return new PersonView(accountId, called, "", role, grades, hasPassword, accepted, declared, left, null);
        }
    }

    @PreAuthorize("@studyAccess.mayLead(#study)")
    public List<PersonView> all(StudyId study) {
        List<Membership> members = memberships.ofStudy(study);
        Map<AccountId, AccountView> byId =
                accounts.byId(members.stream().map(Membership::accountId).toList());
        List<AccountId> declared =
                expectations.ofStudy(study).stream().map(Expectation::accountId).toList();
        Map<AccountId, String> troubles = moment.mails().troubles(byId.keySet());
        Map<AccountId, String> hidden = moment.called().hidden(study);
        return members.stream()
                .map(m -> person(m, Require.known(byId, m.accountId()), declared, troubles.get(m.accountId())))
                .map(p -> hidden.containsKey(p.accountId()) ? p.hidden(hidden.get(p.accountId())) : p)
                .sorted(Comparator.comparing(PersonView::role).thenComparing(PersonView::name))
                .toList();
    }

    private static PersonView person(
            Membership membership, AccountView account, List<AccountId> declared, @Nullable String mailTrouble) {
        return new PersonView(
                account.id(),
                account.displayName(),
                account.signInName(),
                membership.role(),
                membership.grades(),
                account.canSignIn(),
                membership.isAccepted(),
                declared.contains(account.id()),
                !account.active(),
                mailTrouble);
    }

    /**
     * @param role as what they are added; as a rater if it is absent
     * @param mail where an invitation is sent; without it, or where no mail goes out, the link is shown instead
     */
    public record AddRater(
            @NotNull @Pattern(regexp = Accounts.SIGN_IN_NAME, message = Accounts.SIGN_IN_NAME_RULE)
            String signInName,

            @NotBlank @Size(max = Accounts.LONGEST_NAME) String name,
            @Nullable Role role,
            @Email @Size(max = 254) @Nullable String mail) {
        /** A rater, where nothing else is said. */
        Role as() {
            return role == null ? Role.RATER : role;
        }
    }

    /**
     * @param invitation how they get in, if they have no password yet; shown this once
     * @param mailed     whether the invitation goes to them by mail
     * @param name       as they are called here already, where whoever asks invited them before; else as was asked
     * @param asked      whether they have an account of their own, and are asked first
     */
    record AddedRater(
            AccountId accountId, String name, @Nullable Invitation invitation, boolean asked, boolean mailed) {}

    /**
     * Adds a rater, a reader or another lead. Who has no account gets one, and a one-time link; who was invited by the same person before belongs to
     * the study at once; anybody else's account is asked, and belongs to it once they accept.
     *
     * <p>While raters grade, somebody may still come in, with no sheet until some are dealt to them.
     *
     * @throws Problem 409 if they belong to the study, or its round is closed
     */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    @Transactional
    public AddedRater add(StudyId study, AddRater request) {
        studies.requireNotClosed(study);
        Accounts.Found found =
                accounts.findOrInvite(request.signInName(), request.name().strip(), current.id());
        AccountView account = found.account();
        if (memberships.existsById(new Membership.Key(study, account.id()))) {
            throw new Problem(ProblemType.INVALID_REQUEST, "This person belongs to the study already.")
                    .withErrors(List.of(new Problem.FieldError("signInName", "belongs to the study already")));
        }
        moment.audit()
                .keep(
                        AuditSort.PERSON_ADDED,
                        study,
                        account.signInName() + ", " + request.as().inWords());
        if (!found.invited()) {
            entities.persist(Membership.asked(study, account.id(), request.as()));
            // Whom somebody else invited is told of by nobody but themselves.
            return new AddedRater(account.id(), request.name().strip(), null, true, false);
        }
        entities.persist(Membership.of(study, account.id(), request.as()));
        if (account.canSignIn()) {
            return new AddedRater(account.id(), account.displayName(), null, false, false);
        }
        boolean mailed = request.mail() != null && invitesByMail(account, request.mail());
        return new AddedRater(
                account.id(),
                account.displayName(),
                mailed ? null : accounts.invite(account.id(), current.id()),
                false,
                mailed);
    }

    private boolean invitesByMail(AccountView account, String address) {
        if (!moment.mails().isOn()) {
            return false;
        }
        moment.mails().reach(account.id(), address.strip());
        String by = Require.known(accounts.byId(List.of(current.id())), current.id())
                .displayName();
        return moment.mails().order(new MailOrder(account.id(), MailSort.INVITATION, null, by));
    }

    /** Takes a rater out again, while nothing is graded; readers, and who was asked to lead, at any time. */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    @Transactional
    public void remove(StudyId study, AccountId rater) {
        Membership membership = memberOrNotFound(study, rater);
        if (membership.role() == Role.RATER) {
            studies.requirePreparing(study);
        }
        AccountView account = Require.known(accounts.byId(List.of(rater)), rater);
        moment.audit().keep(AuditSort.PERSON_TAKEN_OUT, study, account.signInName());
        expectations.deleteById(new Membership.Key(study, rater));
        memberships.delete(membership);
        accounts.endLinks(rater, current.id());
        studies.left(study, rater);
    }

    /** Anybody but those who lead. */
    private Membership memberOrNotFound(StudyId study, AccountId member) {
        return memberships
                .findById(new Membership.Key(study, member))
                .filter(m -> m.role() != Role.LEAD || !m.isAccepted())
                .orElseThrow(() -> Problem.notFound("This person"));
    }

    /**
     * Makes a new one-time link for a rater of this study, also for one who has lost their password; earlier ones end. Only
     * for whom whoever asks has invited, and who belongs to nobody else's study: a link lets in wherever they are.
     *
     * @throws Problem 404 if the person is no rater of this study; 409 if the link is not theirs to make
     */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    @Transactional
    public Invitation invite(StudyId study, AccountId rater) {
        memberOrNotFound(study, rater);
        Set<StudyId> own = Set.copyOf(studies.ofLead(current.id()));
        boolean elsewhere =
                memberships.ofAccount(rater).stream().anyMatch(m -> m.isAccepted() && !own.contains(m.studyId()));
        if (elsewhere) {
            throw new Problem(
                    ProblemType.HAS_PASSWORD,
                    "This person belongs to somebody else's study as well. The administrator can make a link for them.");
        }
        return accounts.invite(rater, current.id());
    }

    /** A study that asks for somebody, and as what. */
    record Asked(StudyId studyId, String title, String lead, Role role) {}

    /** The studies that ask for whoever asks. */
    @PreAuthorize("isAuthenticated()")
    public List<Asked> asked() {
        return memberships.ofAccount(current.id()).stream()
                .filter(m -> !m.isAccepted())
                .map(m -> new Asked(m.studyId(), studies.get(m.studyId()).title(), leadOf(m.studyId()), m.role()))
                .toList();
    }

    private String leadOf(StudyId study) {
        List<AccountId> leads = memberships.ofStudy(study).stream()
                .filter(m -> m.role() == Role.LEAD && m.isAccepted())
                .map(Membership::accountId)
                .toList();
        return moment.called().of(study, leads).values().stream()
                .map(AccountView::displayName)
                .sorted()
                .collect(Collectors.joining(", "));
    }

    /** Belongs to the study from now on. */
    @PreAuthorize("isAuthenticated()")
    @Transactional
    public void accept(StudyId study) {
        open(study).accept();
        moment.audit().keep(AuditSort.PERSON_ACCEPTED, study, "");
    }

    /** Does not want to; with the round open their sheets stay, for the lead to hand over. */
    @PreAuthorize("isAuthenticated()")
    @Transactional
    public void decline(StudyId study) {
        Membership asked = open(study);
        moment.audit().keep(AuditSort.PERSON_DECLINED, study, "");
        if (asked.role() != Role.RATER || studies.stage(study) == RoundStage.Stage.PREPARING) {
            memberships.delete(asked);
        }
    }

    private Membership open(StudyId study) {
        return memberships
                .findById(new Membership.Key(study, current.id()))
                .filter(m -> !m.isAccepted())
                .orElseThrow(() -> Problem.notFound("This question"));
    }
}
