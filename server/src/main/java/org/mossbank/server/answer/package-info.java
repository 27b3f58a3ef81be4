/** What each candidate gave to each prompt, with its outcome and measures. */
@ApplicationModule(
        displayName = "Answers",
        allowedDependencies = {"ids", "shared", "files", "study", "prompt", "candidate", "progress"})
@NullMarked
package org.mossbank.server.answer;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
