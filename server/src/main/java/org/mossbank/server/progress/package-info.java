/** The steps of the job, and how each part says how far it is. */
@ApplicationModule(
        displayName = "Progress",
        allowedDependencies = {"ids"})
@NullMarked
package org.mossbank.server.progress;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
