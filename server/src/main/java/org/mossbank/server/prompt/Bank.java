package org.mossbank.server.prompt;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.Actor;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Keeps prompts of studies, for other modules too. */
@Service
@Transactional
public class Bank {
    /**
     * An answer that a kept prompt brings along, for raters to calibrate by: as raters read it, and without whose it was.
     *
     * @param text   Markdown
     * @param levels at which it should stand
     */
    public record Specimen(String text, List<SaidLevel> levels) {
        /** Of a version. */
        public static final int MOST = 20;

        /** Characters of a version's specimens together. */
        public static final long MOST_TEXT = 4L << 20;

        /**
         * At which level an answer should stand on a criterion, as people who know said, or as a talk came to.
         *
         * @param criterion    key; a rubric that has it with as many levels is told the level
         * @param highestLevel of the criterion where it was said
         * @param by           name of who said it
         */
        public record SaidLevel(String criterion, int level, int highestLevel, String reason, String by, Instant at) {}
    }

    private final BankVersionRepository versions;
    private final PromptService service;
    private final EntityManager entities;
    private final JsonMapper mapper;
    private final Actor actor;

    Bank(
            BankVersionRepository versions,
            PromptService service,
            EntityManager entities,
            JsonMapper mapper,
            Actor actor) {
        this.versions = versions;
        this.service = service;
        this.entities = entities;
        this.mapper = mapper;
        this.actor = actor;
    }

    /**
     * Keeps a prompt with answers for raters to calibrate by.
     *
     * @return the number of the version that holds it
     * @throws Problem 400 if there are too many of them, or too long ones
     */
    @SystemOnly
    public int keepWith(StudyId study, PromptId promptId, List<Specimen> specimens) {
        if (specimens.size() > Specimen.MOST
                || specimens.stream().mapToLong(s -> s.text().length()).sum() > Specimen.MOST_TEXT) {
            throw Problem.invalid(
                    "answers",
                    "of a prompt must be at most %d, of %,d characters together, to be kept with it"
                            .formatted(Specimen.MOST, Specimen.MOST_TEXT));
        }
        return keep(study, promptId, specimens);
    }

    /**
     * As the next version of the one it was taken from, or as a new one; what is there already, word for word, is not kept
     * twice.
     *
     * @param specimens absent to keep those that the newest version has, if it says the same
     */
    @SystemOnly
    int keep(StudyId study, PromptId promptId, @Nullable List<Specimen> specimens) {
        Prompt prompt = service.locked(study, promptId);
        PromptView view = service.one(study, prompt);
        PromptView.BankRef from = view.bank();
        String content = mapper.writeValueAsString(view.content());
        String brings = specimens == null || specimens.isEmpty() ? null : mapper.writeValueAsString(specimens);
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
            number = newest.key().number();
            boolean same = newest.content().equals(content)
                    && (specimens == null || Objects.equals(newest.specimens(), brings));
            number += same ? 0 : 1;
            if (same) {
                prompt.keepAs(new PromptView.BankRef(bankPrompt, number));
                entities.flush();
                return number;
            }
        }
        entities.persist(BankVersion.of(
                        new BankVersion.Key(bankPrompt, number), view.kind().name(), view.title(), content)
                .saved(actor.now(), actor.name())
                .with(brings, brings == null || specimens == null ? 0 : specimens.size()));
        entities.flush();
        prompt.keepAs(new PromptView.BankRef(bankPrompt, number));
        entities.flush();
        return number;
    }

    @SystemOnly
    PromptContent content(String json) {
        return mapper.readValue(json, PromptContent.class);
    }

    @SystemOnly
    List<Specimen> specimens(BankVersion version) {
        return version.specimens() == null
                ? List.of()
                : Arrays.asList(mapper.readValue(version.specimens(), Specimen[].class));
    }
}
