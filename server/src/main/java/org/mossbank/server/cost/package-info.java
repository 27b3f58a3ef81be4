/** Cost: what answers took, what one that works came to, and what a month of it would cost the team. */
@ApplicationModule(
        displayName = "Cost",
        allowedDependencies = {
            "ids",
            "shared",
            "files",
            "account",
            "figures",
            "study",
            "prompt",
            "candidate",
            "answer",
            "grading",
            "recommendation"
        })
@NullMarked
package org.mossbank.server.cost;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
