/** The sandbox: runs a program that nobody trusts, without network, files or anything of the server, within limits. */
@ApplicationModule(
        displayName = "Sandbox",
        allowedDependencies = {})
@NullMarked
package org.mossbank.server.sandbox;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
