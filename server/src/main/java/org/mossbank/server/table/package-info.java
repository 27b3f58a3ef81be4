/** Agreement in tables that people bring, without a study; nothing of them is kept. */
@ApplicationModule(
        displayName = "Table",
        allowedDependencies = {"shared", "files"})
@NullMarked
package org.mossbank.server.table;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
