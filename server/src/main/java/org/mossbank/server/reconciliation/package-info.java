/** The talk about splits, and the settled grades it ends in; original grades stay. */
@ApplicationModule(
        displayName = "Reconciliation",
        allowedDependencies = {
            "ids",
            "acts",
            "files",
            "shared",
            "account",
            "study",
            "prompt",
            "candidate",
            "answer",
            "masking",
            "rubric",
            "grading",
            "agreement"
        })
@NullMarked
package org.mossbank.server.reconciliation;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
