package org.mossbank.server.readback;

import jakarta.persistence.EntityManager;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.prompt.StartingFile;
import org.mossbank.server.prompt.check.PromptCheck;
import org.mossbank.server.prompt.check.PromptWarning;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.RoundStage;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyPeople;
import org.mossbank.server.study.StudyView;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Prompts tried by a second developer, who says what they think is asked. */
@Service
@Transactional(readOnly = true)
class ReadBackService {
    /** Readings that cannot be answered any more. */
    private static final int MOST_OVER = 20;

    private final Prompts prompts;
    private final ReadBackRepository readBacks;
    private final Studies studies;
    private final StudyPeople people;
    private final CurrentAccount current;
    private final EntityManager entities;
    private final Clock clock;

    ReadBackService(
            Prompts prompts,
            ReadBackRepository readBacks,
            Studies studies,
            StudyPeople people,
            CurrentAccount current,
            EntityManager entities,
            Clock clock) {
        this.prompts = prompts;
        this.readBacks = readBacks;
        this.studies = studies;
        this.people = people;
        this.current = current;
        this.entities = entities;
        this.clock = clock;
    }

    /** A reading as the lead sees it; without an answer, it is still awaited. */
    record ReadBackView(
            UUID id,
            PromptId promptId,
            AccountId readerId,
            String reader,
            Instant askedAt,
            @Nullable String answer,
            @Nullable Instant answeredAt,
            @Nullable ReadBackVerdict verdict) {}

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public List<ReadBackView> ofStudy(StudyId study) {
        List<ReadBack> all = readBacks.findByPromptIdInOrderByAskedAt(
                prompts.ofStudy(study).stream().map(PromptView::id).toList());
        Map<AccountId, AccountView> readers =
                people.of(study, all.stream().map(ReadBack::readerId).distinct().toList());
        return all.stream()
                .map(r -> view(r, Require.known(readers, r.readerId())))
                .toList();
    }

    private static ReadBackView view(ReadBack readBack, AccountView reader) {
        ReadBacks.ReadBackRecord record = readBack.toRecord();
        return new ReadBackView(
                readBack.id(),
                record.promptId(),
                record.readerId(),
                reader.displayName(),
                record.askedAt(),
                record.answer(),
                record.answeredAt(),
                record.verdict());
    }

    record AskReader(@NotNull AccountId readerId) {}

    /** Asks somebody of the study to read a prompt back. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public ReadBackView ask(StudyId study, PromptId promptId, AskReader request) {
        studies.requirePreparing(study);
        if (!isOf(study, promptId)) {
            throw Problem.notFound("This prompt");
        }
        if (!studies.members(study).containsKey(request.readerId())) {
            throw Problem.invalid("readerId", "must belong to the study");
        }
        if (readBacks.existsByPromptIdAndReaderId(promptId, request.readerId())) {
            throw Problem.invalid("readerId", "was asked already");
        }
        ReadBack asked = ReadBack.of(
                new ReadBacks.ReadBackRecord(promptId, request.readerId(), clock.instant(), null, null, null));
        entities.persist(asked);
        return view(asked, Require.known(people.of(study, List.of(request.readerId())), request.readerId()));
    }

    private boolean isOf(StudyId study, PromptId prompt) {
        return prompts.studyOf(prompt).filter(study::equals).isPresent();
    }

    record JudgeReading(@Nullable ReadBackVerdict verdict) {}

    /** Says whether a reader took the prompt as it was meant. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public ReadBackView judge(StudyId study, UUID id, JudgeReading request) {
        ReadBack found = readBacks
                .findById(id)
                .filter(r -> isOf(study, r.promptId()))
                .orElseThrow(() -> Problem.notFound("This reading"));
        if (request.verdict() != null && !found.isAnswered()) {
            throw Problem.invalid("verdict", "needs a reading to judge");
        }
        found.judge(request.verdict());
        return view(found, Require.known(people.of(study, List.of(found.readerId())), found.readerId()));
    }

    /** What a reader is asked to read: neither key points nor the reference answer. */
    record Reading(
            UUID id,
            String studyTitle,
            String title,
            String language,
            String request,
            List<String> constraints,
            List<StartingFile> startingFiles,
            @Nullable String answer,
            boolean open) {}

