/** Evidence: what trials say beside the grades, at the desk and in the lead's tables. */
@ApplicationModule(
        displayName = "Evidence",
        allowedDependencies = {
            "ids",
            "shared",
            "files",
            "account",
            "study",
            "prompt",
            "candidate",
            "answer",
            "masking",
            "rubric",
            "page",
            "trial",
            "grading",
            "recommendation"
        })
@NullMarked
package org.mossbank.server.evidence;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
