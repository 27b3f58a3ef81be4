/** Prompts tried by second developers, who say what they think is asked. */
@ApplicationModule(
        displayName = "Reading back",
        allowedDependencies = {"ids", "shared", "files", "account", "study", "prompt", "prompt :: check"})
@NullMarked
package org.mossbank.server.readback;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
