/** The models that are compared, at exact settings. */
@ApplicationModule(
        displayName = "Candidates",
        allowedDependencies = {"shared", "study", "prompt"})
@NullMarked
package org.mossbank.server.candidate;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
