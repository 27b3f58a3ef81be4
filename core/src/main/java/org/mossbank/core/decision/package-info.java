/** What the decision rule makes of agreement and standings. */
@NullMarked
package org.mossbank.core.decision;

import org.jspecify.annotations.NullMarked;
