package org.mossbank.server.evidence;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.answer.FactsOfAnswers;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.SaidOfAnswers;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.recommendation.Recommendations;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.study.RuleTerms;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyPeople;
import org.mossbank.server.study.StudyView;
import org.mossbank.server.trial.Trials;
import org.mossbank.server.trial.TriedAnswer;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** What trials say of a study's answers, and what raters say of the same. */
@Service
class EvidenceService {
    /** Of each sort. Those of a large study take some megabytes. */
    private static final int MOST_KEPT = 20;

    /** Names that people go by may change. */
    private static final Duration LONGEST = Duration.ofMinutes(10);

    private final Trials trials;
    private final Answered answered;
    private final Graded graded;
    private final Studies studies;
    private final StudyPeople names;
    private final DeskTrials.Reading reading;
    private final Cache<Key, EvidenceReport> reports = kept();
    private final Cache<Key, GradedEvidence> gradedReports = kept();

    /** What both hang on once the round is open: all but trials and repairs counts its revision up. */
    private record Key(StudyId study, long revision, Trials.EvidenceSoFar soFar) {}

    private static <T> Cache<Key, T> kept() {
        return Caffeine.newBuilder()
                .maximumSize(MOST_KEPT)
                .expireAfterWrite(LONGEST)
                .build();
    }

    /** Empty while the study is being prepared, as anything may change then. */
    private Optional<Key> key(StudyId study) {
        return graded.grading.round(study).map(r -> new Key(study, r.revision(), trials.soFar(study)));
    }

    EvidenceService(
            Trials trials,
            Answered answered,
            Graded graded,
            Studies studies,
            StudyPeople names,
            DeskTrials.Reading reading) {
        this.trials = trials;
        this.answered = answered;
        this.graded = graded;
        this.studies = studies;
        this.names = names;
        this.reading = reading;
    }

    /** Who answered what. */
    @Component
    record Answered(Candidates candidates, Prompts prompts, FactsOfAnswers answers) {}

    /** What raters gave and tried. */
    @Component
    record Graded(
            Recommendations recommendations,
            Grading grading,
            SaidOfAnswers said,
            Rubrics rubrics,
            TrialSeenRepository seen,
            OwnInputRepository inputs) {}

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public EvidenceReport of(StudyId study) {
        return key(study)
                .map(known -> Objects.requireNonNull(reports.get(known, k -> report(k.study))))
                .orElseGet(() -> report(study));
    }

    private EvidenceReport report(StudyId study) {
        EvidenceComputation.Basis basis = reading.snapshot().of(() -> basis(study));
        return reading.heavy().run(() -> EvidenceComputation.of(basis));
    }

    private EvidenceComputation.Basis basis(StudyId study) {
        List<PromptId> checked = trials.checked(study);
        Map<PromptId, PromptView> prompts = answered.prompts.sound(study).stream()
                .filter(p -> checked.contains(p.id()))
                .collect(Collectors.toMap(PromptView::id, p -> p));
        return new EvidenceComputation.Basis(
                studies.get(study).brief().raters().trials(),
                answered.candidates.heads(study).stream()
                        .map(c -> new EvidenceReport.EvidenceCandidate(c.id(), c.name()))
                        .toList(),
                prompts,
                checked.isEmpty()
                        ? List.of()
                        : answered.answers.ofStudy(study).stream()
                                .filter(a -> prompts.containsKey(a.promptId()))
                                .toList(),
                trials.ofStudy(study));
    }

    /** @throws org.mossbank.server.shared.Problem 409 before grading has ended */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public GradedEvidence graded(StudyId study) {
        graded.recommendations.requireEnded(study);
        return key(study)
                .map(known -> Objects.requireNonNull(gradedReports.get(known, k -> gradedReport(k.study))))
                .orElseGet(() -> gradedReport(study));
    }

    private GradedEvidence gradedReport(StudyId study) {
        GradedComputation.Basis basis = reading.snapshot().of(() -> gradedBasis(study));
        return reading.heavy().run(() -> GradedComputation.of(basis));
    }

    private GradedComputation.Basis gradedBasis(StudyId study) {
        StudyView view = studies.get(study);
        RuleTerms.GateTerms gate = view.brief().rule().gate();
        CriterionView criterion = CriterionView.spokenFor(
                        graded.rubrics.ofStudy(study), gate == null ? null : gate.criterion())
                .orElse(null);
        Set<PromptId> sound = new HashSet<>(answered.prompts.soundIds(study));
        List<AnswerFacts> answers = answered.answers.ofStudy(study).stream()
                .filter(a -> sound.contains(a.promptId()))
                .toList();
        List<SentGrade> grades = criterion == null
                ? List.of()
                : graded.grading.sentGrades(study).stream()
                        .filter(g -> g.criterionId().equals(criterion.id()))
                        .toList();
        Map<AnswerId, TriedAnswer> tried = trials.ofStudy(study);
        List<SaidOfAnswers.WhySaid> whys = graded.said.whys(study);
        Map<AccountId, Integer> inputs = graded.inputs.times(study).stream()
                .collect(Collectors.toMap(OwnInputRepository.Times::raterId, t -> (int) t.times()));
        Set<AccountId> people = new HashSet<>(inputs.keySet());
        grades.forEach(g -> people.add(g.raterId()));
        whys.forEach(w -> people.add(w.raterId()));
        tried.values().forEach(t -> t.repairs().forEach(r -> people.add(r.by().authorId())));
        return new GradedComputation.Basis(
                view.brief().raters().trials(),
                criterion,
                grades,
                answers,
                tried,
                whys,
                graded.seen.ofStudy(study).stream().map(TrialSeen::seen).toList(),
                names.of(study, List.copyOf(people)).entrySet().stream()
                        .collect(Collectors.toMap(
                                Map.Entry::getKey, e -> e.getValue().displayName())),
                inputs);
    }
}
