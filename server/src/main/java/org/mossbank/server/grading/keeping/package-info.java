/** What a lead does with sheets while raters grade: withdraw them, give them back, pass them on, deal more. */
@NullMarked
package org.mossbank.server.grading.keeping;

import org.jspecify.annotations.NullMarked;
