/** What was done, by whom, when and from where: for leads and administrators, for good. */
@ApplicationModule(
        displayName = "Audit",
        allowedDependencies = {"ids", "shared"})
@NullMarked
package org.mossbank.server.audit;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