    /** What whoever asks was given to read, newest last: all that can still be answered, and the last of the others. */
    @PreAuthorize("isAuthenticated()")
    public List<Reading> mine() {
        List<ReadBack> all = readBacks.findByReaderIdOrderByAskedAt(current.id());
        Set<UUID> open = open(all);
        List<ReadBack> over = all.stream().filter(r -> !open.contains(r.id())).toList();
        Set<ReadBack> old = Set.copyOf(over.subList(0, Math.max(0, over.size() - MOST_OVER)));
        return readings(all.stream().filter(r -> !old.contains(r)).toList(), open);
    }

    /** Those of them whose studies are still being prepared. */
    private Set<UUID> open(List<ReadBack> some) {
        Map<PromptId, StudyId> studyOf = prompts.studiesOf(promptIds(some));
        Map<StudyId, RoundStage.Stage> stages = studies.stages(Set.copyOf(studyOf.values()));
        return some.stream()
                .filter(r -> stages.get(studyOf.get(r.promptId())) == RoundStage.Stage.PREPARING)
                .map(ReadBack::id)
                .collect(Collectors.toSet());
    }

    private List<Reading> readings(List<ReadBack> some, Set<UUID> open) {
        Map<PromptId, Prompts.Placed> placed = prompts.placed(promptIds(some));
        Map<StudyId, StudyView> views = studies.byId(
                placed.values().stream().map(Prompts.Placed::study).distinct().toList());
        return some.stream()
                .map(r -> {
                    Prompts.Placed prompt = Require.known(placed, r.promptId());
                    String title = Require.known(views, prompt.study()).title();
                    return reading(r, title, prompt.content(), open.contains(r.id()));
                })
                .toList();
    }

    private static List<PromptId> promptIds(List<ReadBack> some) {
        return some.stream().map(ReadBack::promptId).distinct().toList();
    }

    private static Reading reading(ReadBack readBack, String studyTitle, PromptContent content, boolean open) {
        return new Reading(
                readBack.id(),
                studyTitle,
                content.title(),
                content.language(),
                content.request(),
                content.constraints(),
                content.startingFiles(),
                readBack.toRecord().answer(),
                open);
    }

    record SayBack(@NotBlank @Size(max = 4000) String answer) {}

    /** @throws Problem 404 unless it was given to whoever asks; 409 once the round was opened */
    @PreAuthorize("isAuthenticated()")
    @Transactional
    public Reading answer(UUID id, SayBack request) {
        ReadBack own = readBacks
                .findById(id)
                .filter(r -> r.readerId().equals(current.id()))
                .orElseThrow(() -> Problem.notFound("This reading"));
        studies.requirePreparing(prompts.studyOf(own.promptId()).orElseThrow());
        own.answer(request.answer().strip(), clock.instant());
        return readings(List.of(own), Set.of(id)).get(0);
    }

    /** Warns of prompts that a reader took otherwise than meant. */
    @Component
    static class ReadBackCheck implements PromptCheck {
        private final ReadBacks readBacks;

        ReadBackCheck(ReadBacks readBacks) {
            this.readBacks = readBacks;
        }

        @Override
        public Function<PromptView, List<PromptWarning>> of(StudyId study) {
            Set<PromptId> unclear = readBacks.ofStudy(study).stream()
                    .filter(r -> r.verdict() == ReadBackVerdict.UNCLEAR)
                    .map(ReadBacks.ReadBackRecord::promptId)
                    .collect(Collectors.toSet());
            return prompt -> unclear.contains(prompt.id())
                    ? List.of(new PromptWarning("read-back-unclear", "A reader took it otherwise than it was meant."))
                    : List.of();
        }
    }
}
