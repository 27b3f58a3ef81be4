/** Calibration: before the round, raters learn the ruler together on prompts that count nowhere. */
@ApplicationModule(
        displayName = "Calibration",
        allowedDependencies = {
            "ids",
            "acts",
            "files",
            "shared",
            "progress",
            "account",
            "study",
            "prompt",
            "candidate",
            "answer",
            "answer :: specimen",
            "masking",
            "rubric",
            "grading",
            "plan",
            "agreement"
        })
@NullMarked
package org.mossbank.server.calibration;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
