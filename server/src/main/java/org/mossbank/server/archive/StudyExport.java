package org.mossbank.server.archive;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.candidate.CandidateContent;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.Guess;
import org.mossbank.server.grading.Mark;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.prompt.KindView;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.study.Role;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyView;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;

/** Gathers a study from the database into the form of an archive. */
@Service
@Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
class StudyExport {
    private final Accounts accounts;
    private final Studies studies;
    private final Prompts prompts;
    private final Candidates candidates;
    private final Answers answers;
    private final CollectionLoader collecting;
    private final Masking masking;
    private final Rubrics rubrics;
    private final Grading grading;

    StudyExport(
            Accounts accounts,
            Studies studies,
            Prompts prompts,
            Candidates candidates,
            Answers answers,
            CollectionLoader collecting,
            Masking masking,
            Rubrics rubrics,
            Grading grading) {
        this.accounts = accounts;
        this.studies = studies;
        this.prompts = prompts;
        this.candidates = candidates;
        this.answers = answers;
        this.collecting = collecting;
        this.masking = masking;
        this.rubrics = rubrics;
        this.grading = grading;
    }

    /** Keys by database id; people who do not grade have none. */
    private record Keys(
            Map<UUID, String> raters,
            Map<UUID, String> kinds,
            Map<UUID, String> prompts,
            Map<UUID, String> candidates,
            Map<UUID, String> answers,
            Map<UUID, String> criteria) {
        @Nullable
        String rater(@Nullable UUID id) {
            return id == null ? null : raters.get(id);
        }
    }

    @SystemOnly
    public StudyArchive of(UUID id) {
        List<AccountView> raters = accounts.byId(studies.raters(id)).values().stream()
                .sorted(Comparator.comparing(AccountView::signInName))
                .toList();
        List<KindView> kinds = prompts.kinds(id);
        List<PromptView> allPrompts = prompts.ofStudy(id);
        List<CandidateView> allCandidates = candidates.ofStudy(id);
        List<AnswerView> allAnswers = answers.ofStudy(id);
        List<Rubrics.VersionCriteria> versions = rubrics.all(id);
        Rubrics.VersionCriteria counting = counting(id, versions);
        Keys keys = new Keys(
                keys(raters, AccountView::id, AccountView::signInName),
                keys(kinds, KindView::id, KindView::key),
                keys(allPrompts, PromptView::id, PromptView::key),
                keys(allCandidates, CandidateView::id, CandidateView::key),
                keys(allAnswers, AnswerView::id, AnswerView::key),
                keys(counting.criteria(), CriterionView::id, CriterionView::key));
        return new StudyArchive(
                head(id, counting),
                kinds.stream().map(k -> new Prompts.NewKind(k.key(), k.name())).toList(),
                allPrompts.stream().map(p -> prompt(p, keys)).toList(),
                allCandidates.stream().map(c -> candidate(c, keys)).toList(),
                allAnswers.stream().map(a -> answer(a, keys)).toList(),
                collecting.of(id, keys.prompts, keys.candidates, keys.answers),
                masking(id, keys),
                rubric(counting, keys),
                versions.stream()
                        .filter(v -> v != counting && v.version().publishedAt() != null)
                        .map(v -> rubric(v, keys))
                        .toList(),
                people(id, raters, keys),
                sheets(id, keys));
    }

    private StudyArchive.ArchiveMasking masking(UUID id, Keys keys) {
        SortedMap<String, List<Masking.Decided>> masks = new TreeMap<>();
        masking.decided(id).forEach((answer, decided) -> masks.put(keys.answers.get(answer), decided));
        return new StudyArchive.ArchiveMasking(masking.words(id), masks);
    }

    private static <T> Map<UUID, String> keys(List<T> all, Function<T, UUID> id, Function<T, String> key) {
        return all.stream().collect(Collectors.toMap(id, key));
    }

    private Rubrics.VersionCriteria counting(UUID study, List<Rubrics.VersionCriteria> versions) {
        int number = rubrics.version(study).orElseThrow().number();
        return versions.stream()
                .filter(v -> v.version().number() == number)
                .findFirst()
                .orElseThrow();
    }

    private StudyArchive.Head head(UUID id, Rubrics.VersionCriteria counting) {
        StudyView study = studies.get(id);
        Optional<Grading.RoundState> round = grading.round(id);
        return new StudyArchive.Head(
                study.title(),
                study.brief(),
                round.isEmpty(),
                study.briefClosedAt(),
                studies.reopenings(id),
                study.seed(),
                rubricHead(counting),
                round.map(r -> new StudyArchive.RoundHead(
                                r.openedAt(), r.closedAt(), r.ratersAnAnswer(), r.repeatShare()))
                        .orElse(StudyArchive.RoundHead.NONE));
    }

    private static StudyArchive.RubricHead rubricHead(Rubrics.VersionCriteria version) {
        return new StudyArchive.RubricHead(
                version.version().number(),
                version.version().publishedAt(),
                version.version().note());
    }

