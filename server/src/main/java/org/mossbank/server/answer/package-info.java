/** What each candidate gave to each prompt, with its outcome and measures. */
@ApplicationModule(
        displayName = "Answers",
        allowedDependencies = {"shared", "study", "prompt", "candidate"})
@NullMarked
package org.mossbank.server.answer;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
