package org.mossbank.server.archive;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.answer.specimen.SpecimenView;
import org.mossbank.server.answer.specimen.Specimens;
import org.mossbank.server.candidate.CandidateRows.KeyedCandidate;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.files.Keys;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.KindView;
import org.mossbank.server.prompt.PromptRows.KeyedPrompt;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.rubric.KeyedVersion;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.study.PeopleRows.KeyedExpectation;
import org.mossbank.server.study.PeopleRows.KeyedPeople;
import org.mossbank.server.study.PeopleRows.KeyedRater;
import org.mossbank.server.study.Role;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyPeople;
import org.mossbank.server.study.StudyView;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;

/** Gathers a study from the database into the form of an archive. */
@Service
@Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
class StudyExport {
    private final StudyPeople people;
    private final Studies studies;
    private final Prompts prompts;
    private final Candidates candidates;
    private final Answers answers;
    private final CollectionParts collection;
    private final Rubrics rubrics;
    private final RecordParts kept;

    StudyExport(
            StudyPeople people,
            Studies studies,
            Prompts prompts,
            Candidates candidates,
            Answers answers,
            CollectionParts collection,
            Rubrics rubrics,
            RecordParts kept) {
        this.kept = kept;
        this.people = people;
        this.studies = studies;
        this.prompts = prompts;
        this.candidates = candidates;
        this.answers = answers;
        this.collection = collection;
        this.rubrics = rubrics;
    }

    /** To be handed to others. */
    @SystemOnly
    public StudyArchive of(StudyId id) {
        return of(id, people.keys(id, studies.raters(id)));
    }

    /** To go on from on this server. */
    @SystemOnly
    public StudyArchive here(StudyId id) {
        return of(id, people.keysHere(id, studies.raters(id)));
    }

    private StudyArchive of(StudyId id, Map<AccountId, String> raterKeys) {
        List<AccountView> raters = people.of(id, raterKeys.keySet()).values().stream()
                .sorted(Comparator.comparing(AccountView::signInName))
                .toList();
        List<KindView> kinds = prompts.kinds(id);
        List<PromptView> allPrompts = prompts.ofStudy(id);
        List<CandidateView> allCandidates = candidates.ofStudy(id);
        List<AnswerView> allAnswers = answers.ofStudy(id);
        List<SpecimenView> allSpecimens = collection.specimens(id);
        List<Rubrics.VersionCriteria> versions = rubrics.all(id);
        Rubrics.VersionCriteria counting = counting(id, versions);
        // People who do not grade have no key.
        Keys keys = new Keys()
                .with(raters, AccountView::id, r -> Require.known(raterKeys, r.id()))
                .with(kinds, KindView::id, KindView::key)
                .with(allPrompts, PromptView::id, PromptView::key)
                .with(allCandidates, CandidateView::id, CandidateView::key)
                .with(allAnswers, AnswerView::id, AnswerView::key)
                .with(allSpecimens, SpecimenView::id, SpecimenView::key)
                .with(
                        versions.stream().flatMap(v -> v.criteria().stream()).toList(),
                        CriterionView::id,
                        CriterionView::key);
        KeyedVersion rubric = KeyedVersion.of(counting, keys);
        return new StudyArchive(
                head(id, rubric.head()),
                kinds.stream().map(k -> new Prompts.NewKind(k.key(), k.name())).toList(),
                allPrompts.stream().map(p -> KeyedPrompt.of(p, keys)).toList(),
                allCandidates.stream().map(c -> KeyedCandidate.of(c, keys)).toList(),
                collection.sources(id, keys),
                allAnswers.stream().map(a -> answer(a, keys)).toList(),
                allSpecimens.stream()
                        .map(s -> new Specimens.NewSpecimen(
                                s.key(), keys.of(s.promptId()), s.place(), s.text(), s.levels()))
                        .toList(),
                collection.runs(id, keys),
                collection.masks(id, keys),
                rubric,
                versions.stream()
                        .filter(v -> v != counting && v.version().publishedAt() != null)
                        .map(v -> KeyedVersion.of(v, keys))
                        .toList(),
                people(id, raters, keys),
                collection.readBacks(id, keys),
                kept.sheets(id, keys),
                kept.of(
                        id,
                        keys,
                        versions.stream()
                                .filter(v -> v == counting || v.version().publishedAt() != null)
                                .map(v -> v.version().number())
                                .collect(Collectors.toSet())));
    }

    private Rubrics.VersionCriteria counting(StudyId study, List<Rubrics.VersionCriteria> versions) {
        int number = rubrics.version(study).orElseThrow().number();
        return versions.stream()
                .filter(v -> v.version().number() == number)
                .findFirst()
                .orElseThrow();
    }

    private StudyArchive.Head head(StudyId id, KeyedVersion.Head rubric) {
        StudyView study = studies.get(id);
        Optional<StudyArchive.RoundHead> round = kept.round(id);
        return new StudyArchive.Head(
                study.title(),
                study.brief(),
                round.isEmpty(),
                study.briefClosedAt(),
                study.forecast(),
                studies.reopenings(id),
                study.seed(),
                collection.mostFollowUps(id),
                rubric,
                round.orElse(StudyArchive.RoundHead.NONE));
    }

    private static Answers.NewAnswer answer(AnswerView a, Keys keys) {
        return new Answers.NewAnswer(
                a.key(),
                keys.of(a.promptId()),
                keys.of(a.candidateId()),
                a.attempt(),
                a.outcome(),
                a.text(),
                a.followUps(),
                a.measures());
    }

    private KeyedPeople people(StudyId id, List<AccountView> raters, Keys keys) {
        Map<AccountId, Role> members = studies.members(id);
        return new KeyedPeople(
                raters.stream()
                        .map(r -> new KeyedRater(keys.of(r.id()), r.displayName(), members.get(r.id()) == Role.LEAD))
                        .toList(),
                studies.expectations(id).stream()
                        .map(e -> new KeyedExpectation(
                                members.get(e.accountId()) == Role.LEAD ? null : keys.orNone(e.accountId()),
                                e.expects(),
                                e.usesToday(),
                                e.declaredAt()))
                        .sorted(Comparator.comparing(
                                KeyedExpectation::rater, Comparator.nullsFirst(Comparator.naturalOrder())))
                        .toList());
    }
}
