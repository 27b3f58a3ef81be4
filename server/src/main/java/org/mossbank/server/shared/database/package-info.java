/** How the database is reached: connections, transactions, its clock, whole readings, and turns at what is counted. */
@NullMarked
package org.mossbank.server.shared.database;

import org.jspecify.annotations.NullMarked;
