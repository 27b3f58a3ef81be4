/** Expected: what people expected and what is claimed elsewhere, held against what came out. */
@ApplicationModule(
        displayName = "Expected",
        allowedDependencies = {
            "ids",
            "shared",
            "files",
            "account",
            "figures",
            "study",
            "candidate",
            "grading",
            "recommendation"
        })
@NullMarked
package org.mossbank.server.expected;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
