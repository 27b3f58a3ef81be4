/** Asking candidates over their sources: what is asked, at what it may cost, and how far it is. */
@ApplicationModule(
        displayName = "Runs",
        allowedDependencies = {
            "ids",
            "shared",
            "files",
            "account",
            "study",
            "prompt",
            "secret",
            "candidate",
            "answer",
            "source",
            "turn"
        })
@NullMarked
package org.mossbank.server.run;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
