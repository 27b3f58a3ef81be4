/** What every candidate is asked, by kind, with its key points. */
@ApplicationModule(
        displayName = "Prompts",
        allowedDependencies = {"ids", "acts", "shared", "files", "account", "study", "progress"})
@NullMarked
package org.mossbank.server.prompt;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
