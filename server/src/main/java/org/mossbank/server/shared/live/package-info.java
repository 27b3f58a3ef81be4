/** Telling browsers how long work goes. */
@NullMarked
package org.mossbank.server.shared.live;

import org.jspecify.annotations.NullMarked;
