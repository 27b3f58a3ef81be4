package org.mossbank.server.mail;

import jakarta.validation.constraints.Email;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.time.Clock;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.Sha256;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What people see of mail, and ask for. */
@Service
@Transactional
class MailService {
    /** Characters of an address (RFC 5321, section 4.5.3.1). */
    static final int LONGEST_ADDRESS = 254;

    /** How long no second letter goes out to somebody who lost their password. */
    private static final long LOST_PAUSE_SECONDS = 600;

    private final Mails mails;
    private final MailChoiceRepository choices;
    private final Proofs proofs;
    private final Accounts accounts;
    private final CurrentAccount current;
    private final Clock clock;
    private final boolean passwords;

    MailService(
            Mails mails,
            MailChoiceRepository choices,
            Proofs proofs,
            Accounts accounts,
            CurrentAccount current,
            Clock clock,
            @Value("${mossbank.passwords}") boolean passwords) {
        this.mails = mails;
        this.choices = choices;
        this.proofs = proofs;
        this.accounts = accounts;
        this.current = current;
        this.clock = clock;
        this.passwords = passwords;
    }

    /** @param on whether mail goes out */
    record MailOn(boolean on) {}

    @PreAuthorize("permitAll()")
    @Transactional(readOnly = true)
    public MailOn on() {
        return new MailOn(mails.isOn());
    }

    /**
     * @param confirmed whether it is known that the address is theirs
     * @param digest    whether they want a letter a day of what waits for them
     * @param reminders whether leads' reminders come by mail as well
     * @param trouble   what the mail server said when it took no mail; absent where it took some
     */
    record OwnMail(
            String address,
            boolean confirmed,
            boolean digest,
            boolean reminders,
            @Nullable String trouble) {}

    /** @param mail absent where no address is known */
    record OwnMailView(boolean on, @Nullable OwnMail mail) {}

    @PreAuthorize("isAuthenticated()")
    @Transactional(readOnly = true)
    public OwnMailView own() {
        return new OwnMailView(
                mails.isOn(),
                choices.findById(current.id()).map(MailChoice::view).orElse(null));
    }

    record ChooseMail(
            @NotBlank @Email @Size(max = LONGEST_ADDRESS) String address, boolean digest, boolean reminders) {}

    /** @throws Problem 409 if no mail goes out */
    @PreAuthorize("isAuthenticated()")
    public OwnMailView choose(ChooseMail request) {
        if (!mails.isOn()) {
            throw new Problem(ProblemType.MAIL_OFF, "No mail goes out from here.");
        }
        AccountId own = current.id();
        mails.reach(own, request.address().strip());
        MailChoice choice = choices.findById(own).orElseThrow();
        choice.want(request.digest(), request.reminders());
        choices.saveAndFlush(choice);
        if (!choice.isConfirmed()) {
            mails.order(new MailOrder(own, MailSort.ADDRESS, null, ""), "address-" + own + "-" + pause());
        }
        return own();
    }

    /** Counts up every ten minutes. */
    private long pause() {
        return clock.instant().getEpochSecond() / LOST_PAUSE_SECONDS;
    }

    @PreAuthorize("isAuthenticated()")
    public OwnMailView forget() {
        choices.findById(current.id()).ifPresent(choices::delete);
        choices.flush();
        return own();
    }

    record ConfirmAddress(@NotBlank @Size(max = 100) String token) {
        /** Without the token, so that no log can hold it. */
        @Override
        public String toString() {
            return "ConfirmAddress[]";
        }
    }

    /** @throws Problem 404 unless the word is right, and the address still the one that was named */
    @PreAuthorize("permitAll()")
    public void confirm(ConfirmAddress request) {
        proofs.use(Sha256.of(request.token()))
                .orElseThrow(() -> new Problem(
                        ProblemType.LINK_USED_OR_EXPIRED,
                        "This link was used already, has expired, or another address was named since."));
    }

    record LostPassword(
            @NotBlank @Size(max = Accounts.LONGEST_SIGN_IN_NAME)
            String name) {}

    /** Nobody learns from the answer who has an account, or an address. */
    @PreAuthorize("permitAll()")
    public void lost(LostPassword request) {
        Optional<AccountView> account = accounts.find(request.name().strip().toLowerCase(Locale.ROOT));
        // Links of somebody who never came in are their lead's to make, and a new one would end them.
        account.filter(a -> passwords && a.active() && a.hasPassword())
                .ifPresent(a -> mails.order(
                        new MailOrder(a.id(), MailSort.PASSWORD_LOST, null, ""), "lost-" + a.id() + "-" + pause()));
    }
}
