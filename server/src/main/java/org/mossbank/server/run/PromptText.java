package org.mossbank.server.run;

import org.mossbank.core.markdown.FencedBlock;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.prompt.StartingFile;

/** What a candidate is sent of a prompt. */
final class PromptText {
    private PromptText() {}

    /** The request, what the answer must keep to, and the code, as one Markdown text. Nothing of what a right answer holds. */
    static String of(PromptContent.Asked prompt) {
        StringBuilder text = new StringBuilder(prompt.request().strip()).append('\n');
        if (!prompt.constraints().isEmpty()) {
            text.append("\nKeep to this:\n\n");
            prompt.constraints()
                    .forEach(c -> text.append("- ").append(c.strip()).append('\n'));
        }
        for (StartingFile file : prompt.startingFiles()) {
            int dot = file.path().lastIndexOf('.');
            String ending = dot < 0 ? "" : file.path().substring(dot + 1);
            text.append("\n`").append(file.path()).append("`:\n\n");
            text.append(FencedBlock.around(file.text(), ending));
        }
        return text.toString();
    }
}
