/** Answers of no candidate, which kept prompts bring along for raters to calibrate by. */
@NamedInterface("specimen")
@NullMarked
package org.mossbank.server.answer.specimen;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.NamedInterface;
