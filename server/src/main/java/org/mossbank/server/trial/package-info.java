/** Trials: what a prompt asks of an answer's code, trying the code of answers by it, and what came of that. */
@ApplicationModule(
        displayName = "Trials",
        allowedDependencies = {
            "ids",
            "shared",
            "account",
            "study",
            "prompt",
            "prompt :: check",
            "candidate",
            "answer",
            "sandbox",
            "toolchain",
            "page",
            "startingcode"
        })
@NullMarked
package org.mossbank.server.trial;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
