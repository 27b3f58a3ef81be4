package org.mossbank.server.prompt.check;

import java.util.List;
import java.util.function.Function;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What usually goes wrong with prompts. */
@Service
@Transactional(readOnly = true)
public class PromptChecks {
    private final Prompts prompts;
    private final List<PromptCheck> checks;

    PromptChecks(Prompts prompts, List<PromptCheck> checks) {
        this.prompts = prompts;
        this.checks = checks;
    }

    /** What usually goes wrong with a prompt, by prompt; prompts without a warning are left out. */
    public record PromptWarnings(PromptId promptId, List<PromptWarning> warnings) {}

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public List<PromptWarnings> warnings(StudyId study) {
        List<Function<PromptView, List<PromptWarning>>> looks =
                checks.stream().map(c -> c.of(study)).toList();
        return prompts.ofStudy(study).stream()
                .map(p -> new PromptWarnings(
                        p.id(),
                        looks.stream().flatMap(look -> look.apply(p).stream()).toList()))
                .filter(w -> !w.warnings().isEmpty())
                .toList();
    }
}
