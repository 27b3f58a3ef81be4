/** The server: one package for each part of the job. */
@NullMarked
package org.mossbank.server;

import org.jspecify.annotations.NullMarked;
