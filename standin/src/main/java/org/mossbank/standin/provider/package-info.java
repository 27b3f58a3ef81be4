/** A provider of sign-ins that plays a company's own, for the demo and the tests. */
@NullMarked
package org.mossbank.standin.provider;

import org.jspecify.annotations.NullMarked;
