/** Sheets, grades and reasons: what raters work on, blind. */
@ApplicationModule(
        displayName = "Grading",
        allowedDependencies = {
            "ids",
            "shared",
            "files",
            "account",
            "mail",
            "acts",
            "study",
            "prompt",
            "candidate",
            "answer",
            "masking",
            "rubric",
            "progress"
        })
@NullMarked
package org.mossbank.server.grading;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
