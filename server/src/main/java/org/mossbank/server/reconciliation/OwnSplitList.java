package org.mossbank.server.reconciliation;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.study.RoundStage;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyAccess;
import org.mossbank.server.study.StudyView;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What waits for somebody, and what they took part in, over all their studies. */
@Service
@Transactional(readOnly = true)
class OwnSplitList {
    /** Studies whose round is closed. */
    private static final int MOST_OVER = 20;

    private final ReconciliationRepository all;
    private final TalkRecords talks;
    private final Grading grading;
    private final Prompts prompts;
    private final Rubrics rubrics;
    private final Studies studies;
    private final CurrentAccount current;
    private final StudyAccess access;

    OwnSplitList(
            ReconciliationRepository all,
            TalkRecords talks,
            Grading grading,
            Prompts prompts,
            Rubrics rubrics,
            Studies studies,
            CurrentAccount current,
            StudyAccess access) {
        this.all = all;
        this.talks = talks;
        this.grading = grading;
        this.prompts = prompts;
        this.rubrics = rubrics;
        this.studies = studies;
        this.current = current;
        this.access = access;
    }

    /**
     * What concerns whoever asks.
     *
     * @param earlier which of the studies that are over, so many at a time and those with the newest splits first; the others come
     *                with the first
     */
    @PreAuthorize("isAuthenticated()")
    public SplitViews.OwnSplits mine(int earlier) {
        AccountId own = current.id();
        Map<StudyId, RoundStage.Stage> stages =
                studies.stages(studies.ofMember(own).keySet());
        List<StudyId> over = over(stages);
        int first = Math.min(earlier * MOST_OVER, over.size());
        int end = Math.min(first + MOST_OVER, over.size());
        Stream<StudyId> others =
                earlier > 0 ? Stream.of() : stages.keySet().stream().filter(s -> !isOver(s, stages));
        List<StudyId> shown =
                Stream.concat(others, over.subList(first, end).stream()).toList();
        Map<StudyId, List<Reconciliation>> byStudy = all.findByStudyIdInOrderByTakenUpAt(shown).stream()
                .collect(Collectors.groupingBy(Reconciliation::studyId));
        OfPerson of = ofPerson(own, byStudy, stages);
        List<SplitViews.OwnSplit> mine = new ArrayList<>();
        int later = 0;
        for (List<Reconciliation> ofStudy : byStudy.values()) {
            for (Reconciliation split : ofStudy) {
                switch (of.sight(split)) {
                    case NOW -> mine.add(of.view(split));
                    case LATER -> later++;
                    case NEVER -> {}
                }
            }
        }
        mine.sort(SplitDesk.FIRST_WHAT_WAITS
                .thenComparing(SplitViews.OwnSplit::studyTitle)
                .thenComparing(SplitViews.OwnSplit::title)
                .thenComparing(SplitViews.OwnSplit::criterion));
        return new SplitViews.OwnSplits(mine, later, end < over.size());
    }

    private static boolean isOver(StudyId study, Map<StudyId, RoundStage.Stage> stages) {
        return stages.get(study) == RoundStage.Stage.CLOSED;
    }

    /** Where splits are, and nothing waits any more. */
    private List<StudyId> over(Map<StudyId, RoundStage.Stage> stages) {
        return all
                .lastTakenUp(
                        stages.keySet().stream().filter(s -> isOver(s, stages)).toList())
                .stream()
                .sorted(Comparator.comparing(ReconciliationRepository.LastTakenUp::at)
                        .reversed()
                        .thenComparing(l -> l.studyId().value()))
                .map(ReconciliationRepository.LastTakenUp::studyId)
                .toList();
    }

    /** However many studies there are, with as many questions as for one. */
    private OfPerson ofPerson(
            AccountId own, Map<StudyId, List<Reconciliation>> byStudy, Map<StudyId, RoundStage.Stage> stages) {
        Set<StudyId> some = byStudy.keySet();
        // With them at hand, whether somebody leads one is not asked of the database again.
        Map<StudyId, StudyView> views = studies.byId(some);
        TalkRecords.OfPerson talksOfOwn = talks.of(some, own);
        List<StudyId> led = some.stream().filter(access::mayPrepare).toList();
        // Of those that are closed a lead is not told more than a rater.
        Set<AnswerId> mayWait = led.stream()
                .flatMap(s -> Require.known(byStudy, s).stream())
                .filter(s -> s.isOpen() || talksOfOwn.isAskedToLook(s.id()))
                .map(Reconciliation::answerId)
                .collect(Collectors.toSet());
        return new OfPerson(
                own,
                views,
                stages,
                grading.answersSentBy(some, own),
                Left.of(grading.unsent(some), own),
                talksOfOwn,
                grading.gradedAnswers(led, mayWait),
                prompts.outlines(some).stream().collect(Collectors.toMap(Prompts.Outline::id, Function.identity())),
                rubrics.ofStudies(some).values().stream()
                        .flatMap(List::stream)
                        .collect(Collectors.toMap(CriterionView::id, CriterionView::name)));
    }

