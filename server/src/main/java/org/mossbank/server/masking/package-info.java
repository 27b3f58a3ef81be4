/** What raters do not read of answers, because it gives their candidates away: what was found, and what the lead decided. */
@ApplicationModule(
        displayName = "Masking",
        allowedDependencies = {"ids", "acts", "shared", "files", "study", "prompt", "candidate", "answer", "figures"})
@NullMarked
package org.mossbank.server.masking;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
