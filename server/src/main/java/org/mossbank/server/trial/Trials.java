package org.mossbank.server.trial;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.mossbank.core.trial.RepeatedTrials;
import org.mossbank.core.trial.TrialOutcome;
import org.mossbank.core.trial.TrialSummary;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.study.Studies;
import org.mossbank.server.trial.Repairs.RepairMade;
import org.mossbank.server.trial.picture.PagePictures;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What trials say of answers, for other modules. */
@Service
@Transactional(readOnly = true)
public class Trials {
    private final TrialRepository trials;
    private final RepairRepository repairs;
    private final PromptCheckRepository checks;
    private final PagePictures pictures;

    Trials(TrialRepository trials, RepairRepository repairs, PromptCheckRepository checks, PagePictures pictures) {
        this.pictures = pictures;
        this.trials = trials;
        this.repairs = repairs;
        this.checks = checks;
    }

    /** Nothing is tried for a study that nobody sees. */
    @SystemOnly
    @EventListener
    @Transactional
    public void stop(Studies.StudyDeleted deleted) {
        trials.stop(deleted.studyId());
    }

    /** What a prompt asks of an answer's code; empty if it asks nothing. */
    @SystemOnly
    public Optional<CheckContent> check(PromptId prompt) {
        return checks.findById(prompt).map(PromptCheck::content);
    }

    /** Those prompts of a study that have a check. */
    @SystemOnly
    public List<PromptId> checked(StudyId study) {
        return checks.digests(study).stream()
                .map(PromptCheckRepository.Digest::promptId)
                .toList();
    }

    /** Those answers that were tried. */
    @SystemOnly
    public Map<AnswerId, TriedAnswer> ofAnswers(Collection<AnswerId> answers) {
        return answers.isEmpty() ? Map.of() : tried(trials.ended(answers), repairs.ofAnswers(answers));
    }

    /** Those answers of a study that were tried. */
    @SystemOnly
    public Map<AnswerId, TriedAnswer> ofStudy(StudyId study) {
        return tried(trials.ended(study), repairs.current(study));
    }

    /**
     * How much there is of a study's evidence: it is only ever added to once the round is open.
     *
     * @param ended   trials; one that was begun before the round was opened may end after it
     * @param repairs that people made
     */
    public record EvidenceSoFar(long ended, long repairs) {}

    @SystemOnly
    public EvidenceSoFar soFar(StudyId study) {
        return new EvidenceSoFar(
                trials.countByStudyIdAndState(study, Trial.State.ENDED), repairs.countByStudyId(study));
    }

    /** What came of the last turn of answers, item by item; of several trials the one that ended worst. */
    @SystemOnly
    public Map<AnswerId, TrialResult> results(Collection<AnswerId> answers) {
        Map<AnswerId, TrialResult> results = new HashMap<>();
        told(answers)
                .forEach(trial -> Optional.ofNullable(trial.result())
                        .ifPresent(r -> results.put(trial.subject().answerId(), r)));
        return results;
    }

    /**
     * A picture of an answer's page, of the trial that {@link #results} tells of.
     *
     * @param place in the order in which the result tells of them
     * @return PNG
     */
    @SystemOnly
    public Optional<byte[]> picture(AnswerId answer, int place) {
        return told(List.of(answer)).stream().findFirst().flatMap(t -> pictures.ofTrial(t.id(), place));
    }

    private List<Trial> told(Collection<AnswerId> answers) {
        if (answers.isEmpty()) {
            return List.of();
        }
        List<UUID> told = trials.ended(answers).stream()
                .collect(Collectors.groupingBy(TrialRepository.Ended::answerId))
                .values()
                .stream()
                .flatMap(ended -> ended.stream()
                        .max(Comparator.comparingInt(TrialRepository.Ended::turn)
                                .thenComparing(TrialRepository.Ended::outcome, Comparator.reverseOrder())
                                .thenComparing(TrialRepository.Ended::repetition, Comparator.reverseOrder()))
                        .stream())
                .map(TrialRepository.Ended::id)
                .toList();
        return trials.findAllById(told);
    }

    private static Map<AnswerId, TriedAnswer> tried(List<TrialRepository.Ended> ended, List<Repair> made) {
        Map<AnswerId, List<RepairMade>> byAnswer =
                made.stream().map(Repair::made).collect(Collectors.groupingBy(RepairMade::answerId));
        Map<AnswerId, TriedAnswer> tried = new LinkedHashMap<>();
        ended.stream()
                .collect(
                        Collectors.groupingBy(TrialRepository.Ended::answerId, LinkedHashMap::new, Collectors.toList()))
                .forEach((answer, of) -> tried.put(
                        answer,
                        new TriedAnswer(
                                of.get(0).promptId(), answer, turns(of), byAnswer.getOrDefault(answer, List.of()))));
        return tried;
    }

    private static List<TriedAnswer.TurnTried> turns(List<TrialRepository.Ended> ended) {
        Map<Integer, List<TrialRepository.Ended>> byTurn = ended.stream()
                .collect(Collectors.groupingBy(
                        TrialRepository.Ended::turn, java.util.TreeMap::new, Collectors.toList()));
        List<TriedAnswer.TurnTried> turns = new ArrayList<>();
        byTurn.forEach((turn, of) -> {
            List<TrialOutcome> outcomes =
                    of.stream().map(TrialRepository.Ended::outcome).toList();
            TrialRepository.Ended worst = of.stream()
                    .min(Comparator.comparing(TrialRepository.Ended::outcome))
                    .orElseThrow();
            turns.add(new TriedAnswer.TurnTried(
                    turn,
                    new RepeatedTrials(outcomes),
                    new TrialSummary(worst.outcome(), worst.passed(), worst.asked()),
                    worst.warnings(),
                    worst.deprecations(),
                    worst.broken(),
                    worst.mended()));
        });
        return turns;
    }
}
