/** A mail server that plays a company's own, for the demo and the tests. */
@NullMarked
package org.mossbank.standin.mail;

import org.jspecify.annotations.NullMarked;
