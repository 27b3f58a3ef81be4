/** Work in the background that one server of several does at a time. */
@ApplicationModule(
        displayName = "Jobs",
        allowedDependencies = {"shared"})
@NullMarked
package org.mossbank.server.jobs;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
