/** How raters grade: their pace, and what looks unlike judging. */
@ApplicationModule(
        displayName = "Oversight",
        allowedDependencies = {"ids", "shared", "figures", "study", "prompt", "candidate", "answer", "rubric", "grading"
        })
@NullMarked
package org.mossbank.server.oversight;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
