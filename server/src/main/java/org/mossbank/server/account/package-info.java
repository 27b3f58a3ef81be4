/** Who may come in: accounts, signing in, one-time links. */
@ApplicationModule(
        displayName = "Accounts",
        allowedDependencies = {"ids", "shared", "audit"})
@NullMarked
package org.mossbank.server.account;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
