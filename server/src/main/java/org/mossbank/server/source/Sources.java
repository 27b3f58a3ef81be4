package org.mossbank.server.source;

import jakarta.persistence.EntityManager;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Sources, for other modules. */
@Service
@Transactional(readOnly = true)
public class Sources {
    private final SourceRepository sources;
    private final SourceClient client;
    private final EntityManager entities;

    Sources(SourceRepository sources, SourceClient client, EntityManager entities) {
        this.sources = sources;
        this.client = client;
        this.entities = entities;
    }

    /** By candidate; those without are left out. */
    @SystemOnly
    public Map<CandidateId, SourceContent> ofStudy(StudyId study) {
        Map<CandidateId, SourceContent> byCandidate = new HashMap<>();
        sources.ofStudy(study).forEach(s -> byCandidate.put(s.candidateId(), s.content()));
        return byCandidate;
    }

    @SystemOnly
    public Optional<SourceContent> of(StudyId study, CandidateId candidate) {
        return sources.ofCandidate(study, candidate).map(Source::content);
    }

    @SystemOnly
    @Transactional
    public void add(StudyId study, CandidateId candidate, SourceContent content) {
        entities.persist(Source.of(study, candidate, content));
    }

    /** A request on its way, which another thread may end. */
    public static final class Asking {
        private final SourceClient.Cancel cancel = new SourceClient.Cancel();

        /** What came until then is the reply. */
        public void cutOff() {
            cancel.cancel();
        }
    }

    /**
     * Asks a candidate, and waits for what comes.
     *
     * @param turns   what was asked and replied, ending in what is asked now
     * @param attempt which attempt this is, from 1
     */
    @SystemOnly
    @Transactional(propagation = Propagation.NOT_SUPPORTED)
    public Reply ask(SourceContent source, List<Turn> turns, int attempt, Reply.Progress progress, Asking asking) {
        return client.ask(source, turns, attempt, progress, asking.cancel);
    }

    /** A field of a source and what is wrong with it, as the end of "It …". */
    public record SourceFault(String field, String rule) {}

    /** What a source's templates lack, whatever may be reached. */
    public static Optional<SourceFault> fault(SourceContent source) {
        try {
            BodyTemplate.of(source);
        } catch (BodyTemplate.Unfit e) {
            return Optional.of(e.fault());
        }
        return source.finishPointer().isEmpty() || !source.completeWords().isEmpty()
                ? Optional.empty()
                : Optional.of(new SourceFault("completeWords", "must hold the word that says it is complete"));
    }

    /**
     * The most tokens that asking can send: a token is at least one byte of UTF-8.
     *
     * @throws IllegalArgumentException if the source's templates are not right
     */
    public static long mostInputTokens(SourceContent source, List<Turn> turns) {
        return BodyTemplate.of(source)
                .fill(turns, 1, source.mostOutputTokens())
                .getBytes(java.nio.charset.StandardCharsets.UTF_8)
                .length;
    }
}
