package org.mossbank.server.archive;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import org.mossbank.server.answer.FollowUpRules;
import org.mossbank.server.run.Runs;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.source.SourceContent;
import org.mossbank.server.source.Sources;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Between an archive and what the database holds of how answers were collected. */
@Service
class CollectionLoader {
    private final FollowUpRules rules;
    private final Sources sources;
    private final Runs runs;

    CollectionLoader(FollowUpRules rules, Sources sources, Runs runs) {
        this.rules = rules;
        this.sources = sources;
        this.runs = runs;
    }

    /** Writes it to the database; ids by the archive's keys. */
    @SystemOnly
    @Transactional
    public void add(
            UUID study,
            StudyArchive.ArchiveCollection collection,
            Map<String, UUID> prompts,
            Map<String, UUID> candidates,
            Map<String, UUID> answers) {
        if (collection.mostFollowUps() != null) {
            rules.add(study, collection.mostFollowUps());
        }
        collection.sources().forEach((candidate, source) -> sources.add(study, candidates.get(candidate), source));
        for (StudyArchive.ArchiveRun run : collection.runs()) {
            runs.add(
                    study,
                    new Runs.RunRecord(
                            run.head(),
                            run.cells().stream()
                                    .map(c -> new Runs.CellRecord(
                                            c.group(),
                                            prompts.get(c.prompt()),
                                            candidates.get(c.candidate()),
                                            c.attempt(),
                                            c.state().replace('-', '_').toUpperCase(Locale.ROOT),
                                            c.ownFollowUp(),
                                            c.turn(),
                                            c.tries(),
                                            c.spentCost(),
                                            c.spentTokens(),
                                            c.notes(),
                                            c.lateReply(),
                                            c.answer() == null ? null : answers.get(c.answer())))
                                    .toList()));
        }
    }

    /** Reads it from the database; keys by id. */
    @SystemOnly
    @Transactional(readOnly = true)
    public StudyArchive.ArchiveCollection of(
            UUID study, Map<UUID, String> prompts, Map<UUID, String> candidates, Map<UUID, String> answers) {
        Map<String, SourceContent> byKey = new LinkedHashMap<>();
        sources.ofStudy(study).forEach((candidate, source) -> byKey.put(candidates.get(candidate), source));
        List<StudyArchive.ArchiveRun> all = runs.ofStudy(study).stream()
                .map(r -> new StudyArchive.ArchiveRun(
                        r.head(),
                        r.cells().stream()
                                .map(c -> new StudyArchive.ArchiveCell(
                                        c.group(),
                                        prompts.get(c.promptId()),
                                        candidates.get(c.candidateId()),
                                        c.attempt(),
                                        c.state().replace('_', '-').toLowerCase(Locale.ROOT),
                                        c.ownFollowUp(),
                                        c.turn(),
                                        c.tries(),
                                        c.spentCost(),
                                        c.spentTokens(),
                                        c.notes(),
                                        c.lateReply(),
                                        c.answerId() == null ? null : answers.get(c.answerId())))
                                .toList()))
                .toList();
        return new StudyArchive.ArchiveCollection(
                rules.most(study).stream().boxed().findFirst().orElse(null), new TreeMap<>(byKey), all);
    }
}
