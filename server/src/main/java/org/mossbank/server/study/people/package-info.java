/** Who belongs to a study. */
@NullMarked
package org.mossbank.server.study.people;

import org.jspecify.annotations.NullMarked;
