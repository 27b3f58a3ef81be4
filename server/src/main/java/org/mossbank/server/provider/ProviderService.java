package org.mossbank.server.provider;

import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.mossbank.server.account.AccountKeeping;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.Sha256;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;

/** What people see of providers, and do with them. */
@Service
class ProviderService {
    private final ProviderSettings settings;
    private final Identities identities;
    private final AccountKeeping accounts;
    private final CurrentAccount current;
    private final boolean passwords;

    ProviderService(
            ProviderSettings settings,
            Identities identities,
            AccountKeeping accounts,
            CurrentAccount current,
            @Value("${mossbank.passwords}") boolean passwords) {
        this.settings = settings;
        this.identities = identities;
        this.accounts = accounts;
        this.current = current;
        this.passwords = passwords;
    }

    /** A provider, by what stands in addresses and what people read. */
    record ProviderView(String id, String name) {}

    /** @param passwords whether names and passwords let anybody in */
    record WaysIn(boolean passwords, List<ProviderView> providers) {}

    @PreAuthorize("permitAll()")
    public WaysIn ways() {
        return new WaysIn(
                passwords,
                settings.all().entrySet().stream()
                        .map(p -> new ProviderView(p.getKey(), p.getValue().name()))
                        .toList());
    }

    record UseLinkBy(
            @NotBlank @Size(max = 100) String token,
            @NotBlank @Size(max = 40) String provider) {
        /** Without the token, so that no log can hold it. */
        @Override
        public String toString() {
            return "UseLinkBy[" + provider + "]";
        }
    }

    /** Where the browser goes to sign in. */
    record WayThere(String address) {}

    /** @param hash of the link's token, to be kept in the session alone */
    record LinkTaken(WayThere way, byte[] hash) {}

    /** @throws Problem 404 unless the link can be used, and there is such a provider */
    @PreAuthorize("permitAll()")
    public LinkTaken useLink(UseLinkBy request) {
        accounts.requireLink(request.token());
        return new LinkTaken(way(request.provider(), SignInByProvider.LINK), Sha256.of(request.token()));
    }

    private WayThere way(String provider, String purpose) {
        if (!settings.all().containsKey(provider)) {
            throw Problem.notFound("This provider");
        }
        return new WayThere(SignInByProvider.BASE + "/" + provider + "?" + SignInByProvider.FOR + "=" + purpose);
    }

    /** @param shownAs what one is called there */
    record OwnIdentity(String provider, String name, String shownAs, Instant usedAt) {}

    @PreAuthorize("isAuthenticated()")
    public List<OwnIdentity> own() {
        Map<String, ProviderSettings.Provider> known = settings.all();
        return identities.of(current.id()).stream()
                .map(i -> new OwnIdentity(
                        i.provider(),
                        known.containsKey(i.provider())
                                ? Objects.requireNonNull(known.get(i.provider()))
                                        .name()
                                : i.provider(),
                        i.shownAs(),
                        i.usedAt()))
                .toList();
    }

    /** @throws Problem 404 if there is no such provider */
    @PreAuthorize("isAuthenticated()")
    public WayThere add(String provider) {
        return way(provider, SignInByProvider.OWN);
    }

    /** @throws Problem 404 if there is no such provider */
    @PreAuthorize("isAuthenticated()")
    public WayThere again(String provider) {
        return way(provider, SignInByProvider.AGAIN);
    }

    @PreAuthorize("isAuthenticated()")
    public AccountId asking() {
        return current.id();
    }

    /** @throws Problem 409 if it is the only way in */
    @PreAuthorize("isAuthenticated()")
    public List<OwnIdentity> remove(String provider) {
        AccountView account = accounts.get(current.id());
        boolean another = own().stream().anyMatch(i -> !i.provider().equals(provider));
        if (!another && !(account.hasPassword() && passwords)) {
            throw new Problem(ProblemType.LAST_WAY_IN, "Without it you could not sign in any more.");
        }
        identities.remove(account, provider);
        return own();
    }
}
