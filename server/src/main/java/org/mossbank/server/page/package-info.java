/** Opens pages that answers make, in a browser inside the sandbox. */
@ApplicationModule(
        displayName = "Pages",
        allowedDependencies = {"shared", "sandbox"})
@NullMarked
package org.mossbank.server.page;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
