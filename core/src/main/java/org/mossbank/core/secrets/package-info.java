/** Finding in code what looks like a secret, before it is sent anywhere. */
@NullMarked
package org.mossbank.core.secrets;

import org.jspecify.annotations.NullMarked;
