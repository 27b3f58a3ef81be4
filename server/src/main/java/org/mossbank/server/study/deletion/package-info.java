/** Deleting a study: out of everybody's sight at once, gone for good a month later. */
@NullMarked
package org.mossbank.server.study.deletion;

import org.jspecify.annotations.NullMarked;
