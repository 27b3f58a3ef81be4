package org.mossbank.server.archive;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.change.ChangeSize;
import org.mossbank.core.change.ComparisonBudget;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.candidate.CandidateContent;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.Guess;
import org.mossbank.server.grading.Mark;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.CriterionContent;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.study.Declared;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Writes a checked archive to the database, whole or not at all. */
@Service
class ArchiveLoader {
    private final Accounts accounts;
    private final Studies studies;
    private final Prompts prompts;
    private final Candidates candidates;
    private final Answers answers;
    private final CollectionLoader collecting;
    private final Masking masking;
    private final Rubrics rubrics;
    private final Grading grading;
    private final Clock clock;

    ArchiveLoader(
            Accounts accounts,
            Studies studies,
            Prompts prompts,
            Candidates candidates,
            Answers answers,
            CollectionLoader collecting,
            Masking masking,
            Rubrics rubrics,
            Grading grading,
            Clock clock) {
        this.accounts = accounts;
        this.studies = studies;
        this.prompts = prompts;
        this.candidates = candidates;
        this.answers = answers;
        this.collecting = collecting;
        this.masking = masking;
        this.rubrics = rubrics;
        this.grading = grading;
        this.clock = clock;
    }

    /**
     * What loading made: the study, and its raters as accounts, in the archive's order; a lead who graded is none.
     *
     * @param asked those who have accounts of their own and must accept first
     */
    record Loaded(UUID studyId, List<AccountView> raters, Set<UUID> asked) {}

    /** New ids by the archive's keys. */
    private record Ids(
            Map<String, UUID> people,
            Map<String, UUID> prompts,
            Map<String, UUID> candidates,
            Map<String, UUID> answers,
            Map<String, UUID> criteria) {
        @Nullable
        UUID person(@Nullable String key) {
            return key == null ? null : people.get(key);
        }
    }

    /**
     * An archive with how much each answer changes in the starting code, by the answer's key.
     */
    record Weighed(StudyArchive archive, Map<String, ChangeSize> changed) {
        /** Slow, so before a transaction begins. */
        static Weighed of(StudyArchive archive) {
            Map<String, Map<String, String>> code = new HashMap<>();
            archive.prompts().forEach(p -> code.put(p.key(), p.content().startingCode()));
            ComparisonBudget budget = ComparisonBudget.ofRequest();
            Map<String, ChangeSize> changed = new HashMap<>();
            archive.answers()
                    .forEach(a ->
                            changed.put(a.key(), ChangeSize.of(code.get(a.prompt()), a.wholeText(), budget.within())));
            return new Weighed(archive, changed);
        }
    }

    @SystemOnly
    @Transactional
    public Loaded load(Weighed weighed, UUID lead) {
        StudyArchive archive = weighed.archive();
        Map<String, UUID> people = new LinkedHashMap<>();
        List<AccountView> raters = new ArrayList<>();
        Set<UUID> asked = new LinkedHashSet<>();
        for (StudyArchive.Rater rater : archive.people().raters()) {
            if (rater.lead()) {
                people.put(rater.signInName(), lead);
            } else {
                Accounts.Found found = accounts.findOrInvite(rater.signInName(), rater.name(), lead);
                raters.add(found.account());
                people.put(rater.signInName(), found.account().id());
                if (!found.invited()) {
                    asked.add(found.account().id());
                }
            }
        }
        UUID study = studies.create(start(archive, lead, people, asked));
        Map<String, UUID> kindIds = prompts.addKinds(study, archive.kinds());
        Map<String, UUID> promptIds = prompts.addPrompts(
                study, archive.prompts().stream().map(p -> prompt(p, people)).toList(), kindIds);
        Map<String, UUID> candidateIds = candidates.add(
                study,
                archive.candidates().stream().map(c -> candidate(c, people)).toList());
        answers.requireRoom(
                study,
                archive.answers().size(),
                archive.answers().stream()
                        .mapToLong(a -> a.wholeText().length())
                        .sum());
        Map<String, UUID> answerIds = answers.add(study, archive.answers(), promptIds, candidateIds, weighed.changed());
        collecting.add(study, archive.collection(), promptIds, candidateIds, answerIds);
        Map<UUID, List<Masking.Decided>> masks = new HashMap<>();
        archive.masking().masks().forEach((answer, decided) -> masks.put(answerIds.get(answer), decided));
        masking.add(study, archive.masking().words(), masks);
        archive.history().forEach(v -> rubrics.add(study, version(v, false, kindIds)));
        Map<String, UUID> criterionIds =
                rubrics.add(study, version(archive.rubric(), !archive.head().preparing(), kindIds));
        Ids ids = new Ids(people, promptIds, candidateIds, answerIds, criterionIds);
        prompts.addReadBacks(archive.people().readBacks().stream()
                .map(r -> new Prompts.ReadBackRecord(
                        promptIds.get(r.prompt()),
                        people.get(r.reader()),
                        r.askedAt(),
                        r.answer(),
                        r.answeredAt(),
                        r.verdict()))
                .toList());
        if (!archive.head().preparing()) {
            openRound(study, archive, ids);
        }
        return new Loaded(study, raters, asked);
    }

