/** What looks like a secret in what candidates are sent, and who has looked at it before it is. */
@ApplicationModule(
        displayName = "Secrets",
        allowedDependencies = {"ids", "shared", "account", "study", "prompt"})
@NullMarked
package org.mossbank.server.secret;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
