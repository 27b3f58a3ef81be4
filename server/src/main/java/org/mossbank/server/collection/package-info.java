/** Getting answers in: from files. */
@ApplicationModule(
        displayName = "Collection",
        allowedDependencies = {"ids", "shared", "files", "study", "prompt", "candidate", "answer"})
@NullMarked
package org.mossbank.server.collection;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
