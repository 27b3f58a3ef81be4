/** The record of acts: what people did that may change an outcome, for good. */
@ApplicationModule(
        displayName = "Acts",
        allowedDependencies = {"ids", "shared", "files", "account", "audit"})
@NullMarked
package org.mossbank.server.acts;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
