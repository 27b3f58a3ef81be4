package org.mossbank.server.provider;

import jakarta.servlet.http.HttpSession;
import jakarta.validation.Valid;
import java.util.List;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

@RestController
class ProviderController {
    private final ProviderService providers;

    ProviderController(ProviderService providers) {
        this.providers = providers;
    }

    /** In which ways one signs in here. */
    @GetMapping("/api/sign-in")
    ProviderService.WaysIn ways() {
        return providers.ways();
    }

    /** Lets a one-time link be used by signing in at a provider next, in this very browser. */
    @MayRefuse(ProblemType.LINK_USED_OR_EXPIRED)
    @PostMapping("/api/links/provider")
    ProviderService.WayThere useLink(@Valid @RequestBody ProviderService.UseLinkBy request, HttpSession session) {
        ProviderService.LinkTaken taken = providers.useLink(request);
        session.setAttribute(SignInByProvider.LINK, taken.hash());
        return taken.way();
    }

    /** Providers by which one can sign in to one's own account. */
    @GetMapping("/api/account/identities")
    List<ProviderService.OwnIdentity> own() {
        return providers.own();
    }

    /** Lets one sign in by a provider as well: by signing in there next, in this very browser. */
    @PostMapping("/api/account/identities/{provider}")
    ProviderService.WayThere add(@PathVariable String provider, HttpSession session) {
        ProviderService.WayThere way = providers.add(provider);
        session.setAttribute(SignInByProvider.OWN, providers.asking());
        return way;
    }

    /** Shows once more who one is, by a provider: by signing in there next, in this very browser. */
    @PostMapping("/api/account/proof/{provider}")
    ProviderService.WayThere again(@PathVariable String provider, HttpSession session) {
        ProviderService.WayThere way = providers.again(provider);
        session.setAttribute(SignInByProvider.AGAIN, providers.asking());
        return way;
    }

    /** Signs in by a provider no more. */
    @MayRefuse(ProblemType.LAST_WAY_IN)
    @DeleteMapping("/api/account/identities/{provider}")
    List<ProviderService.OwnIdentity> remove(@PathVariable String provider) {
        return providers.remove(provider);
    }
}
