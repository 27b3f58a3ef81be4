/** The models that are compared, at exact settings. */
@ApplicationModule(
        displayName = "Candidates",
        allowedDependencies = {"ids", "acts", "shared", "files", "study", "prompt", "prompt :: check", "progress"})
@NullMarked
package org.mossbank.server.candidate;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