    private static Studies.NewStudy start(StudyArchive archive, UUID lead, Map<String, UUID> people, Set<UUID> asked) {
        StudyArchive.Head head = archive.head();
        return new Studies.NewStudy(
                head.title(),
                head.brief(),
                head.briefClosedAt(),
                head.seed(),
                lead,
                archive.people().leadGraded(),
                new LinkedHashSet<>(people.values()),
                asked,
                head.reopenings(),
                archive.people().expectations().stream()
                        .map(e -> new Declared(
                                e.rater() == null ? lead : people.get(e.rater()),
                                e.expects(),
                                e.usesToday(),
                                e.declaredAt()))
                        .toList());
    }

    private static Prompts.NewPrompt prompt(StudyArchive.ArchivePrompt p, Map<String, UUID> people) {
        return new Prompts.NewPrompt(
                p.key(),
                p.kind(),
                p.content(),
                p.author() == null ? null : people.get(p.author()),
                p.variantOf(),
                p.wording(),
                p.fault());
    }

    private static Candidates.NewCandidate candidate(StudyArchive.ArchiveCandidate c, Map<String, UUID> people) {
        CandidateContent given = c.content();
        return new Candidates.NewCandidate(
                c.key(),
                new CandidateContent(
                        given.name(),
                        given.version(),
                        given.settings(),
                        given.contextWindow(),
                        given.price(),
                        given.asOf(),
                        given.note(),
                        given.considerations(),
                        given.baseline(),
                        c.person() == null ? null : people.get(c.person())));
    }

    private static Rubrics.NewVersion version(
            StudyArchive.ArchiveRubric rubric, boolean inUse, Map<String, UUID> kindIds) {
        return new Rubrics.NewVersion(
                rubric.head().version(),
                rubric.head().publishedAt(),
                rubric.head().note(),
                inUse,
                rubric.criteria().stream().map(c -> criterion(c, kindIds)).toList());
    }

    private static CriterionContent criterion(StudyArchive.ArchiveCriterion c, Map<String, UUID> kindIds) {
        return new CriterionContent(
                c.key(),
                c.name(),
                c.question(),
                c.weight(),
                c.floor(),
                c.levels().stream()
                        .map(l -> new CriterionContent.LevelContent(
                                l.name(),
                                l.anchors().entrySet().stream()
                                        .map(a -> new CriterionContent.AnchorContent(
                                                kindIds.get(a.getKey()), a.getValue()))
                                        .toList()))
                        .toList(),
                c.kinds().stream().map(kindIds::get).toList(),
                c.traits());
    }

    private void openRound(UUID study, StudyArchive archive, Ids ids) {
        Instant now = clock.instant();
        StudyArchive.RoundHead round = archive.head().round();
        grading.open(
                study,
                new Grading.NewRound(
                        round.openedAt() == null ? now : round.openedAt(),
                        round.closedAt(),
                        round.ratersAnAnswer(),
                        round.repeatShare(),
                        archive.people().leadGraded()),
                archive.sheets().stream().map(s -> sheet(s, ids, now)).toList());
    }

    private static Grading.SheetRecord sheet(StudyArchive.ArchiveSheet sheet, Ids ids, Instant now) {
        List<Grading.AnswerRecord> onSheet = new ArrayList<>();
        for (StudyArchive.ArchiveSheetAnswer answer : sheet.answers()) {
            Map<UUID, Mark> marks = new HashMap<>();
            answer.marks().forEach((criterion, mark) -> marks.put(ids.criteria.get(criterion), mark));
            onSheet.add(new Grading.AnswerRecord(
                    ids.answers.get(answer.answer()),
                    onSheet.size(),
                    answer.reason(),
                    marks,
                    judgement(answer.judgement(), ids),
                    answer.coverage(),
                    answer.remarks()));
        }
        Instant sentAt = sheet.sentAt() != null ? sheet.sentAt() : sheet.sent() ? now : null;
        return new Grading.SheetRecord(
                Objects.requireNonNull(ids.person(sheet.rater())),
                ids.prompts.get(sheet.prompt()),
                sheet.place(),
                sheet.repeat(),
                sentAt,
                sheet.withdrawn(),
                onSheet);
    }

    private static Grading.Judgement judgement(StudyArchive.ArchiveJudgement judgement, Ids ids) {
        String guess = judgement.guess();
        return new Grading.Judgement(
                judgement.works(),
                judgement.preference(),
                guess != null ? new Guess(ids.candidates.get(guess)) : judgement.noIdea() ? new Guess(null) : null,
                judgement.activeMs());
    }
}
