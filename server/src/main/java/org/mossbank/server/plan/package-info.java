/** Who grades what: the plan of a round, and its opening. */
@ApplicationModule(
        displayName = "Plan",
        allowedDependencies = {
            "ids",
            "acts",
            "shared",
            "account",
            "study",
            "prompt",
            "candidate",
            "answer",
            "masking",
            "rubric",
            "grading",
            "progress"
        })
@NullMarked
package org.mossbank.server.plan;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
