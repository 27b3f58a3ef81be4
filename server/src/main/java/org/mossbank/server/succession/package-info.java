/** Succession: a study that follows another, with some of its answers graded again to see whether the ruler moved. */
@ApplicationModule(
        displayName = "Succession",
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
            "rubric",
            "recommendation"
        })
@NullMarked
package org.mossbank.server.succession;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
