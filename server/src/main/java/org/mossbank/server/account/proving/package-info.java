/** Whether whoever is signed in has shown just now who they are. */
@NamedInterface("proving")
@NullMarked
package org.mossbank.server.account.proving;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.NamedInterface;
