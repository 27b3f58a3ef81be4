/** Where a candidate can be asked: its endpoint, what to send, what to read, and what the server may reach at all. */
@ApplicationModule(
        displayName = "Sources",
        allowedDependencies = {"ids", "shared", "files", "study", "candidate"})
@NullMarked
package org.mossbank.server.source;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
