/** The code that a prompt is about, from a file or a repository. */
@ApplicationModule(
        displayName = "Starting code",
        allowedDependencies = {"ids", "shared", "files", "study", "prompt"})
@NullMarked
package org.mossbank.server.startingcode;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
