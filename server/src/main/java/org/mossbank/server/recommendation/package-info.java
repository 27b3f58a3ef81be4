/** What the decision rule yields, and what it rests on. */
@ApplicationModule(
        displayName = "Recommendation",
        allowedDependencies = {
            "ids",
            "audit",
            "acts",
            "files",
            "shared",
            "figures",
            "account",
            "study",
            "prompt",
            "candidate",
            "answer",
            "masking",
            "rubric",
            "trial",
            "grading",
            "agreement",
            "reconciliation",
            "progress"
        })
@NullMarked
package org.mossbank.server.recommendation;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
