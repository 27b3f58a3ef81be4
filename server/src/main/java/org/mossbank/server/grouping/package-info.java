/** Grouping: where candidates stand among prompts of one kind, size, area, language or wording. */
@ApplicationModule(
        displayName = "Grouping",
        allowedDependencies = {"ids", "shared", "figures", "prompt", "candidate", "grading", "recommendation"})
@NullMarked
package org.mossbank.server.grouping;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
