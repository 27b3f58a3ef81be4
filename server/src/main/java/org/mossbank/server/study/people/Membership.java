package org.mossbank.server.study.people;

import jakarta.persistence.Column;
import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import java.io.Serializable;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.study.Role;

/** That a person belongs to a study, and as what. */
@Entity
public class Membership {
    @Embeddable
    public record Key(StudyId studyId, AccountId accountId) implements Serializable {}

    @EmbeddedId
    private Key key;

    @Enumerated(EnumType.STRING)
    private Role role;

    /** Kept apart from the role: to a server of the release before, a reader is a rater without sheets. */
    private boolean reads;

    private boolean grades;
    private boolean accepted;

    /** Given by the database when the person leaves. */
    @Nullable
    @Column(insertable = false, updatable = false)
    private Integer leftNumber;

    @SuppressWarnings("NullAway.Init")
    protected Membership() {}

    /** Of somebody with an account of their own, who is asked first. */
    public static Membership asked(StudyId studyId, AccountId accountId, Role role) {
        Membership membership = of(studyId, accountId, role);
        membership.accepted = false;
        return membership;
    }

    public static Membership of(StudyId studyId, AccountId accountId, Role role) {
        Membership membership = new Membership();
        membership.key = new Key(studyId, accountId);
        membership.become(role);
        membership.grades = role == Role.RATER;
        membership.accepted = true;
        return membership;
    }

    public final void become(Role now) {
        reads = now == Role.READER;
        role = now == Role.LEAD ? Role.LEAD : Role.RATER;
    }

    /** Grades no more, as nothing was dealt to them. */
    public void leaveGrading() {
        grades = false;
    }

    /** A lead takes sheets like any rater. */
    public void takeSheets() {
        grades = true;
    }

    public void accept() {
        accepted = true;
    }

    public boolean isAccepted() {
        return accepted;
    }

    public StudyId studyId() {
        return key.studyId();
    }

    public AccountId accountId() {
        return key.accountId();
    }

    public Role role() {
        return reads ? Role.READER : role;
    }

    public boolean grades() {
        return grades;
    }

    /** Which of those who left this is, from 1 on; nothing for who never did. */
    public @Nullable Integer leftNumber() {
        return leftNumber;
    }
}
