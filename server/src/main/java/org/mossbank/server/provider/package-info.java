/** Signing in by a company's own provider, with OpenID Connect. */
@ApplicationModule(
        displayName = "Providers of sign-ins",
        allowedDependencies = {"ids", "shared", "audit", "account", "account :: proving"})
@NullMarked
package org.mossbank.server.provider;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