    private enum Sight {
        NOW,
        LATER,
        NEVER
    }

    /** Studies in which a person has sheets left, and prompts for which anybody has. */
    private record Left(Set<StudyId> ofOwn, Set<PromptId> prompts) {
        static Left of(List<Grading.Unsent> unsent, AccountId own) {
            return new Left(
                    unsent.stream()
                            .filter(s -> s.raterId().equals(own))
                            .map(Grading.Unsent::studyId)
                            .collect(Collectors.toSet()),
                    unsent.stream().map(Grading.Unsent::promptId).collect(Collectors.toSet()));
        }
    }

    /** Splits as one person sees them. */
    private record OfPerson(
            AccountId own,
            Map<StudyId, StudyView> studies,
            Map<StudyId, RoundStage.Stage> stages,
            Map<AnswerId, PromptId> sent,
            Left left,
            TalkRecords.OfPerson talks,
            Map<AnswerId, Grading.Graded> gradedIfLed,
            Map<PromptId, Prompts.Outline> prompts,
            Map<CriterionId, String> criteria) {
        Sight sight(Reconciliation split) {
            if (talks.isAskedToLook(split.id())) {
                return Sight.NOW;
            }
            PromptId prompt = sent.get(split.answerId());
            if (prompt == null) {
                return isToBeClosed(split) ? Sight.NOW : Sight.NEVER;
            }
            return isOver(split.studyId(), stages) || isAllIn(split, prompt) ? Sight.NOW : Sight.LATER;
        }

        /** Whether nothing of theirs is left to grade, and nothing of the prompt. */
        private boolean isAllIn(Reconciliation split, PromptId prompt) {
            return !left.ofOwn.contains(split.studyId()) && !left.prompts.contains(prompt);
        }

        private boolean isGraded(Reconciliation split) {
            return stages.get(split.studyId()) == RoundStage.Stage.GRADING;
        }

        /** Everybody has said where they stand, and somebody must close it: the lead, if it is theirs. */
        private boolean isToBeClosed(Reconciliation split) {
            Grading.Graded graded = gradedIfLed.get(split.answerId());
            return isGraded(split) && split.isOpen() && graded != null && talks.standing(split.id()) >= graded.raters();
        }

        SplitViews.OwnSplit view(Reconciliation split) {
            PromptId prompt = sent.get(split.answerId());
            return new SplitViews.OwnSplit(
                    split.id(),
                    split.studyId(),
                    Require.known(studies, split.studyId()).title(),
                    title(split, prompt),
                    Require.known(criteria, split.criterionId()),
                    split.state(),
                    talks.words(split.id()),
                    waitsFor(split, prompt));
        }

        /** Whoever looks blind is not told more than they need. */
        private String title(Reconciliation split, @Nullable PromptId own) {
            Grading.Graded led = gradedIfLed.get(split.answerId());
            PromptId prompt = own == null && led != null ? led.promptId() : own;
            return prompt == null ? "" : Require.known(prompts, prompt).title();
        }

        private SplitViews.WaitsFor waitsFor(Reconciliation split, @Nullable PromptId prompt) {
            if (!isGraded(split) || !split.isOpen()) {
                return SplitViews.WaitsFor.NOTHING;
            }
            if (prompt == null && isToBeClosed(split)) {
                return SplitViews.WaitsFor.CLOSING;
            }
            if (prompt == null) {
                return talks.hasLooked(split.id()) ? SplitViews.WaitsFor.NOTHING : SplitViews.WaitsFor.LOOK;
            }
            if (!talks.stands(split.id())) {
                return SplitViews.WaitsFor.STANCE;
            }
            return talks.isNewsFor(split.id()) ? SplitViews.WaitsFor.READING : SplitViews.WaitsFor.NOTHING;
        }
    }
}
