package org.mossbank.server.grading;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.sent.SentGrades;
import org.mossbank.server.grading.sheet.Round;
import org.mossbank.server.grading.sheet.RoundRepository;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetCount;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.Chunks;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Rounds, sheets and grades, for other modules. */
@Service
@Transactional(readOnly = true)
public class Grading {
    private final RoundRepository rounds;
    private final SheetRepository sheets;
    private final Prompts prompts;
    private final SheetRecords records;
    private final RoundOpening opening;
    private final SentGrades sentGrades;
    private final ApplicationEventPublisher events;

    Grading(
            RoundRepository rounds,
            SheetRepository sheets,
            Prompts prompts,
            SheetRecords records,
            RoundOpening opening,
            SentGrades sentGrades,
            ApplicationEventPublisher events) {
        this.events = events;
        this.sentGrades = sentGrades;
        this.records = records;
        this.rounds = rounds;
        this.sheets = sheets;
        this.prompts = prompts;
        this.opening = opening;
    }

    /**
     * A sheet with all that is on it; places from 0.
     *
     * @param rubricVersion the version that it is graded by, where raters calibrate by it; absent for the one in use
     * @param withdrawn absent unless the lead withdrew it; then nothing on it counts
     */
    public record SheetRecord(
            AccountId raterId,
            PromptId promptId,
            int place,
            boolean repeat,
            @Nullable Integer rubricVersion,
            @Nullable Instant sentAt,
            @Nullable Withdrawn withdrawn,
            List<AnswerRecord> answers) {
        /** A sheet on which nothing is said yet, graded by the version in use. */
        public static SheetRecord blank(AccountId raterId, PromptId promptId, int place, boolean repeat) {
            return new SheetRecord(raterId, promptId, place, repeat, null, null, null, List.of());
        }

        public SheetRecord with(List<AnswerRecord> other) {
            return new SheetRecord(raterId, promptId, place, repeat, rubricVersion, sentAt, withdrawn, other);
        }

        SheetRecord after(int places) {
            return new SheetRecord(
                    raterId, promptId, places + place, repeat, rubricVersion, sentAt, withdrawn, answers);
        }

        public SheetRecord by(int version) {
            return new SheetRecord(raterId, promptId, place, repeat, version, sentAt, withdrawn, answers);
        }
    }

    /** When and why the lead withdrew a sheet. */
    public record Withdrawn(Instant at, String reason) {}

    /**
     * What a rater says of one answer.
     *
     * @param place    on the sheet, from 0
     * @param marks    by criterion
     * @param coverage by key point, from 0
     */
    public record AnswerRecord(
            AnswerId answerId,
            int place,
            String reason,
            Map<CriterionId, Mark> marks,
            Judgement judgement,
            Map<Integer, Verdict> coverage,
            List<RemarkContent> remarks) {
        /** An answer of which nothing is said yet. */
        public static AnswerRecord blank(AnswerId answerId, int place) {
            return new AnswerRecord(answerId, place, "", Map.of(), Judgement.NONE, Map.of(), List.of());
        }
    }

    /**
     * What a rater says of an answer as a whole.
     *
     * @param worksWhy   why they say otherwise than trials do; empty if they did not say
     * @param preference place in the order of preference, from 1
     * @param activeMs   how long it was looked at, in milliseconds; 0 if that was not measured
     */
    public record Judgement(
            @Nullable Works works,
            String worksWhy,
            @Nullable Integer preference,
            @Nullable Guess guess,
            long activeMs) {
        public static final Judgement NONE = new Judgement(null, "", null, null, 0);
    }

    /** How the round was planned, and from when to when it runs. */
    public record NewRound(
            Instant openedAt,
            @Nullable Instant closedAt,
            @Nullable Instant namesOpenedAt,
            @Nullable Integer ratersAnAnswer,
            @Nullable Double repeatShare,
            boolean leadWasBlind) {}

    /**
     * The round as it stands.
     *
     * @param revision     counts up with everything that figures are computed from
     * @param namesOpenedAt when it was closed for the first time, from when on raters knew names
     * @param leadWasBlind whether the lead graded, and saw no more than a rater meanwhile
     */
    public record RoundState(
            Instant openedAt,
            @Nullable Instant closedAt,
            @Nullable Instant namesOpenedAt,
            long revision,
            @Nullable Integer ratersAnAnswer,
            @Nullable Double repeatShare,
            boolean leadWasBlind) {
        /** Whether nothing is graded any more, unless it is opened again. */
        public boolean hasEnded() {
            return closedAt != null;
        }
    }

    /**
     * Lays sheets before raters that count for no figure; the round stays as it is, opened or not.
     *
     * @param starts after the sheets that their raters have; places of each rater's from 0
     */
    @SystemOnly
    @Transactional
    public void calibrate(StudyId study, List<SheetRecord> starts) {
        opening.calibrate(study, starts);
    }

    /** Tells that a rater is about to get their first sheets, so that they calibrate before. */
    @SystemOnly
    @Transactional
    public void comesIn(StudyId study, AccountId rater) {
        events.publishEvent(new RaterComesIn(study, rater));
    }

    /** Opens the round with its sheets, empty or partly graded; a closing time makes it a closed one. */
    @SystemOnly
    @Transactional
    public void open(StudyId study, NewRound round, List<SheetRecord> starts) {
        opening.open(study, round, starts);
    }

    /** The round, if it was opened; raters who only calibrate so far have none. */
    @SystemOnly
    public Optional<RoundState> round(StudyId study) {
        return rounds.findById(study).flatMap(Round::state);
    }

    /** How many sheets there are, and how many of them are sent in. */
    public record SheetTotals(int sent, int sheets) {}

