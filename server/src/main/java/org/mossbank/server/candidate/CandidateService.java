package org.mossbank.server.candidate;

import jakarta.persistence.EntityManager;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.acts.ActSort;
import org.mossbank.server.acts.Acts;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.progress.Step;
import org.mossbank.server.progress.StepReport;
import org.mossbank.server.progress.StepState;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.check.PromptCheck;
import org.mossbank.server.prompt.check.PromptWarning;
import org.mossbank.server.shared.FreeKey;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.FiguresChanged;
import org.mossbank.server.study.RoundStage;
import org.mossbank.server.study.Studies;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Writing candidates. */
@Service
@Transactional(readOnly = true)
class CandidateService {
    private final Candidates candidates;
    private final CandidateRepository repository;
    private final Studies studies;
    private final CandidateUse use;
    private final EntityManager entities;
    private final ApplicationEventPublisher events;
    private final Acts acts;

    CandidateService(
            Candidates candidates,
            CandidateRepository repository,
            Studies studies,
            CandidateUse use,
            EntityManager entities,
            ApplicationEventPublisher events,
            Acts acts) {
        this.acts = acts;
        this.candidates = candidates;
        this.repository = repository;
        this.studies = studies;
        this.use = use;
        this.entities = entities;
        this.events = events;
    }

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public List<CandidateView> ofStudy(StudyId study) {
        return candidates.ofStudy(study);
    }

    private Set<String> keys(StudyId study) {
        return repository.findByStudyIdOrderByPlace(study).stream()
                .map(c -> c.view().key())
                .collect(Collectors.toCollection(LinkedHashSet::new));
    }

    record AddCandidate(@NotNull @Valid CandidateContent content) {}

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public CandidateView add(StudyId study, AddCandidate request) {
        studies.requirePreparing(study);
        requireMember(study, request.content());
        List<Candidate> known = repository.findByStudyIdOrderByPlace(study);
        Set<String> keys = keys(study);
        int place = known.isEmpty() ? 0 : known.get(known.size() - 1).place() + 1;
        String key = FreeKey.of(request.content().name(), "candidate", keys);
        Candidate candidate = Candidate.of(study, key, request.content(), place);
        entities.persist(candidate);
        entities.flush();
        return candidate.view();
    }

    private void requireMember(StudyId study, CandidateContent content) {
        if (content.personId() != null && !studies.members(study).containsKey(content.personId())) {
            throw Problem.invalid("content.personId", "must belong to the study");
        }
    }

    record WriteCandidate(
            @Min(0) long version, @NotNull @Valid CandidateContent content) {}

    /** @throws Problem 409 if it was changed in the meantime, or the round was opened */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public CandidateView write(StudyId study, CandidateId id, WriteCandidate request) {
        studies.requirePreparing(study);
        Candidate candidate = lockedAt(study, id, request.version());
        requireMember(study, request.content());
        if (!use.isCandidateAnswering(study, id)) {
            Set<String> others = keys(study);
            others.remove(candidate.view().key());
            candidate.call(FreeKey.following(
                    candidate.view().key(),
                    candidate.view().name(),
                    request.content().name(),
                    "candidate",
                    others));
        }
        candidate.write(request.content());
        entities.flush();
        return candidate.view();
    }

    private Candidate lockedAt(StudyId study, CandidateId id, long version) {
        Candidate candidate = repository.lock(study, id).orElseThrow(() -> Problem.notFound("This candidate"));
        entities.refresh(candidate);
        if (candidate.version() != version) {
            throw new Problem(
                            ProblemType.CHANGED_ELSEWHERE,
                            "The candidate was changed in another window since you saw it.")
                    .with("current", candidate.view());
        }
        return candidate;
    }

    record Consider(
            @Min(0) long version,
            @NotNull @Size(max = 40) List<CandidateContent.@Valid @NotNull Consideration> considerations,
            @NotNull @Size(max = 2000) String reason) {}

    /**
     * Facts that no grade covers may also be added while raters grade.
     *
     * @throws Problem 400 if raters grade and no reason is given; 409 once the round is closed
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public CandidateView consider(StudyId study, CandidateId id, Consider request) {
        studies.refuseOnceClosed(study);
        if (studies.stage(study) == RoundStage.Stage.GRADING && request.reason().isBlank()) {
            throw Problem.invalid("reason", "must say why this changes while raters grade");
        }
        Candidate candidate = lockedAt(study, id, request.version());
        candidate.consider(request.considerations());
        acts.keep(study, ActSort.CONSIDERATIONS_CHANGED, candidate.view().name(), request.reason());
        events.publishEvent(new FiguresChanged(study));
        entities.flush();
        return candidate.view();
    }

    /** @throws Problem 409 if it has answers */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public void remove(StudyId study, CandidateId id) {
        studies.requirePreparing(study);
        Candidate candidate = repository.lock(study, id).orElseThrow(() -> Problem.notFound("This candidate"));
        if (use.isCandidateAnswering(study, id)) {
            throw new Problem(ProblemType.HAS_ANSWERS, "This candidate has answers. Remove them first.");
        }
        repository.delete(candidate);
    }

