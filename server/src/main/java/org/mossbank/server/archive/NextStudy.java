package org.mossbank.server.archive;

import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.candidate.CandidateRows.KeyedCandidate;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.masking.MaskRows.KeyedMasks;
import org.mossbank.server.prompt.PromptRows.KeyedPrompt;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.recommendation.Recommendations;
import org.mossbank.server.rubric.KeyedVersion;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.PeopleRows.KeyedPeople;
import org.mossbank.server.study.PeopleRows.KeyedRater;
import org.mossbank.server.study.StudyPeople;
import org.mossbank.server.succession.Before;
import org.mossbank.server.succession.Successions;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/**
 * Begins the next study from one whose grading has ended: the same prompts, rubric, rule and raters, and a share of the old answers to be
 * graded again, blind among the new ones.
 */
@Service
class NextStudy {
    private final StudyExport export;
    private final ArchiveLoader loader;
    private final Recommendations recommendations;
    private final Successions successions;
    private final Candidates candidates;
    private final Prompts prompts;
    private final CurrentAccount current;
    private final Means means;

    NextStudy(
            StudyExport export,
            ArchiveLoader loader,
            Recommendations recommendations,
            Successions successions,
            Candidates candidates,
            Prompts prompts,
            CurrentAccount current,
            Means means) {
        this.export = export;
        this.loader = loader;
        this.recommendations = recommendations;
        this.successions = successions;
        this.candidates = candidates;
        this.prompts = prompts;
        this.current = current;
        this.means = means;
    }

    /** With what it is done. */
    @Component
    record Means(HeavyWork heavy, Clock clock, StudyPeople people) {}

    /**
     * @param title        of the next study
     * @param candidateIds who takes part again, with all settings; others are left out
     * @param share        of the prompts of each kind to which their old answers are graded again
     * @param raters       whether the same people are asked to grade
     */
    record BeginNext(
            @NotBlank @Size(max = 200) String title,
            @NotNull @Size(max = 60) List<@NotNull CandidateId> candidateIds,
            @DecimalMin("0") @DecimalMax("1") double share,
            boolean raters) {}

    /** @param carried old answers that are graded again */
    record Begun(StudyId studyId, int carried) {}

    /** @throws Problem 400 for a candidate of another study; 409 before grading has ended */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public Begun begin(StudyId study, BeginNext request) {
        recommendations.requireEnded(study);
        Set<String> again = again(study, request);
        StudyArchive old = export.here(study);
        long seed = ArchiveService.freshSeed();
        Set<String> carried = carried(old, again, request.share, new Random(seed));
        Set<String> staying = request.raters ? means.people.staying(study) : Set.of();
        Map<String, String> raters = new TreeMap<>();
        old.people().raters().forEach(r -> raters.put(r.signInName(), r.name()));
        Before before = successions.remember(study, old.head().title(), raters, carried);
        ArchiveLoader.Weighed next = means.heavy.run(
                () -> ArchiveLoader.Weighed.of(next(old, request, staying, again, carried, before, seed)));
        StudyId begun = loader.load(next, current.id()).studyId();
        means.people.showAsIn(study, begun);
        prompts.keepFromBankAlike(study, begun);
        return new Begun(begun, carried.size());
    }

    private Set<String> again(StudyId study, BeginNext request) {
        Map<CandidateId, String> keys =
                candidates.ofStudy(study).stream().collect(Collectors.toMap(CandidateView::id, CandidateView::key));
        if (!keys.keySet().containsAll(request.candidateIds)) {
            throw Problem.invalid("candidateIds", "must be candidates of this study");
        }
        return request.candidateIds.stream().map(keys::get).collect(Collectors.toSet());
    }

    private static boolean counts(KeyedPrompt prompt) {
        return prompt.fault() == null && prompt.calibration() == null;
    }

    /** The same prompts for all of them, a share of each kind and one at least, wordings of one together. */
    private static Set<String> carried(StudyArchive old, Set<String> again, double share, Random random) {
        if (share == 0) {
            return Set.of();
        }
        Map<String, List<String>> families = new TreeMap<>();
        old.prompts().stream()
                .filter(p -> counts(p) && p.variantOf() == null)
                .forEach(p -> families.computeIfAbsent(p.kind(), k -> new ArrayList<>())
                        .add(p.key()));
        Set<String> drawn = new HashSet<>();
        for (List<String> ofKind : families.values()) {
            Collections.shuffle(ofKind, random);
            drawn.addAll(ofKind.subList(0, Math.max(1, (int) Math.round(share * ofKind.size()))));
        }
        Set<String> asked = old.prompts().stream()
                .filter(p -> counts(p) && drawn.contains(p.variantOf() == null ? p.key() : p.variantOf()))
                .map(KeyedPrompt::key)
                .collect(Collectors.toSet());
        return old.answers().stream()
                .filter(a -> asked.contains(a.prompt()) && again.contains(a.candidate()))
                .map(Answers.NewAnswer::key)
                .collect(Collectors.toSet());
    }

    private StudyArchive next(
            StudyArchive old,
            BeginNext request,
            Set<String> staying,
            Set<String> again,
            Set<String> carried,
            Before before,
            long seed) {
        StudyArchive.Head head = old.head();
        // Whoever has left is not asked again.
        Set<String> raters = old.people().raters().stream()
                .filter(r -> !r.lead() && staying.contains(r.signInName()))
                .map(KeyedRater::signInName)
                .collect(Collectors.toSet());
        return new StudyArchive(
                new StudyArchive.Head(
                        request.title.strip(),
                        head.brief(),
                        true,
                        null,
                        null,
                        List.of(),
                        seed,
                        head.mostFollowUps(),
                        new KeyedVersion.Head(1, means.clock.instant(), ""),
                        StudyArchive.RoundHead.NONE),
                old.kinds(),
                old.prompts().stream()
                        .filter(NextStudy::counts)
                        .map(p -> p.writtenBy(stillThere(p.author(), raters)))
                        .toList(),
                old.candidates().stream()
                        .filter(c -> again.contains(c.key()))
                        .map(c -> ofPerson(c, raters))
                        .toList(),
                of(old.sources(), again),
                old.answers().stream().filter(a -> carried.contains(a.key())).toList(),
                List.of(),
                List.of(),
                new KeyedMasks(old.masking().words(), of(old.masking().masks(), carried)),
                new KeyedVersion(
                        new KeyedVersion.Head(1, means.clock.instant(), ""),
                        old.rubric().criteria()),
                List.of(),
                new KeyedPeople(
                        old.people().raters().stream()
                                .filter(r -> raters.contains(r.signInName()))
                                .toList(),
                        List.of()),
                List.of(),
                List.of(),
                RecordParts.Kept.begun(
                        before,
                        old.kept()
                                .asides()
                                .evidence()
                                .checksOf(old.prompts().stream()
                                        .filter(NextStudy::counts)
                                        .map(KeyedPrompt::key)
                                        .collect(Collectors.toSet())::contains)));
    }

    private static KeyedCandidate ofPerson(KeyedCandidate candidate, Set<String> raters) {
        return new KeyedCandidate(candidate.key(), candidate.content(), stillThere(candidate.person(), raters));
    }

    /** Whose own work it is, where they grade again; nobody is kept from it else. */
    private static @Nullable String stillThere(@Nullable String person, Set<String> raters) {
        return person != null && raters.contains(person) ? person : null;
    }

    private static <T> SortedMap<String, T> of(Map<String, T> all, Set<String> keys) {
        TreeMap<String, T> some = new TreeMap<>(new HashMap<>(all));
        some.keySet().retainAll(keys);
        return some;
    }
}
