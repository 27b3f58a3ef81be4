/** Where raters part, and what moves their grades beside the answer. */
@NullMarked
package org.mossbank.core.diagnosis;

import org.jspecify.annotations.NullMarked;