    /** A setting that candidates do not share: one value for each, absent where a candidate does not have it. */
    record Unlike(String setting, List<UnlikeValue> values) {}

    record UnlikeValue(CandidateId candidateId, @Nullable String value) {}

    /** Settings in which candidates differ; baselines have none. */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public List<Unlike> unlike(StudyId study) {
        return unlike(candidates.ofStudy(study));
    }

    static List<Unlike> unlike(List<CandidateView> all) {
        List<CandidateView> models = all.stream().filter(c -> !c.isBaseline()).toList();
        Map<String, String> names = new LinkedHashMap<>();
        models.forEach(c -> c.content().settings().forEach(s -> names.putIfAbsent(plain(s.name()), s.name())));
        List<Unlike> unlike = new ArrayList<>();
        names.forEach((plain, name) -> {
            List<UnlikeValue> values = models.stream()
                    .map(c -> new UnlikeValue(c.id(), valueOf(c, plain)))
                    .toList();
            Set<String> different = new LinkedHashSet<>();
            values.forEach(v -> different.add(v.value() == null ? "" : plain(v.value())));
            if (different.size() > 1) {
                unlike.add(new Unlike(name, values));
            }
        });
        return unlike;
    }

    private static @Nullable String valueOf(CandidateView candidate, String plainName) {
        return candidate.content().settings().stream()
                .filter(s -> plain(s.name()).equals(plainName))
                .map(CandidateContent.Setting::value)
                .findFirst()
                .orElse(null);
    }

    private static String plain(String text) {
        return text.strip().toLowerCase(java.util.Locale.ROOT);
    }

    /** Says how many candidates there are and what they lack. */
    @Component
    static class CandidateStep implements StepReport {
        private final Candidates candidates;

        CandidateStep(Candidates candidates) {
            this.candidates = candidates;
        }

        @Override
        public Step step() {
            return Step.CANDIDATES;
        }

        @Override
        public StepState stateOf(StudyId study) {
            List<Candidates.Head> all = candidates.heads(study);
            long baselines = all.stream().filter(Candidates.Head::baseline).count();
            long models = all.size() - baselines;
            String line = models
                    + (models == 1 ? " candidate" : " candidates")
                    + (baselines == 0 ? "" : baselines == 1 ? ", 1 baseline" : ", " + baselines + " baselines");
            List<String> missing = missing(study, all);
            return new StepState(
                    Step.CANDIDATES,
                    missing.isEmpty() ? 1 : Math.min(0.9, models / 2.0),
                    line,
                    missing.isEmpty() ? null : missing.get(0));
        }

        private List<String> missing(StudyId study, List<Candidates.Head> all) {
            List<String> missing = new ArrayList<>();
            if (all.stream().filter(c -> !c.baseline()).count() < 2) {
                missing.add("a comparison needs two candidates");
            }
            all.stream()
                    .filter(c -> c.name().isBlank())
                    .findFirst()
                    .ifPresent(c -> missing.add("a candidate has no name"));
            // Settings are read only where names and versions do not tell candidates apart.
            if (distinct(all, c -> List.of(c.name(), c.version())) < all.size()
                    && distinct(
                                    candidates.ofStudy(study),
                                    c -> List.of(c.name(), c.content().version(), c.settingsLine()))
                            < all.size()) {
                missing.add("two candidates have the same name, version and settings");
            }
            return missing;
        }

        private static <T> long distinct(List<T> all, Function<T, List<String>> label) {
            return all.stream().map(label).distinct().count();
        }

        @Override
        public List<String> missingBeforeRound(StudyId study) {
            return missing(study, candidates.heads(study)).stream()
                    .map(m -> "Candidates: " + m + ".")
                    .toList();
        }
    }

    /** Warns of a candidate's name in what every rater reads. */
    @Component
    static class NameCheck implements PromptCheck {
        private final Candidates candidates;

        NameCheck(Candidates candidates) {
            this.candidates = candidates;
        }

        @Override
        public Function<PromptView, List<PromptWarning>> of(StudyId study) {
            List<CandidateView> all = candidates.ofStudy(study);
            return prompt -> named(all, prompt.content());
        }

        private static List<PromptWarning> named(List<CandidateView> all, PromptContent content) {
            StringBuilder text = new StringBuilder(content.title()).append('\n').append(content.request());
            content.constraints().forEach(c -> text.append('\n').append(c));
            content.keyPoints().forEach(p -> text.append('\n').append(p.text()));
            content.followUps().forEach(f -> text.append('\n').append(f));
            content.startingFiles()
                    .forEach(
                            f -> text.append('\n').append(f.path()).append('\n').append(f.text()));
            return all.stream()
                    .filter(c -> CandidateNames.pattern(c.name())
                            .map(p -> p.matcher(text).find())
                            .orElse(false))
                    .map(c -> new PromptWarning(
                            "names-candidate", "It names " + c.name() + ", and raters will read that."))
                    .toList();
        }
    }
}
