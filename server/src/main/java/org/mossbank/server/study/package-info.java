/** A study, its brief, who belongs to it and what they may see. */
@ApplicationModule(
        displayName = "Studies",
        allowedDependencies = {"ids", "shared", "files", "account", "audit", "mail", "acts", "progress"})
@NullMarked
package org.mossbank.server.study;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
