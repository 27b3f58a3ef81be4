/** How alike the raters grade, from the sheets sent in. */
@ApplicationModule(
        displayName = "Agreement",
        allowedDependencies = {
            "ids",
            "shared",
            "figures",
            "account",
            "study",
            "prompt",
            "answer",
            "rubric",
            "grading",
            "progress"
        })
@NullMarked
package org.mossbank.server.agreement;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