    private static StudyArchive.ArchivePrompt prompt(PromptView p, Keys keys) {
        return new StudyArchive.ArchivePrompt(
                p.key(),
                p.kind().key(),
                p.content(),
                keys.rater(p.authorId()),
                p.variantOf() == null ? null : keys.prompts.get(p.variantOf()),
                p.wording(),
                p.fault());
    }

    private static StudyArchive.ArchiveCandidate candidate(CandidateView c, Keys keys) {
        CandidateContent content = c.content();
        return new StudyArchive.ArchiveCandidate(c.key(), content, keys.rater(content.personId()));
    }

    private static Answers.NewAnswer answer(AnswerView a, Keys keys) {
        return new Answers.NewAnswer(
                a.key(),
                keys.prompts.get(a.promptId()),
                keys.candidates.get(a.candidateId()),
                a.attempt(),
                a.outcome(),
                a.text(),
                a.followUps(),
                a.measures());
    }

    private static StudyArchive.ArchiveRubric rubric(Rubrics.VersionCriteria version, Keys keys) {
        return new StudyArchive.ArchiveRubric(
                rubricHead(version),
                version.criteria().stream().map(c -> criterion(c, keys)).toList());
    }

    /** A level that is called by its number has no name of its own. */
    private static StudyArchive.ArchiveCriterion criterion(CriterionView c, Keys keys) {
        return new StudyArchive.ArchiveCriterion(
                c.key(),
                c.name(),
                c.question(),
                c.weight(),
                c.floor(),
                c.levels().stream()
                        .map(l -> {
                            TreeMap<String, String> anchors = new TreeMap<>();
                            l.anchors().forEach(a -> anchors.put(keys.kinds.get(a.kindId()), a.text()));
                            String name = l.name().equals(String.valueOf(l.level())) ? "" : l.name();
                            return new StudyArchive.ArchiveLevel(name, anchors);
                        })
                        .toList(),
                c.kindIds().stream().map(keys.kinds::get).sorted().toList(),
                c.traits());
    }

    private StudyArchive.People people(UUID id, List<AccountView> raters, Keys keys) {
        Map<UUID, Role> members = studies.members(id);
        return new StudyArchive.People(
                raters.stream()
                        .map(r -> new StudyArchive.Rater(
                                r.signInName(), r.displayName(), members.get(r.id()) == Role.LEAD))
                        .toList(),
                studies.expectations(id).stream()
                        .map(e -> new StudyArchive.Expected(
                                members.get(e.accountId()) == Role.LEAD ? null : keys.rater(e.accountId()),
                                e.expects(),
                                e.usesToday(),
                                e.declaredAt()))
                        .sorted(Comparator.comparing(
                                StudyArchive.Expected::rater, Comparator.nullsFirst(Comparator.naturalOrder())))
                        .toList(),
                prompts.readBacks(id).stream()
                        .filter(r -> keys.rater(r.readerId()) != null)
                        .map(r -> new StudyArchive.ReadBackRow(
                                keys.prompts.get(r.promptId()),
                                keys.raters.get(r.readerId()),
                                r.askedAt(),
                                r.answer(),
                                r.answeredAt(),
                                r.verdict()))
                        .sorted(Comparator.comparing(StudyArchive.ReadBackRow::prompt)
                                .thenComparing(StudyArchive.ReadBackRow::reader))
                        .toList());
    }

    private List<StudyArchive.ArchiveSheet> sheets(UUID id, Keys keys) {
        return grading.records(id).stream()
                .map(s -> new StudyArchive.ArchiveSheet(
                        keys.raters.get(s.raterId()),
                        keys.prompts.get(s.promptId()),
                        s.place(),
                        s.repeat(),
                        s.sentAt() != null,
                        s.sentAt(),
                        s.withdrawn(),
                        s.answers().stream().map(a -> sheetAnswer(a, keys)).toList()))
                .sorted(Comparator.comparing(StudyArchive.ArchiveSheet::rater)
                        .thenComparingInt(StudyArchive.ArchiveSheet::place))
                .toList();
    }

    private static StudyArchive.ArchiveSheetAnswer sheetAnswer(Grading.AnswerRecord a, Keys keys) {
        Map<String, Mark> marks = new TreeMap<>();
        a.marks().forEach((criterion, mark) -> marks.put(keys.criteria.get(criterion), mark));
        Guess guess = a.judgement().guess();
        UUID guessed = guess == null ? null : guess.candidateId();
        return new StudyArchive.ArchiveSheetAnswer(
                keys.answers.get(a.answerId()),
                a.reason(),
                marks,
                new StudyArchive.ArchiveJudgement(
                        a.judgement().works(),
                        a.judgement().preference(),
                        guessed == null ? null : keys.candidates.get(guessed),
                        guess != null && guessed == null,
                        a.judgement().activeMs()),
                a.coverage(),
                a.remarks());
    }
}
