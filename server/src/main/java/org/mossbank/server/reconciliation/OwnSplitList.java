package org.mossbank.server.reconciliation;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
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

    @PreAuthorize("isAuthenticated()")
    public SplitViews.OwnSplits mine() {
        AccountId own = current.id();
        Map<StudyId, List<Reconciliation>> byStudy =
                all.findByStudyIdInOrderByTakenUpAt(studies.ofMember(own).keySet()).stream()
                        .collect(Collectors.groupingBy(Reconciliation::studyId));
        List<SplitViews.OwnSplit> mine = new ArrayList<>();
        int later = 0;
        for (Map.Entry<StudyId, List<Reconciliation>> study : byStudy.entrySet()) {
            OfStudy of = ofStudy(study.getKey(), own);
            for (Reconciliation split : study.getValue()) {
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
        return new SplitViews.OwnSplits(mine, later);
    }

    private OfStudy ofStudy(StudyId study, AccountId own) {
        return new OfStudy(
                own,
                studies.get(study),
                studies.stage(study),
                grading.answersSentBy(study, own),
                grading.underWay(study),
                talks.of(study, own),
                access.mayPrepare(study) ? grading.gradedAnswers(study) : Map.of(),
                prompts.outlines(study).stream().collect(Collectors.toMap(Prompts.Outline::id, Function.identity())),
                rubrics.ofStudy(study).stream().collect(Collectors.toMap(CriterionView::id, CriterionView::name)));
    }

    private enum Sight {
        NOW,
        LATER,
        NEVER
    }

    /** Splits of one study as one person sees them. */
    private record OfStudy(
            AccountId own,
            StudyView study,
            RoundStage.Stage stage,
            Map<AnswerId, PromptId> sent,
            Grading.UnderWay underWay,
            TalkRecords.OfStudy talks,
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
            boolean closed = stage == RoundStage.Stage.CLOSED;
            boolean graded =
                    !underWay.raters().contains(own) && !underWay.prompts().contains(prompt);
            return closed || graded ? Sight.NOW : Sight.LATER;
        }

        /** Everybody has said where they stand, and somebody must close it: the lead, if it is theirs. */
        private boolean isToBeClosed(Reconciliation split) {
            Grading.Graded graded = gradedIfLed.get(split.answerId());
            return stage == RoundStage.Stage.GRADING
                    && split.isOpen()
                    && graded != null
                    && talks.standing(split.id()) >= graded.raters();
        }

        SplitViews.OwnSplit view(Reconciliation split) {
            PromptId prompt = sent.get(split.answerId());
            return new SplitViews.OwnSplit(
                    split.id(),
                    study.id(),
                    study.title(),
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
            if (stage != RoundStage.Stage.GRADING || !split.isOpen()) {
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
