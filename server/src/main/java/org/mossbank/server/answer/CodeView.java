package org.mossbank.server.answer;

import java.util.List;
import org.mossbank.core.change.CodeFile;

/**
 * The code of an answer.
 *
 * @param changes    what it does to the starting code
 * @param files      the code that it ends in: files whole, then blocks that belong to none
 * @param outside    files that it changes though the prompt does not speak of them
 * @param namesFiles whether the prompt speaks of any file at all
 * @param limits     why something is not shown, in sentences
 */
public record CodeView(
        List<FileChangeView> changes,
        List<CodeFile> files,
        List<String> outside,
        boolean namesFiles,
        List<String> limits) {}
