/** Figures that were worked out once, kept over restarts until something that they hang on changes. */
@ApplicationModule(
        displayName = "Figures",
        allowedDependencies = {"ids", "shared"})
@NullMarked
package org.mossbank.server.figures;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