    /** Of sheets for sound prompts that were not withdrawn. */
    @SystemOnly
    public SheetTotals totals(StudyId study) {
        return sheets.totals(study, sound(study));
    }

    private List<PromptId> sound(StudyId study) {
        return prompts.soundIds(study);
    }

    /** How many sheets that count were sent in after a moment. */
    @SystemOnly
    public int sentAfter(StudyId study, Instant moment) {
        return sheets.countSentAfter(study, sound(study), moment);
    }

    /** How many first sheets for sound prompts were withdrawn, and count nowhere. */
    @SystemOnly
    public int withdrawn(StudyId study) {
        return sheets.countWithdrawn(study, sound(study));
    }

    /** Grades on sheets that were sent in for sound prompts, in a stable order; repeats are left out. */
    @SystemOnly
    public List<SentGrade> sentGrades(StudyId study) {
        return sentGrades.of(study, sound(study), false);
    }

    /** Where and when each answer to a sound prompt was graded, in a stable order; repeats are left out. */
    @SystemOnly
    public List<SentPlace> sentPlaces(StudyId study) {
        return sheets.sentPlaces(study, sound(study));
    }

    /** Grades on repeats that were sent in: what self-agreement sets against the first ones. */
    @SystemOnly
    public List<SentGrade> repeatGrades(StudyId study) {
        return sentGrades.of(study, sound(study), true);
    }

    /** How far apart repeats came, of sound prompts. */
    @SystemOnly
    public List<RepeatDistance> repeatDistances(StudyId study) {
        return sheets.repeatDistances(study, sound(study));
    }

    /** How many raters have sent in a sheet with each answer to a sound prompt; answers that none has are left out. */
    @SystemOnly
    public Map<AnswerId, Long> ratersByAnswer(StudyId study) {
        return SheetCount.byId(sheets.ratersByAnswer(study, sound(study)));
    }

    /** Every sheet with all that is on it, by rater and place. */
    @SystemOnly
    public List<SheetRecord> records(StudyId study) {
        return records.ofStudy(study);
    }

    /** The sheets on which answers to one prompt came a second time, sent in; how long each was looked at is left out. */
    @SystemOnly
    public List<SheetRecord> sentAgain(StudyId study, PromptId prompt) {
        return records.sentFor(study, prompt, true);
    }

    /** Answers on sheets for some prompts, each with its prompt. */
    @SystemOnly
    public Map<AnswerId, PromptId> answersOn(StudyId study, Collection<PromptId> some) {
        return sheets.answersOn(study, some).stream()
                .collect(Collectors.toMap(
                        SheetRepository.SentAnswer::answerId, SheetRepository.SentAnswer::promptId, (a, b) -> a));
    }

    /** A sheet without what is said on it. */
    public record SheetState(AccountId raterId, PromptId promptId, boolean repeat, boolean sent) {}

    /** Sheets for some prompts that were not withdrawn. */
    @SystemOnly
    public List<SheetState> sheetsFor(Collection<PromptId> some) {
        return sheets.findByPromptIdIn(some).stream()
                .filter(s -> !s.isWithdrawn())
                .map(s -> new SheetState(s.raterId(), s.promptId(), s.isRepeat(), s.isSent()))
                .toList();
    }

    /** The first sheets for one prompt that were sent in; how long each answer was looked at is left out. */
    @SystemOnly
    public List<SheetRecord> sentRecords(StudyId study, PromptId prompt) {
        return records.sentFor(study, prompt, false);
    }

    /** Answers to sound prompts that a rater graded on sheets that count, each with its prompt. */
    @SystemOnly
    public Map<AnswerId, PromptId> answersSentBy(Collection<StudyId> studies, AccountId rater) {
        Set<PromptId> left = prompts.notCounting(studies);
        return sheets.answersSentBy(studies, rater).stream()
                .filter(a -> !left.contains(a.promptId()))
                .collect(Collectors.toMap(
                        SheetRepository.SentAnswer::answerId, SheetRepository.SentAnswer::promptId, (a, b) -> a));
    }

    /** An answer's prompt, and how many raters have sent in a sheet with it. */
    public record Graded(PromptId promptId, long raters) {}

    /** Those of some answers that answer sound prompts of these studies, and that somebody has graded. */
    @SystemOnly
    public Map<AnswerId, Graded> gradedAnswers(Collection<StudyId> studies, Collection<AnswerId> some) {
        Set<PromptId> left = prompts.notCounting(studies);
        return Chunks.of(some, sheets::gradedAnswers).stream()
                .filter(a -> !left.contains(a.promptId()))
                .collect(Collectors.toMap(
                        SheetRepository.GradedAnswer::answerId, g -> new Graded(g.promptId(), g.raters())));
    }

    /** Raters who have, or had, a sheet for a prompt. */
    @SystemOnly
    public Set<AccountId> ratersOf(StudyId study, PromptId prompt) {
        return sheets.findByStudyIdAndPromptId(study, prompt).stream()
                .map(Sheet::raterId)
                .collect(Collectors.toSet());
    }

    /** A sheet for a sound prompt that is not sent in. */
    public record Unsent(StudyId studyId, AccountId raterId, PromptId promptId) {}

    @SystemOnly
    public List<Unsent> unsent(Collection<StudyId> studies) {
        Set<PromptId> left = prompts.notCounting(studies);
        return sheets.unsent(studies).stream()
                .filter(s -> !left.contains(s.promptId()))
                .toList();
    }

    /**
     * Holds the round open until the transaction ends.
     *
     * @throws Problem 409 if it was not opened, or is closed
     */
    @SystemOnly
    @Transactional
    public void requireOpen(StudyId study) {
        rounds.lock(study)
                .filter(Round::isOpened)
                .orElseThrow(() -> new Problem(ProblemType.NOT_READY, "No round has been opened."))
                .refuseIfClosed();
    }
}
