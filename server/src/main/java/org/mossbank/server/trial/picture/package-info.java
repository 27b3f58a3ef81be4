/** Pictures of pages that were tried, as they are kept. */
@NullMarked
package org.mossbank.server.trial.picture;

import org.jspecify.annotations.NullMarked;
