/** How often one person or one address may ask. */
@NullMarked
package org.mossbank.server.account.limits;

import org.jspecify.annotations.NullMarked;
