/** The description of the interface: what each operation takes, gives, needs and may refuse. */
@ApplicationModule(
        displayName = "Description",
        allowedDependencies = {"ids", "shared"})
@NullMarked
package org.mossbank.server.description;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
