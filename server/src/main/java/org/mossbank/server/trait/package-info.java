/** Traits: what raters praised and found fault with, and key points, by candidate. */
@ApplicationModule(
        displayName = "Traits",
        allowedDependencies = {"ids", "shared", "figures", "prompt", "candidate", "answer", "grading", "recommendation"
        })
@NullMarked
package org.mossbank.server.trait;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
