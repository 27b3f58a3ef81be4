package org.mossbank.server.prompt;

import jakarta.persistence.EntityManager;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.UUID;
import java.util.stream.Collectors;
import org.mossbank.server.account.Actor;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** The team's own prompts, kept over studies with how they did. */
@Service
@Transactional(readOnly = true)
class BankService {
    private final BankVersionRepository versions;
    private final PromptRepository prompts;
    private final PromptService service;
    private final EntityManager entities;
    private final JsonMapper mapper;
    private final BankUses uses;
    private final Actor actor;

    BankService(
            BankVersionRepository versions,
            PromptRepository prompts,
            PromptService service,
            EntityManager entities,
            JsonMapper mapper,
            BankUses uses,
            Actor actor) {
        this.actor = actor;
        this.uses = uses;
        this.versions = versions;
        this.prompts = prompts;
        this.service = service;
        this.entities = entities;
        this.mapper = mapper;
    }

    /** A kept prompt in the list: its newest version. */
    record BankEntry(
            UUID bankPromptId, int version, String kind, String title, String language, int studies, Instant savedAt) {}

    /** Every kept prompt, by title. */
    @PreAuthorize("@studyAccess.mayBringIn()")
    public List<BankEntry> all() {
        return versions.all().stream()
                .collect(Collectors.groupingBy(v -> v.key().bankPromptId()))
                .values()
                .stream()
                .map(own -> entry(own.get(own.size() - 1)))
                .sorted(Comparator.comparing(BankEntry::title))
                .toList();
    }

    private BankEntry entry(BankVersion newest) {
        UUID id = newest.key().bankPromptId();
        long used =
                prompts.takenFrom(id).stream().map(Prompt::studyId).distinct().count();
        return new BankEntry(
                id,
                newest.key().number(),
                newest.kind(),
                newest.title(),
                content(newest).language(),
                (int) used,
                newest.savedAt());
    }

    private PromptContent content(BankVersion version) {
        return mapper.readValue(version.content(), PromptContent.class);
    }

    record BankVersionView(int number, PromptContent content, Instant savedAt, String savedBy) {}

    record BankPromptView(
            UUID bankPromptId, String kind, List<BankVersionView> versions, List<BankUses.BankUse> uses) {}

    /** One kept prompt with all its versions and how it did in each study. */
    @PreAuthorize("@studyAccess.mayBringIn()")
    public BankPromptView one(UUID bankPrompt) {
        List<BankVersion> own = versions.of(bankPrompt);
        if (own.isEmpty()) {
            throw Problem.notFound("This prompt");
        }
        List<BankUses.BankUse> taken = uses.of(bankPrompt);
        return new BankPromptView(
                bankPrompt,
                own.get(own.size() - 1).kind(),
                own.stream()
                        .map(v -> new BankVersionView(v.key().number(), content(v), v.savedAt(), v.savedBy()))
                        .toList(),
                taken);
    }

    /**
     * Keeps a prompt of a study: as the next version of the one it was taken from, or as a new one. What is there already,
     * word for word, is not kept twice.
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public PromptView keep(StudyId study, PromptId promptId) {
        Prompt prompt = service.locked(study, promptId);
        PromptView view = service.one(study, prompt);
        PromptView.BankRef from = view.bank();
        String content = mapper.writeValueAsString(view.content());
        UUID bankPrompt;
        int number = 1;
        if (from == null) {
            BankPrompt start = BankPrompt.of(actor.now());
            entities.persist(start);
            bankPrompt = start.id();
        } else {
            bankPrompt = from.bankPromptId();
            List<BankVersion> own = versions.of(bankPrompt);
            BankVersion newest = own.get(own.size() - 1);
            if (newest.content().equals(content)) {
                prompt.keepAs(new PromptView.BankRef(bankPrompt, newest.key().number()));
                entities.flush();
                return service.one(study, prompt);
            }
            number = newest.key().number() + 1;
        }
        entities.persist(BankVersion.of(
                        new BankVersion.Key(bankPrompt, number), view.kind().name(), view.title(), content)
                .saved(actor.now(), actor.name()));
        entities.flush();
        prompt.keepAs(new PromptView.BankRef(bankPrompt, number));
        entities.flush();
        return service.one(study, prompt);
    }

    record TakeFromBank(
            @NotNull UUID bankPromptId,
            @Min(1) int version,
            @NotNull KindId kindId) {}

    /** Takes a copy of a version into a study. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public PromptView take(StudyId study, TakeFromBank request) {
        BankVersion.Key key = new BankVersion.Key(request.bankPromptId(), request.version());
        BankVersion version = versions.findById(key).orElseThrow(() -> Problem.notFound("This version"));
        return service.added(
                study,
                request.kindId(),
                content(version),
                new PromptView.BankRef(request.bankPromptId(), request.version()));
    }
}
