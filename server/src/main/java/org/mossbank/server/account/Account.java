package org.mossbank.server.account;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;

/** A person who may sign in. */
@Entity
class Account {
    @Id
    private AccountId id;

    private String signInName;
    private String displayName;

    @Nullable
    private String passwordHash;

    @Column(name = "may_bring_in")
    private boolean mayBringIn;

    @Nullable
    private AccountId invitedBy;

    private Instant createdAt;

    private boolean administrator;
    private boolean identified;

    @Nullable
    private Instant deactivatedAt;

    @Enumerated(EnumType.STRING)
    private Preferences.@Nullable Theme theme;

    @Nullable
    private String timeZone;

    @Version
    private long version;

    @SuppressWarnings("NullAway.Init")
    protected Account() {}

    static Account of(
            String signInName, String displayName, boolean mayBringIn, @Nullable AccountId invitedBy, Instant now) {
        Account account = new Account();
        account.id = AccountId.random();
        account.signInName = signInName;
        account.displayName = displayName;
        account.mayBringIn = mayBringIn;
        account.invitedBy = invitedBy;
        account.createdAt = now;
        return account;
    }

    void setUp(String name, String hash) {
        displayName = name;
        passwordHash = hash;
    }

    /** Its name stays. */
    void change(String hash) {
        passwordHash = hash;
    }

    void letBeginStudies(boolean may) {
        mayBringIn = may;
    }

    void letAdminister(boolean may) {
        administrator = may;
    }

    /** Whoever has left cannot sign in; what they did stays theirs. */
    void deactivate(Instant now) {
        deactivatedAt = now;
    }

    void reactivate() {
        deactivatedAt = null;
    }

    void rename(String name) {
        displayName = name;
    }

    void prefer(Preferences preferences) {
        theme = preferences.theme();
        timeZone = preferences.timeZone();
    }

    /** Whether some provider of sign-ins knows the person. */
    void identify(boolean known) {
        identified = known;
    }

    private boolean canSignIn() {
        return passwordHash != null || identified;
    }

    boolean isActive() {
        return deactivatedAt == null;
    }

    boolean isInvitedBy(AccountId other) {
        return other.equals(invitedBy);
    }

    AccountId id() {
        return id;
    }

    String signInName() {
        return signInName;
    }

    Optional<String> passwordHash() {
        return Optional.ofNullable(passwordHash);
    }

    AccountView view() {
        return new AccountView(
                id, signInName, displayName, mayBringIn, passwordHash != null, canSignIn(), administrator, isActive());
    }

    Preferences preferences() {
        return new Preferences(theme, timeZone);
    }
}
