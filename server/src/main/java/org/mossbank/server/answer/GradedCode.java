package org.mossbank.server.answer;

import java.util.List;
import org.mossbank.server.prompt.StartingFile;

/**
 * The code of an answer that was graded, with what it starts from.
 *
 * @param start the starting code
 */
public record GradedCode(CodeView code, List<StartingFile> start) {}
