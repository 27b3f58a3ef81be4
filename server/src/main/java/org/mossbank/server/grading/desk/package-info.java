/** The desk: a sheet as its rater reads it, what they say, and how it is sent in. */
@NullMarked
package org.mossbank.server.grading.desk;

import org.jspecify.annotations.NullMarked;
