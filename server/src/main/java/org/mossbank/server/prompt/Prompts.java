package org.mossbank.server.prompt;

import jakarta.persistence.EntityManager;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Chunks;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Prompts and their kinds, for other modules. */
@Service
@Transactional(readOnly = true)
public class Prompts {
    private final KindRepository kinds;
    private final PromptRepository prompts;
    private final PromptFaultRepository faults;
    private final EntityManager entities;

    Prompts(KindRepository kinds, PromptRepository prompts, PromptFaultRepository faults, EntityManager entities) {
        this.kinds = kinds;
        this.prompts = prompts;
        this.faults = faults;
        this.entities = entities;
    }

    public record NewKind(String key, String name) {}

    /**
     * @param kind      key of the kind
     * @param author    account of who wrote it
     * @param variantOf key of the prompt that this is another wording of
     * @param calibration the calibration that it is for; absent where it counts
     */
    public record NewPrompt(
            String key,
            String kind,
            PromptContent content,
            @Nullable AccountId author,
            @Nullable String variantOf,
            @Nullable Wording wording,
            @Nullable Integer calibration,
            PromptView.@Nullable FaultView fault) {}

    /** Adds kinds in their order and returns the new ids by key. */
    @SystemOnly
    @Transactional
    public Map<String, KindId> addKinds(StudyId study, List<NewKind> starts) {
        Map<String, KindId> ids = new LinkedHashMap<>();
        int place = kinds.findByStudyIdOrderByPlace(study).size();
        for (NewKind start : starts) {
            Kind kind = Kind.of(study, start.key(), start.name(), place + ids.size());
            entities.persist(kind);
            ids.put(start.key(), kind.view().id());
        }
        return ids;
    }

    /** Where a study's prompts were taken from the bank, those of another with the same keys were too. */
    @SystemOnly
    @Transactional
    public void keepFromBankAlike(StudyId from, StudyId to) {
        Map<String, PromptView> refs = ofStudy(from).stream().collect(Collectors.toMap(PromptView::key, p -> p));
        for (Prompt prompt : prompts.ofStudy(to)) {
            PromptView same = refs.get(prompt.key());
            if (same != null && same.bank() != null) {
                prompt.keepAs(same.bank());
            }
        }
    }

    /** Adds prompts in their order and returns the new ids by key. */
    @SystemOnly
    @Transactional
    public Map<String, PromptId> addPrompts(StudyId study, List<NewPrompt> starts, Map<String, KindId> kindIds) {
        Map<String, Prompt> added = new LinkedHashMap<>();
        for (NewPrompt start : starts) {
            Prompt prompt =
                    Prompt.of(study, start.key(), Require.known(kindIds, start.kind()), start.content(), added.size());
            prompt.writtenBy(start.author());
            prompt.word(start.wording());
            prompt.calibrate(start.calibration());
            entities.persist(prompt);
            added.put(start.key(), prompt);
        }
        for (NewPrompt start : starts) {
            Prompt prompt = Require.known(added, start.key());
            if (start.variantOf() != null && start.wording() != null) {
                prompt.makeVariant(Require.known(added, start.variantOf()).id(), start.wording());
            }
            if (start.fault() != null) {
                entities.persist(PromptFault.of(prompt.id(), start.fault()));
            }
        }
        Map<String, PromptId> ids = new LinkedHashMap<>();
        added.forEach((key, prompt) -> ids.put(key, prompt.id()));
        return ids;
    }

    @SystemOnly
    public List<KindView> kinds(StudyId study) {
        return kinds.findByStudyIdOrderByPlace(study).stream().map(Kind::view).toList();
    }

    /** All prompts, faulty ones included. */
    @SystemOnly
    public List<PromptView> ofStudy(StudyId study) {
        return views(study, prompts.ofStudy(study));
    }

    /** The prompts that count. */
    @SystemOnly
    public List<PromptView> sound(StudyId study) {
        return ofStudy(study).stream().filter(PromptView::isCounting).toList();
    }

    @SystemOnly
    List<PromptView> views(StudyId study, List<Prompt> some) {
        Map<KindId, KindView> byId = kinds(study).stream().collect(Collectors.toMap(KindView::id, Function.identity()));
        Map<PromptId, PromptFault> faulty =
                faults
                        .findByPromptIdInAndTakenBackAtIsNull(
                                some.stream().map(Prompt::id).toList())
                        .stream()
                        .collect(Collectors.toMap(PromptFault::promptId, Function.identity()));
        List<PromptView> views = new ArrayList<>();
        for (Prompt prompt : some) {
            PromptFault fault = faulty.get(prompt.id());
            views.add(prompt.view(Require.known(byId, prompt.kindId()), fault == null ? null : fault.view()));
        }
        return views;
    }

    /**
     * A prompt without its texts, which may be long.
     *
     * @param isWritten whether there is a request
     * @param isFaulty  whether it was set aside and counts nowhere
     * @param calibration the calibration that it is for; absent where it counts
     * @param followUps what every candidate is told next
     */
    public record Outline(
            PromptId id,
            String key,
            KindId kindId,
            String kindName,
            String title,
            boolean isWritten,
            boolean isFaulty,
            @Nullable Integer calibration,
            List<String> followUps) {
        Outline(
                PromptId id,
                String key,
                KindId kindId,
                String kindName,
                String title,
                boolean isWritten,
                boolean isFaulty,
                @Nullable Integer calibration,
                String[] followUps) {
            this(id, key, kindId, kindName, title, isWritten, isFaulty, calibration, List.of(followUps));
        }

        /** Whether figures rest on it. */
        public boolean isCounting() {
            return !isFaulty && calibration == null;
        }
    }

