package org.mossbank.server.provider;

import java.time.Clock;
import java.util.Collection;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.AccountKeeping;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.audit.Audit;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.security.oauth2.core.oidc.user.OidcUser;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Whose account it is that a provider signs in: by issuer and subject alone. A name or an address that the provider tells
 * is never looked for among accounts, as somebody could have given themselves another's.
 */
@Service
@Transactional
class Identities {
    private final ExternalIdentityRepository identities;
    private final AccountKeeping accounts;
    private final ProviderSettings settings;
    private final Audit audit;
    private final Clock clock;

    Identities(
            ExternalIdentityRepository identities,
            AccountKeeping accounts,
            ProviderSettings settings,
            Audit audit,
            Clock clock) {
        this.identities = identities;
        this.accounts = accounts;
        this.settings = settings;
        this.audit = audit;
        this.clock = clock;
    }

    /**
     * What a provider says of somebody.
     *
     * @param signInName what they are called there, to make a sign-in name of
     * @param claims     everything else that was said
     */
    record Claimed(String provider, ExternalIdentity.Key key, String signInName, String name, OidcUser claims) {
        static Claimed from(String provider, OidcUser person) {
            String subject = Objects.requireNonNull(person.getSubject(), "the validator wants a subject");
            String known = person.getPreferredUsername() == null ? subject : person.getPreferredUsername();
            String said =
                    person.getFullName() == null ? "" : person.getFullName().strip();
            String name = said.isEmpty() ? known : said;
            return new Claimed(
                    provider,
                    new ExternalIdentity.Key(
                            Objects.requireNonNull(person.getIssuer()).toString(), subject),
                    known,
                    name.substring(0, Math.min(name.length(), Accounts.LONGEST_NAME)),
                    person);
        }
    }

    /**
     * Who comes in, or why nobody does.
     *
     * @param refusal for the page to say in words
     */
    record Outcome(@Nullable AccountId account, @Nullable String refusal) {
        static Outcome refused(String why) {
            return new Outcome(null, why);
        }
    }

    /** Signs in whoever is known, and lets in somebody new where the provider is open to all it knows. */
    @SystemOnly
    public Outcome enter(Claimed claimed) {
        Optional<ExternalIdentity> known = identities.findById(claimed.key());
        if (known.isEmpty() && !provider(claimed).open()) {
            return refuse("", claimed, "not-invited");
        }
        return known.map(identity -> comesIn(identity, claimed)).orElseGet(() -> {
            AccountView made = accounts.makeFor(claimed.signInName(), claimed.name());
            return comesIn(attach(claimed, made), claimed);
        });
    }

    /** The same for whoever holds a one-time link: it is their account from then on. */
    @SystemOnly
    public Outcome accept(Claimed claimed, byte[] linkHash) {
        Optional<ExternalIdentity> known = identities.findById(claimed.key());
        if (known.isPresent()) {
            // The link stays as it is: it is for somebody else than whoever holds it.
            return refuse("", claimed, "known-already");
        }
        try {
            return comesIn(attach(claimed, accounts.useLink(linkHash)), claimed);
        } catch (Problem e) {
            return refuse("", claimed, "link-spent");
        }
    }

    /** Adds a way in to an account whose owner is signed in. */
    @SystemOnly
    public Outcome add(Claimed claimed, AccountId account) {
        Optional<ExternalIdentity> known = identities.findById(claimed.key());
        AccountView own = accounts.get(account);
        if (known.isPresent() && !known.get().accountId().equals(account)) {
            return refuse(own.signInName(), claimed, "known-already");
        }
        known.orElseGet(() -> attach(claimed, own)).use(claimed.signInName(), clock.instant());
        return new Outcome(account, null);
    }

    /** Whether it is the owner of an account who has shown there who they are. */
    @SystemOnly
    @Transactional(readOnly = true)
    public boolean isOf(Claimed claimed, AccountId account) {
        return identities
                .findById(claimed.key())
                .filter(i -> i.accountId().equals(account))
                .isPresent();
    }

    private ExternalIdentity attach(Claimed claimed, AccountView account) {
        ExternalIdentity identity =
                ExternalIdentity.of(claimed.key(), account.id(), claimed.provider(), clock.instant());
        identity.use(claimed.signInName(), clock.instant());
        accounts.identify(account.id(), true);
        audit.keepOf(account.signInName(), AuditSort.PROVIDER_ADDED, claimed.provider());
        return identities.save(identity);
    }

    private Outcome comesIn(ExternalIdentity identity, Claimed claimed) {
        AccountView account = accounts.get(identity.accountId());
        if (!account.active()) {
            return refuse(account.signInName(), claimed, "left");
        }
        identity.use(claimed.signInName(), clock.instant());
        rights(account, claimed);
        return new Outcome(account.id(), null);
    }

    /** Where groups say who may lead or administer, they say so at each sign-in. */
    private void rights(AccountView account, Claimed claimed) {
        ProviderSettings.Provider provider = provider(claimed);
        Set<String> groups = claimed.claims().getClaim(provider.groups()) instanceof Collection<?> named
                ? named.stream().map(String::valueOf).collect(Collectors.toSet())
                : Set.of();
        if (!provider.leads().isEmpty()) {
            accounts.letBeginStudies(account.id(), provider.leads().stream().anyMatch(groups::contains));
        }
        if (!provider.administrators().isEmpty()) {
            accounts.letAdministerIfOthersDo(
                    account.id(), provider.administrators().stream().anyMatch(groups::contains));
        }
    }

    private ProviderSettings.Provider provider(Claimed claimed) {
        return Objects.requireNonNull(settings.all().get(claimed.provider()));
    }

    private Outcome refuse(String who, Claimed claimed, String why) {
        audit.keepOf(who, AuditSort.SIGN_IN_REFUSED, claimed.provider() + ": " + why);
        return Outcome.refused(why);
    }

    /** A sign-in of which nothing can be believed. */
    @SystemOnly
    public void failed(String code) {
        audit.keepOf("", AuditSort.SIGN_IN_REFUSED, "by a provider: " + code);
    }

    /** Of one account. */
    @SystemOnly
    @Transactional(readOnly = true)
    public List<ExternalIdentity> of(AccountId account) {
        return identities.findByAccountIdOrderByCreatedAt(account);
    }

    /** Takes all ways in by a provider from an account. */
    @SystemOnly
    public void remove(AccountView account, String provider) {
        List<ExternalIdentity> all = identities.findByAccountIdOrderByCreatedAt(account.id());
        List<ExternalIdentity> gone =
                all.stream().filter(i -> i.provider().equals(provider)).toList();
        identities.deleteAll(gone);
        accounts.identify(account.id(), gone.size() < all.size());
        audit.keep(AuditSort.PROVIDER_REMOVED, provider);
    }
}
