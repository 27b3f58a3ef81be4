/** The memo: what is handed to whoever decides and pays, written on the study's own figures and frozen when it is signed. */
@ApplicationModule(
        displayName = "Memo",
        allowedDependencies = {
            "ids",
            "audit",
            "shared",
            "files",
            "account",
            "acts",
            "study",
            "prompt",
            "candidate",
            "grading",
            "agreement",
            "recommendation",
            "cost",
            "expected",
            "evidence"
        })
@NullMarked
package org.mossbank.server.memo;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
