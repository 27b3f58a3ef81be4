package org.mossbank.server.calibration;

import jakarta.persistence.EntityManager;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.answer.specimen.SpecimenView;
import org.mossbank.server.answer.specimen.Specimens;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.shared.database.Snapshot;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** What prompts brought out of the bank to calibrate by: answers, and levels at which these should stand. */
@Component
class CalibrationReferences {
    private final Specimens specimens;
    private final Prompts prompts;
    private final Rubrics rubrics;
    private final Masking masking;
    private final EntityManager entities;
    private final Snapshot snapshot;
    private final HeavyWork heavy;

    CalibrationReferences(
            Specimens specimens,
            Prompts prompts,
            Rubrics rubrics,
            Masking masking,
            EntityManager entities,
            Snapshot snapshot,
            HeavyWork heavy) {
        this.specimens = specimens;
        this.prompts = prompts;
        this.rubrics = rubrics;
        this.masking = masking;
        this.entities = entities;
        this.snapshot = snapshot;
        this.heavy = heavy;
    }

    private record ToMask(List<SpecimenView> specimens, UnaryOperator<String> names) {}

    /**
     * Specimens that name a candidate of this study, with the name masked; by id. They were masked where they come from, and may
     * name somebody who was no candidate there. Searched before a transaction begins.
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public Map<AnswerId, String> masked(StudyId study, List<PromptId> prompts) {
        ToMask read = snapshot.of(() -> new ToMask(specimens.ofPrompts(study, prompts), masking.said(study)));
        return heavy.run(() -> {
            Map<AnswerId, String> masked = new HashMap<>();
            for (SpecimenView specimen : read.specimens) {
                String text = read.names.apply(specimen.text());
                if (!text.equals(specimen.text())) {
                    masked.put(specimen.id(), text);
                }
            }
            return masked;
        });
    }

    /**
     * Takes prompts out of what counts, and notes the levels that came along with them as the reference, where the rubric has the
     * criterion. Within the transaction of whoever begins.
     *
     * @param version of the rubric
     * @param masked  texts of specimens in which a name had to be masked
     */
    @SystemOnly
    void take(Calibration.Key calibration, List<PromptId> chosen, int version, Map<AnswerId, String> masked) {
        StudyId study = calibration.studyId();
        prompts.calibrate(study, chosen, calibration.number());
        specimens.mask(masked);
        List<CriterionView> criteria = rubrics.by(study, version);
        Map<PromptId, PromptView> byId = prompts.graded(study).stream()
                .filter(p -> chosen.contains(p.id()))
                .collect(Collectors.toMap(PromptView::id, Function.identity()));
        for (SpecimenView specimen : specimens.ofPrompts(calibration.studyId(), byId.keySet())) {
            PromptView prompt = Require.known(byId, specimen.promptId());
            for (SpecimenView.SpecimenLevel level : specimen.levels()) {
                criterion(criteria, level, prompt)
                        .ifPresent(c -> entities.persist(AgreedLevel.of(
                                calibration,
                                new Calibrations.Agreed(
                                        specimen.id(),
                                        c.id(),
                                        Calibrations.Source.REFERENCE,
                                        level.level(),
                                        level.reason(),
                                        level.by(),
                                        level.at()))));
            }
        }
    }

    private static Optional<CriterionView> criterion(
            List<CriterionView> criteria, SpecimenView.SpecimenLevel level, PromptView prompt) {
        return criteria.stream()
                .filter(c -> c.key().equals(level.criterion())
                        && c.highestLevel() == level.highestLevel()
                        && c.appliesTo(prompt.kind().id()))
                .findFirst();
    }
}
