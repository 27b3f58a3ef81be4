/** Criteria with their levels, and an anchor for each level and kind. */
@ApplicationModule(
        displayName = "Rubrics",
        allowedDependencies = {"ids", "acts", "shared", "account", "files", "study", "prompt", "progress"})
@NullMarked
package org.mossbank.server.rubric;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
