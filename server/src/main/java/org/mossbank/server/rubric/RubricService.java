package org.mossbank.server.rubric;

import jakarta.persistence.EntityManager;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.acts.ActSort;
import org.mossbank.server.acts.Acts;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.progress.Step;
import org.mossbank.server.progress.StepReport;
import org.mossbank.server.progress.StepState;
import org.mossbank.server.prompt.KindView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.FreeKey;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyBegun;
import org.springframework.context.event.EventListener;
import org.springframework.core.annotation.Order;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Writing and publishing the rubric. */
@Service
@Transactional(readOnly = true)
class RubricService {
    private final Rubrics rubrics;
    private final RubricVersionRepository versions;
    private final RubricDrafts drafts;
    private final Prompts prompts;
    private final Studies studies;
    private final EntityManager entities;
    private final Acts acts;
    private final Clock clock;

    RubricService(
            Rubrics rubrics,
            RubricVersionRepository versions,
            RubricDrafts drafts,
            Prompts prompts,
            Studies studies,
            EntityManager entities,
            Acts acts,
            Clock clock) {
        this.rubrics = rubrics;
        this.versions = versions;
        this.drafts = drafts;
        this.prompts = prompts;
        this.studies = studies;
        this.entities = entities;
        this.acts = acts;
        this.clock = clock;
    }

    /** After the kinds are there, which anchors speak of. */
    @SystemOnly
    @EventListener
    @Order(2)
    @Transactional
    public void layOut(StudyBegun begun) {
        Map<String, KindId> kinds =
                prompts.kinds(begun.studyId()).stream().collect(Collectors.toMap(KindView::key, KindView::id));
        rubrics.add(begun.studyId(), new Rubrics.NewVersion(1, null, "", false, DefaultRubric.of(kinds)));
    }

    /**
     * A version of the rubric with the kinds that its anchors speak of.
     *
     * @param revision counts writings of a draft; sent back with the next one
     * @param versions all there are, oldest first
     */
    record RubricView(
            List<KindView> kinds,
            VersionView version,
            long revision,
            List<CriterionView> criteria,
            List<VersionView> versions) {}

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public RubricView ofStudy(StudyId study) {
        return view(study, rubrics.current(study).orElseThrow());
    }

    private RubricView view(StudyId study, RubricVersion version) {
        return new RubricView(
                prompts.kinds(study),
                version.view(),
                version.version(),
                rubrics.of(version),
                versions.findByStudyIdOrderByNumber(study).stream()
                        .map(RubricVersion::view)
                        .toList());
    }

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public RubricView version(StudyId study, int number) {
        return versions.findByStudyIdOrderByNumber(study).stream()
                .filter(v -> v.number() == number)
                .findFirst()
                .map(v -> view(study, v))
                .orElseThrow(() -> Problem.notFound("This version"));
    }

    /**
     * @param number   the version that was seen; writing onto a published one begins the next draft
     * @param revision the revision that was seen
     */
    record WriteRubric(
            @Min(1) int number,
            @Min(0) long revision,
            @NotNull @Size(max = 12) List<@Valid @NotNull CriterionContent> criteria) {}

    /**
     * Writes the whole draft.
     *
     * @throws Problem 409 if it was changed in the meantime, the round was opened, or weights or floors differ from those
     *     that were closed with the brief
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public RubricView write(StudyId study, WriteRubric request) {
        studies.requirePreparing(study);
        List<RubricVersion> all = versions.lock(study);
        RubricVersion newest = all.get(all.size() - 1);
        entities.refresh(newest);
        if (newest.number() != request.number() || newest.version() != request.revision()) {
            throw new Problem(
                            ProblemType.CHANGED_ELSEWHERE, "The rubric was changed in another window since you saw it.")
                    .with("current", view(study, newest));
        }
        List<CriterionContent> contents = withKeys(study, request.criteria());
        refuseIfRuleChanges(study, newest, contents);
        refuseIfRulerChanges(study, newest, contents);
        return view(study, drafts.write(study, newest, contents));
    }

    private List<CriterionContent> withKeys(StudyId study, List<CriterionContent> given) {
        Set<KindId> kinds = prompts.kinds(study).stream().map(KindView::id).collect(Collectors.toSet());
        Set<String> taken = given.stream()
                .map(CriterionContent::key)
                .filter(Objects::nonNull)
                .collect(Collectors.toCollection(HashSet::new));
        List<CriterionContent> keyed = new ArrayList<>();
        Set<String> used = new HashSet<>();
        for (int i = 0; i < given.size(); i++) {
            CriterionContent content = given.get(i);
            String key = content.key() != null ? content.key() : FreeKey.of(content.name(), "criterion", taken);
            if (!used.add(key)) {
                throw Problem.invalid("criteria[" + i + "].key", "must be another one than those before");
            }
            boolean strange = !kinds.containsAll(content.kindIds())
                    || content.levels().stream()
                            .flatMap(l -> l.anchors().stream())
                            .anyMatch(a -> !kinds.contains(a.kindId()));
            if (strange) {
                throw Problem.invalid("criteria[" + i + "].kindIds", "must be kinds of this study");
            }
            taken.add(key);
            keyed.add(content.withKey(key));
        }
        return keyed;
    }

    /** Weights and floors are part of the rule, and that is closed with the brief. */
    private void refuseIfRuleChanges(StudyId study, RubricVersion before, List<CriterionContent> after) {
        if (!studies.get(study).isBriefClosed()) {
            return;
        }
        record Term(double weight, @Nullable Double floor) {}
        Map<String, Term> closed = rubrics.of(before).stream()
                .filter(c -> c.weight() > 0)
                .collect(Collectors.toMap(CriterionView::key, c -> new Term(c.weight(), c.floor())));
        Map<String, Term> now = after.stream()
                .filter(c -> c.weight() > 0)
                .collect(Collectors.toMap(c -> String.valueOf(c.key()), c -> new Term(c.weight(), c.floor())));
        if (!closed.equals(now)) {
            throw new Problem(
                    ProblemType.BRIEF_CLOSED,
                    "Weights and floors are closed with the brief. Reopen it with a reason to change them.");
        }
    }

