package org.mossbank.server.study;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import java.io.Serializable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;

/** That a person belongs to a study, and as what. */
@Entity
class Membership {
    @Embeddable
    record Key(StudyId studyId, AccountId accountId) implements Serializable {}

    @EmbeddedId
    private Key key;

    @Enumerated(EnumType.STRING)
    private Role role;

    private boolean grades;
    private boolean accepted;

    @SuppressWarnings("NullAway.Init")
    protected Membership() {}

    /** Of somebody with an account of their own, who is asked first. */
    static Membership asked(StudyId studyId, AccountId accountId, Role role) {
        Membership membership = of(studyId, accountId, role);
        membership.accepted = false;
        return membership;
    }

    static Membership of(StudyId studyId, AccountId accountId, Role role) {
        Membership membership = new Membership();
        membership.key = new Key(studyId, accountId);
        membership.role = role;
        membership.grades = role == Role.RATER;
        membership.accepted = true;
        return membership;
    }

    /** A lead takes sheets like any rater. */
    void takeSheets() {
        grades = true;
    }

    void accept() {
        accepted = true;
    }

    boolean isAccepted() {
        return accepted;
    }

    StudyId studyId() {
        return key.studyId();
    }

    AccountId accountId() {
        return key.accountId();
    }

    Role role() {
        return role;
    }

    boolean grades() {
        return grades;
    }
}
