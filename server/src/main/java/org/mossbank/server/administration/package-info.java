/** What an administrator looks after: accounts, and who may do what. */
@ApplicationModule(
        displayName = "Administration",
        allowedDependencies = {"ids", "shared", "account", "mail"})
@NullMarked
package org.mossbank.server.administration;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
