/** What tests and benches of several modules share: a database, a client of the interface, a server as a process. */
@NullMarked
package org.mossbank.testkit;

import org.jspecify.annotations.NullMarked;
