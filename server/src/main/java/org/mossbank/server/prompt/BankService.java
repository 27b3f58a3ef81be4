package org.mossbank.server.prompt;

import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The team's own prompts, kept over studies with how they did. */
@Service
@Transactional(readOnly = true)
class BankService {
    private final BankVersionRepository versions;
    private final PromptRepository prompts;
    private final PromptService service;
    private final Bank bank;
    private final BankUses uses;
    private final ApplicationEventPublisher events;

    BankService(
            BankVersionRepository versions,
            PromptRepository prompts,
            PromptService service,
            Bank bank,
            BankUses uses,
            ApplicationEventPublisher events) {
        this.events = events;
        this.uses = uses;
        this.versions = versions;
        this.prompts = prompts;
        this.service = service;
        this.bank = bank;
    }

    /**
     * A kept prompt in the list: its newest version.
     *
     * @param specimens answers that it brings along
     */
    record BankEntry(
            UUID bankPromptId,
            int version,
            String kind,
            String title,
            String language,
            int specimens,
            int studies,
            Instant savedAt) {}

    /** Every kept prompt, by title. */
    @PreAuthorize("@studyAccess.mayBringIn()")
    public List<BankEntry> all() {
        return versions.newest().stream()
                .map(this::entry)
                .sorted(Comparator.comparing(BankEntry::title))
                .toList();
    }

    private BankEntry entry(BankVersionRepository.Listed newest) {
        long used = prompts.takenFrom(newest.bankPromptId()).stream()
                .map(Prompt::studyId)
                .distinct()
                .count();
        return new BankEntry(
                newest.bankPromptId(),
                newest.number(),
                newest.kind(),
                newest.title(),
                bank.content(newest.content()).language(),
                newest.specimens(),
                (int) used,
                newest.savedAt());
    }

    /** @param specimens answers that it brings along */
    record BankVersionView(
            int number, PromptContent content, List<SpecimenOutline> specimens, Instant savedAt, String savedBy) {}

    /**
     * @param beginning  of its text
     * @param characters of all of it
     */
    record SpecimenOutline(String beginning, long characters, List<Bank.Specimen.SaidLevel> levels) {
        private static final int BEGINNING = 200;

        static SpecimenOutline of(Bank.Specimen specimen) {
            String text = specimen.text();
            return new SpecimenOutline(
                    text.substring(0, Math.min(BEGINNING, text.length())), text.length(), specimen.levels());
        }
    }

    private BankVersionView version(BankVersion v) {
        return new BankVersionView(
                v.key().number(),
                bank.content(v.content()),
                bank.specimens(v).stream().map(SpecimenOutline::of).toList(),
                v.savedAt(),
                v.savedBy());
    }

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
                own.stream().map(this::version).toList(),
                taken);
    }

    /** Keeps a prompt of a study. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public PromptView keep(StudyId study, PromptId promptId) {
        bank.keep(study, promptId, null);
        return service.one(study, service.locked(study, promptId));
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
        PromptView taken = service.added(
                study,
                request.kindId(),
                bank.content(version.content()),
                new PromptView.BankRef(request.bankPromptId(), request.version()));
        List<Bank.Specimen> specimens = bank.specimens(version);
        if (!specimens.isEmpty()) {
            events.publishEvent(new PromptChanges.Taken(study, taken.id(), taken.key(), specimens));
        }
        return taken;
    }
}
