/** Toolchains: the compilers and interpreters that this server offers for trials, with the versions that it found. */
@ApplicationModule(
        displayName = "Toolchains",
        allowedDependencies = {"shared", "sandbox"})
@NullMarked
package org.mossbank.server.toolchain;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
