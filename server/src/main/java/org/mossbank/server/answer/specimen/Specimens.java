package org.mossbank.server.answer.specimen;

import jakarta.persistence.EntityManager;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.answer.AnswerText;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptChanges;
import org.mossbank.server.shared.FreeKey;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Answers of no candidate that prompts brought out of the bank, for other modules. */
@Service
@Transactional(readOnly = true)
public class Specimens {
    private final SpecimenRepository specimens;
    private final EntityManager entities;

    Specimens(SpecimenRepository specimens, EntityManager entities) {
        this.specimens = specimens;
        this.entities = entities;
    }

    /**
     * A new specimen; its prompt by key.
     *
     * @param place among the prompt's, from 1
     */
    public record NewSpecimen(
            String key, String prompt, int place, String text, List<SpecimenView.SpecimenLevel> levels) {}

    /** All of a study, by key. */
    @SystemOnly
    public List<SpecimenView> ofStudy(StudyId study) {
        return specimens.ofStudy(study).stream().map(Specimen::view).toList();
    }

    @SystemOnly
    public List<SpecimenView> ofPrompts(StudyId study, Collection<PromptId> prompts) {
        return specimens.ofPrompts(study, prompts).stream().map(Specimen::view).toList();
    }

    /** What raters read of those of some answers that are specimens. */
    @SystemOnly
    public List<AnswerText> blind(Collection<AnswerId> ids) {
        return specimens.findAllById(ids).stream().map(Specimen::blind).toList();
    }

    /** As an archive brings them; returns the new ids by key. */
    @SystemOnly
    @Transactional
    public Map<String, AnswerId> add(StudyId study, List<NewSpecimen> starts, Map<String, PromptId> promptIds) {
        Map<String, AnswerId> ids = new LinkedHashMap<>();
        for (NewSpecimen start : starts) {
            Specimen specimen = Specimen.of(study, Require.known(promptIds, start.prompt()), start);
            entities.persist(specimen);
            ids.put(start.key(), specimen.view().id());
        }
        return ids;
    }

    /** Raters read other texts from now on, in which names are masked; by id. */
    @SystemOnly
    @Transactional
    public void mask(Map<AnswerId, String> texts) {
        specimens
                .findAllById(texts.keySet())
                .forEach(s -> s.read(Require.known(texts, s.view().id())));
    }

    /** Lays down what a prompt brings along. */
    @EventListener
    @Transactional
    @SystemOnly
    public void take(PromptChanges.Taken taken) {
        Set<String> keys = new HashSet<>(specimens.taken(taken.studyId()));
        int place = 1;
        for (var kept : taken.specimens()) {
            String key = FreeKey.of(taken.promptKey() + "-specimen", "specimen", keys);
            keys.add(key);
            entities.persist(Specimen.of(
                    taken.studyId(),
                    taken.promptId(),
                    new NewSpecimen(
                            key,
                            taken.promptKey(),
                            place++,
                            kept.text(),
                            kept.levels().stream()
                                    .map(l -> new SpecimenView.SpecimenLevel(
                                            l.criterion(), l.level(), l.highestLevel(), l.reason(), l.by(), l.at()))
                                    .toList())));
        }
    }

    @EventListener
    @Transactional
    @SystemOnly
    public void forget(PromptChanges.Removed removed) {
        specimens.deleteAll(specimens.ofPrompt(removed.promptId()));
        entities.flush();
    }
}
