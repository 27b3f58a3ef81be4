/** What every module needs and no step of the job owns: problems, wire forms of figures, marks for authorization. */
@ApplicationModule(displayName = "Shared", type = ApplicationModule.Type.OPEN)
@NullMarked
package org.mossbank.server.shared;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.ApplicationModule;
