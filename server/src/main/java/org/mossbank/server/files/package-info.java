/** Reading open formats so strictly that every fault has a file, a line and a field: CSV by Table Schema, JSON by JSON Schema. */
@ApplicationModule(
        displayName = "Files",
        allowedDependencies = {"ids", "shared"})
@NullMarked
package org.mossbank.server.files;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
