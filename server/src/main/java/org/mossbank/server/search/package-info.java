/** Looking for words in a study: its prompts, its answers, and what raters remarked. */
@ApplicationModule(
        displayName = "Search",
        allowedDependencies = {"ids", "shared", "study"})
@NullMarked
package org.mossbank.server.search;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
