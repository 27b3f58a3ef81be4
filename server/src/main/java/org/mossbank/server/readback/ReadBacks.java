package org.mossbank.server.readback;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptChanges;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What readers said prompts ask, for other modules. */
@Service
@Transactional(readOnly = true)
public class ReadBacks {
    private final Prompts prompts;
    private final ReadBackRepository readBacks;
    private final EntityManager entities;

    ReadBacks(Prompts prompts, ReadBackRepository readBacks, EntityManager entities) {
        this.prompts = prompts;
        this.readBacks = readBacks;
        this.entities = entities;
    }

    /** What a reader said a prompt asks. */
    public record ReadBackRecord(
            PromptId promptId,
            AccountId readerId,
            Instant askedAt,
            @Nullable String answer,
            @Nullable Instant answeredAt,
            @Nullable ReadBackVerdict verdict) {}

    @SystemOnly
    public List<ReadBackRecord> ofStudy(StudyId study) {
        return readBacks
                .findByPromptIdInOrderByAskedAt(
                        prompts.ofStudy(study).stream().map(PromptView::id).toList())
                .stream()
                .map(ReadBack::toRecord)
                .toList();
    }

    @SystemOnly
    @Transactional
    public void add(List<ReadBackRecord> starts) {
        starts.forEach(r -> entities.persist(ReadBack.of(r)));
    }

    @EventListener
    @Transactional
    @SystemOnly
    public void forget(PromptChanges.Removed removed) {
        readBacks.deleteByPromptId(removed.promptId());
    }
}
