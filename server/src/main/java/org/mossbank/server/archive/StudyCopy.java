package org.mossbank.server.archive;

import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.audit.Audit;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.candidate.CandidateRows.KeyedCandidate;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.masking.MaskRows.KeyedMasks;
import org.mossbank.server.prompt.PromptRows.KeyedPrompt;
import org.mossbank.server.rubric.KeyedVersion;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.study.PeopleRows.KeyedPeople;
import org.mossbank.server.study.StudyPeople;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** A second study from what one was prepared with; nobody has graded in it, and nobody is asked to. */
@Service
class StudyCopy {
    private final StudyExport export;
    private final ArchiveLoader loader;
    private final CurrentAccount current;
    private final HeavyWork heavy;
    private final Audit audit;
    private final Clock clock;
    private final StudyPeople people;

    StudyCopy(
            StudyExport export,
            ArchiveLoader loader,
            CurrentAccount current,
            HeavyWork heavy,
            Audit audit,
            Clock clock,
            StudyPeople people) {
        this.people = people;
        this.export = export;
        this.loader = loader;
        this.current = current;
        this.heavy = heavy;
        this.audit = audit;
        this.clock = clock;
    }

    /** @param answers whether the answers come along, with what masks them */
    record CopyStudy(@NotBlank @Size(max = 200) String title, boolean answers) {}

    /** The second study. */
    record Copied(StudyId studyId) {}

    @PreAuthorize("@studyAccess.mayPrepare(#study) and @studyAccess.mayBringIn()")
    @Transactional(propagation = Propagation.NEVER)
    public Copied copy(StudyId study, CopyStudy request) {
        StudyArchive old = export.of(study);
        ArchiveLoader.Weighed copy = heavy.run(() -> ArchiveLoader.Weighed.of(of(old, request)));
        StudyId made = loader.load(copy, current.id()).studyId();
        people.showAsIn(study, made);
        audit.keep(AuditSort.STUDY_DUPLICATED, made, request.title.strip());
        return new Copied(made);
    }

    /** Prompts that were set aside, and those that raters calibrated by, stay where they are. */
    private static boolean counts(KeyedPrompt prompt) {
        return prompt.fault() == null && prompt.calibration() == null;
    }

    private StudyArchive of(StudyArchive old, CopyStudy request) {
        StudyArchive.Head head = old.head();
        Set<String> prompts = old.prompts().stream()
                .filter(StudyCopy::counts)
                .map(KeyedPrompt::key)
                .collect(Collectors.toSet());
        List<Answers.NewAnswer> answers = request.answers
                ? old.answers().stream()
                        .filter(a -> prompts.contains(a.prompt()))
                        .toList()
                : List.of();
        Set<String> kept = answers.stream().map(Answers.NewAnswer::key).collect(Collectors.toSet());
        KeyedVersion.Head first = new KeyedVersion.Head(1, clock.instant(), "");
        return new StudyArchive(
                new StudyArchive.Head(
                        request.title.strip(),
                        head.brief(),
                        true,
                        null,
                        null,
                        List.of(),
                        ArchiveService.freshSeed(),
                        head.mostFollowUps(),
                        first,
                        StudyArchive.RoundHead.NONE),
                old.kinds(),
                // People are not of the copy: nobody is kept from what they wrote.
                old.prompts().stream()
                        .filter(StudyCopy::counts)
                        .map(p -> p.writtenBy(null))
                        .toList(),
                old.candidates().stream()
                        .map(c -> new KeyedCandidate(c.key(), c.content(), null))
                        .toList(),
                old.sources(),
                answers,
                List.of(),
                List.of(),
                new KeyedMasks(old.masking().words(), of(old.masking().masks(), kept)),
                new KeyedVersion(first, old.rubric().criteria()),
                List.of(),
                new KeyedPeople(List.of(), List.of()),
                List.of(),
                List.of(),
                RecordParts.Kept.copied(old.kept().asides().evidence().checksOf(prompts::contains)));
    }

    private static <T> TreeMap<String, T> of(Map<String, T> all, Set<String> keys) {
        TreeMap<String, T> some = new TreeMap<>(all);
        some.keySet().retainAll(keys);
        return some;
    }
}