    /** What raters calibrate by is compared before and after: the words may change, the scales may not. */
    private void refuseIfRulerChanges(StudyId study, RubricVersion before, List<CriterionContent> after) {
        if (prompts.outlines(study).stream().allMatch(p -> p.calibration() == null)) {
            return;
        }
        record Scale(int levels, Set<KindId> kinds) {}
        Map<String, Scale> graded = rubrics.of(before).stream()
                .collect(Collectors.toMap(
                        CriterionView::key, c -> new Scale(c.levels().size(), Set.copyOf(c.kindIds()))));
        Map<String, Scale> now = after.stream()
                .collect(Collectors.toMap(
                        c -> String.valueOf(c.key()), c -> new Scale(c.levels().size(), Set.copyOf(c.kindIds()))));
        if (!graded.equals(now)) {
            throw new Problem(
                    ProblemType.CALIBRATING,
                    "Raters calibrate by these criteria and levels, so they stay as they are. Names, questions and anchors may be reworded.");
        }
    }

    /** What weights and gate would do; nothing is kept. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public List<ScoreExamples.Example> examples(StudyId study, ScoreExamples.Weighing weighing) {
        return ScoreExamples.of(weighing);
    }

    record PublishRubric(@NotNull @Size(max = 500) String note) {}

    /** @throws Problem 409 if there is no draft, or it has gaps */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public RubricView publish(StudyId study, PublishRubric request) {
        List<RubricVersion> all = versions.lock(study);
        if (all.stream().noneMatch(RubricVersion::isInUse)) {
            studies.requirePreparing(study);
        }
        RubricVersion newest = all.get(all.size() - 1);
        if (!newest.isDraft()) {
            throw new Problem(ProblemType.NOT_READY, "Nothing has changed since the last version was published.");
        }
        List<String> gaps = gaps(rubrics.of(newest));
        if (!gaps.isEmpty()) {
            throw new Problem(
                    ProblemType.NOT_READY, "The rubric cannot be published: " + String.join("; ", gaps) + ".");
        }
        newest.publish(clock.instant(), request.note().strip());
        entities.flush();
        acts.keep(study, ActSort.RUBRIC_PUBLISHED, "version " + newest.number(), request.note());
        return view(study, newest);
    }

    private static List<String> gaps(List<CriterionView> criteria) {
        List<String> gaps = new ArrayList<>();
        if (criteria.stream().allMatch(c -> c.weight() == 0)) {
            gaps.add("no criterion has weight");
        }
        criteria.stream()
                .filter(c -> c.name().isBlank())
                .findFirst()
                .ifPresent(c -> gaps.add("a criterion has no name"));
        return gaps;
    }

    /** Says which version there is and what it lacks. */
    @Component
    static class RubricStep implements StepReport {
        private final Rubrics rubrics;
        private final Prompts prompts;

        RubricStep(Rubrics rubrics, Prompts prompts) {
            this.rubrics = rubrics;
            this.prompts = prompts;
        }

        @Override
        public Step step() {
            return Step.RUBRIC;
        }

        @Override
        public StepState stateOf(StudyId study) {
            Rubrics.VersionCriteria counting = rubrics.counting(study).orElseThrow();
            List<CriterionView> criteria = counting.criteria();
            VersionView version = counting.version();
            String line = criteria.size() + (criteria.size() == 1 ? " criterion" : " criteria") + ", version "
                    + version.number() + (version.publishedAt() == null ? ", draft" : "");
            List<String> missing = missing(study, criteria, version);
            return new StepState(
                    Step.RUBRIC, missing.isEmpty() ? 1 : 0.6, line, missing.isEmpty() ? null : missing.get(0));
        }

        private List<String> missing(StudyId study, List<CriterionView> criteria, VersionView version) {
            List<String> missing = new ArrayList<>(gaps(criteria));
            if (version.publishedAt() == null) {
                missing.add("the draft is not published");
            }
            Map<KindId, String> used = new LinkedHashMap<>();
            prompts.outlines(study).stream()
                    .filter(p -> !p.isFaulty())
                    .forEach(p -> used.put(p.kindId(), p.kindName()));
            used.forEach((kind, name) -> {
                if (criteria.stream().noneMatch(c -> c.weight() > 0 && c.appliesTo(kind))) {
                    missing.add("no criterion with weight is for " + name.toLowerCase(Locale.ROOT));
                }
            });
            return missing;
        }

        @Override
        public List<String> missingBeforeRound(StudyId study) {
            return missing(study, rubrics.ofStudy(study), rubrics.version(study).orElseThrow()).stream()
                    .map(m -> "Rubric: " + m + ".")
                    .toList();
        }
    }
}
