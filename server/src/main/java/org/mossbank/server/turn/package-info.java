/** Turns: whether each reply of an answer does what was asked, how answers went from turn to turn, and how much works. */
@ApplicationModule(
        displayName = "Turns",
        allowedDependencies = {
            "ids",
            "shared",
            "files",
            "account",
            "figures",
            "study",
            "prompt",
            "candidate",
            "answer",
            "grading",
            "recommendation"
        })
@NullMarked
package org.mossbank.server.turn;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
