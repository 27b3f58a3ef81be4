/** What rows are known by, for all modules: a type for each sort. */
@ApplicationModule(
        displayName = "Ids",
        allowedDependencies = {})
@NullMarked
package org.mossbank.server.ids;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
