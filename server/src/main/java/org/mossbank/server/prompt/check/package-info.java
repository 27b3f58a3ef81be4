/** What usually goes wrong with a prompt. */
@NamedInterface("check")
@NullMarked
package org.mossbank.server.prompt.check;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.NamedInterface;
