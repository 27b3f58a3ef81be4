package org.mossbank.server.mail;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;

/** Where mail reaches somebody, and what they want of it. */
@Entity
class MailChoice {
    @Id
    private AccountId accountId;

    private String address;

    @Nullable
    private Instant confirmedAt;

    private boolean digest;
    private boolean reminders;

    @Nullable
    private Instant digestAt;

    @Nullable
    private String trouble;

    @Version
    private long version;

    @SuppressWarnings("NullAway.Init")
    protected MailChoice() {}

    static MailChoice of(AccountId accountId, String address) {
        MailChoice choice = new MailChoice();
        choice.accountId = accountId;
        choice.address = address;
        choice.digest = true;
        choice.reminders = true;
        return choice;
    }

    /** Another address is nobody's until it is shown to be theirs. */
    void reachAt(String another) {
        if (!address.equals(another)) {
            address = another;
            confirmedAt = null;
            trouble = null;
        }
    }

    void want(boolean dailyDigest, boolean leadsReminders) {
        digest = dailyDigest;
        reminders = leadsReminders;
    }

    void confirm(Instant now) {
        confirmedAt = now;
        trouble = null;
    }

    void tookMail() {
        trouble = null;
    }

    void tookNone(String why) {
        trouble = why;
    }

    void digested(Instant now) {
        digestAt = now;
    }

    AccountId accountId() {
        return accountId;
    }

    String address() {
        return address;
    }

    boolean isConfirmed() {
        return confirmedAt != null;
    }

    /** Whether a letter of this sort may go to the address that it is now. */
    boolean takes(MailSort sort) {
        return wants(sort) && (isConfirmed() || sort.isToUnconfirmed());
    }

    private boolean wants(MailSort sort) {
        return switch (sort) {
            case DIGEST -> digest;
            case REMINDER -> reminders;
            case INVITATION, PASSWORD_LOST, ADDRESS -> true;
        };
    }

    Optional<String> trouble() {
        return Optional.ofNullable(trouble);
    }

    MailService.OwnMail view() {
        return new MailService.OwnMail(address, isConfirmed(), digest, reminders, trouble);
    }
}
