/** Letters to people: plain text, one link, never a candidate's name, never a grade. */
@ApplicationModule(
        displayName = "Mail",
        allowedDependencies = {"ids", "shared", "audit", "account", "jobs"})
@NullMarked
package org.mossbank.server.mail;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
