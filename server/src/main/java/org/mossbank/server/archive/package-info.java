/** A study as open files: read, checked, loaded, written. */
@ApplicationModule(
        displayName = "Archive",
        allowedDependencies = {
            "ids",
            "audit",
            "acts",
            "recommendation",
            "shared",
            "figures",
            "files",
            "account",
            "study",
            "prompt",
            "candidate",
            "answer",
            "answer :: specimen",
            "source",
            "run",
            "masking",
            "memo",
            "cost",
            "turn",
            "evidence",
            "evidence :: rows",
            "succession",
            "expected",
            "memo :: rows",
            "rubric",
            "grading",
            "calibration",
            "calibration :: rows",
            "readback",
            "grading :: rows",
            "reconciliation",
            "reconciliation :: rows"
        })
@NullMarked
package org.mossbank.server.archive;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
