package org.mossbank.server.prompt;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyAccess;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.stereotype.Component;

/** Which studies took a kept prompt, and how it did there. */
@Component
class BankUses {
    private final PromptRepository prompts;
    private final PromptService service;
    private final Studies studies;
    private final StudyAccess access;
    private final CurrentAccount current;
    private final PromptHistory history;

    BankUses(
            PromptRepository prompts,
            PromptService service,
            Studies studies,
            StudyAccess access,
            CurrentAccount current,
            PromptHistory history) {
        this.prompts = prompts;
        this.service = service;
        this.studies = studies;
        this.access = access;
        this.current = current;
        this.history = history;
    }

    /**
     * A study that took the prompt.
     *
     * @param study    its title; absent where whoever asks does not belong to it
     * @param showing  how the prompt did there; absent before grades, and where it must not be known
     */
    record BankUse(
            @Nullable StudyId studyId, @Nullable String study, int version, PromptHistory.@Nullable Showing showing) {}

    /** @throws AccessDeniedException if whoever asks must not know yet what a right answer to it holds */
    List<BankUse> of(UUID bankPrompt) {
        // Whoever grades it in an open round reads no key points and no reference answer here that their sheet does not
        // show.
        if (prompts.takenFrom(bankPrompt).stream().anyMatch(p -> access.mustNotKnow(p.studyId()))) {
            throw new AccessDeniedException("You grade this prompt in a round that is open.");
        }
        Set<StudyId> mine = Set.copyOf(studies.ofLead(current.id()));
        List<BankUse> uses = new ArrayList<>();
        for (Prompt prompt : prompts.takenFrom(bankPrompt)) {
            PromptView.BankRef ref = service.one(prompt.studyId(), prompt).bank();
            boolean known = mine.contains(prompt.studyId());
            boolean mayKnow = known && access.maySeeAll(prompt.studyId());
            uses.add(new BankUse(
                    known ? prompt.studyId() : null,
                    known ? studies.get(prompt.studyId()).title() : null,
                    ref == null ? 0 : ref.number(),
                    mayKnow ? history.of(prompt.studyId(), prompt.id()).orElse(null) : null));
        }
        return uses;
    }
}