    /** All prompts, faulty ones included, without their texts. */
    @SystemOnly
    public List<Outline> outlines(StudyId study) {
        return prompts.outlines(study);
    }

    /** All prompts of some studies, however many, with one question. */
    @SystemOnly
    public List<Outline> outlines(Collection<StudyId> studies) {
        return prompts.outlines(studies);
    }

    /** Of some studies, the few that are not {@link Outline#isCounting}: faulty ones, and those that raters calibrate by. */
    @SystemOnly
    public Set<PromptId> notCounting(Collection<StudyId> studies) {
        return prompts.notCounting(studies).stream().map(Versioned::id).collect(Collectors.toSet());
    }

    /** @param version counts up with every change of it */
    public record Versioned(PromptId id, long version) {}

    /** In which version each prompt of a study stands. */
    @SystemOnly
    public Map<PromptId, Long> versions(StudyId study) {
        return prompts.versions(study).stream().collect(Collectors.toMap(Versioned::id, Versioned::version));
    }

    /** The ids of the prompts that count. */
    @SystemOnly
    public List<PromptId> soundIds(StudyId study) {
        return outlines(study).stream()
                .filter(Outline::isCounting)
                .map(Outline::id)
                .toList();
    }

    /** The prompts that somebody grades: those that count, and those that raters calibrate by. */
    @SystemOnly
    public List<PromptView> graded(StudyId study) {
        return ofStudy(study).stream().filter(p -> !p.isFaulty()).toList();
    }

    @SystemOnly
    public List<PromptId> gradedIds(StudyId study) {
        return outlines(study).stream()
                .filter(p -> !p.isFaulty())
                .map(Outline::id)
                .toList();
    }

    /** Takes prompts out of what counts: raters calibrate by them. Within the transaction of whoever begins it. */
    @SystemOnly
    @Transactional(propagation = Propagation.MANDATORY)
    public void calibrate(StudyId study, Collection<PromptId> some, int number) {
        some.forEach(id -> prompts.lock(study, id)
                .orElseThrow(() -> Problem.notFound("This prompt"))
                .calibrate(number));
    }

    /** @throws Problem 409 if raters calibrate by it */
    @SystemOnly
    public void refuseIfCalibrating(PromptId id) {
        if (prompts.outline(id).map(Outline::calibration).isPresent()) {
            throw new Problem(
                    ProblemType.CALIBRATING, "Raters calibrate by this prompt. It and its answers stay as they are.");
        }
    }

    /** One prompt without its texts; empty if there is none of this id. */
    @SystemOnly
    public Optional<Outline> outline(PromptId id) {
        return prompts.outline(id);
    }

    /** What candidates get of one prompt, and nothing of what a right answer holds; empty if there is none of this id. */
    @SystemOnly
    public Optional<PromptContent.Asked> asked(PromptId id) {
        return prompts.withStartingFiles(id).map(Prompt::asked);
    }

    /**
     * What candidates get of one prompt.
     *
     * @param version of the prompt that this is of
     */
    public record Sendable(PromptContent.Asked asked, long version) {}

    /** The same with its version; empty if there is none of this id. */
    @SystemOnly
    public Optional<Sendable> sendable(PromptId id) {
        return prompts.withStartingFiles(id).map(p -> new Sendable(p.asked(), p.version()));
    }

    /** One prompt of a study; empty if it has none of this id. */
    @SystemOnly
    public Optional<PromptView> one(StudyId study, PromptId id) {
        return studyOf(id).filter(study::equals).flatMap(s -> one(id));
    }

    /** One prompt; empty if there is none of this id. */
    @SystemOnly
    public Optional<PromptView> one(PromptId id) {
        return prompts.findById(id)
                .map(p -> p.view(
                        kinds.findById(p.kindId()).orElseThrow().view(),
                        faults.findByPromptIdInAndTakenBackAtIsNull(List.of(id)).stream()
                                .map(PromptFault::view)
                                .findFirst()
                                .orElse(null)));
    }

    /** What a prompt says, and of which study it is. */
    public record Placed(StudyId study, PromptContent content) {}

    /** Some prompts of any studies, however many, with as many questions as for one. */
    @SystemOnly
    public Map<PromptId, Placed> placed(Collection<PromptId> ids) {
        return Chunks.of(ids, prompts::findAllById).stream()
                .collect(Collectors.toMap(Prompt::id, p -> new Placed(p.studyId(), p.content())));
    }

    /** @param study that the prompt belongs to */
    public record InStudy(PromptId id, StudyId study) {}

    /** The studies that some prompts belong to, without the prompts. */
    @SystemOnly
    public Map<PromptId, StudyId> studiesOf(Collection<PromptId> ids) {
        return Chunks.of(ids, prompts::inStudies).stream().collect(Collectors.toMap(InStudy::id, InStudy::study));
    }

    /** The study that a prompt belongs to; empty if there is none of this id. */
    @SystemOnly
    public Optional<StudyId> studyOf(PromptId id) {
        return prompts.findById(id).map(Prompt::studyId);
    }
}
