/** How grading goes: its pace, and grading that does not look like judging. */
@NullMarked
package org.mossbank.core.oversight;

import org.jspecify.annotations.NullMarked;
