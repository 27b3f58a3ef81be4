package org.mossbank.server.reconciliation;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.answer.AnswerCodes;
import org.mossbank.server.answer.AnswerText;
import org.mossbank.server.answer.GradedCode;
import org.mossbank.server.grading.Mark;
import org.mossbank.server.grading.RemarkContent;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.database.Snapshot;
import org.mossbank.server.study.RoundStage;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyPeople;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Puts the page of a split together. Within the transaction of whoever asks. */
@Component
class SplitPages {
    private final SplitReaders readers;
    private final SplitWordRepository words;
    private final StanceRepository stances;
    private final ThirdLookRepository looks;
    private final Prompts prompts;
    private final Rubrics rubrics;
    private final Studies studies;
    private final StudyPeople names;

    SplitPages(
            SplitReaders readers,
            SplitWordRepository words,
            StanceRepository stances,
            ThirdLookRepository looks,
            Prompts prompts,
            Rubrics rubrics,
            Studies studies,
            StudyPeople names) {
        this.readers = readers;
        this.words = words;
        this.stances = stances;
        this.looks = looks;
        this.prompts = prompts;
        this.rubrics = rubrics;
        this.studies = studies;
        this.names = names;
    }

    /**
     * Who reads a page.
     *
     * @param leads  whether they may close the split
     * @param spoken what is left of somebody's words for a reader who must not know names
     */
    record Reader(AccountId id, boolean leads, UnaryOperator<String> spoken) {}

    /** What is asked of an answer and by what it is graded. */
    record About(SplitPage.SplitPrompt prompt, SplitPage.SplitCriterion criterion, AnswerText answer) {}

    About about(Reconciliation split) {
        AnswerText answer = readers.answer(split);
        PromptView prompt = prompts.one(answer.promptId()).orElseThrow();
        return new About(
                new SplitPage.SplitPrompt(
                        prompt.title(),
                        prompt.kind().id(),
                        prompt.kind().name(),
                        prompt.content().request(),
                        prompt.content().keyPoints()),
                criterion(criterion(split), prompt.kind().id()),
                answer);
    }

    CriterionView criterion(Reconciliation split) {
        return rubrics.ofStudy(split.studyId()).stream()
                .filter(c -> c.id().equals(split.criterionId()))
                .findFirst()
                .orElseThrow();
    }

    private static SplitPage.SplitCriterion criterion(CriterionView criterion, KindId kind) {
        return new SplitPage.SplitCriterion(
                criterion.key(),
                criterion.name(),
                criterion.question(),
                criterion.levels().stream()
                        .map(l -> new SplitPage.AnchoredLevel(
                                l.level(), l.name(), l.anchorFor(kind).orElse("")))
                        .toList());
    }

    SplitPage page(Reconciliation split, Reader reader) {
        About about = about(split);
        List<SplitReaders.Rated> rated = readers.rated(split, about.answer().promptId());
        List<SplitWord> said = words.findByReconciliationIdOrderBySaidAt(split.id());
        List<Reconciliations.Look> looked =
                looks.ofSplit(split.id()).stream().map(ThirdLook::look).toList();
        Map<AccountId, List<Reconciliations.Stood>> stood =
                stances.findByReconciliationIdOrderByTakenAt(split.id()).stream()
                        .map(Stance::stood)
                        .collect(Collectors.groupingBy(Reconciliations.Stood::rater));
        Map<AccountId, AccountView> people = people(split.studyId(), rated, said, looked);
        boolean talking = studies.stage(split.studyId()) == RoundStage.Stage.GRADING;
        return new SplitPage(
                split.id(),
                split.studyId(),
                studies.get(split.studyId()).title(),
                about.prompt(),
                about.criterion(),
                about.answer().text(),
                rated.stream()
                        .map(r -> rater(r, split, stood.getOrDefault(r.rater(), List.of()), people, reader))
                        .sorted(Comparator.comparing(SplitPage.SplitRater::name))
                        .toList(),
                said.stream().map(w -> word(w, people, reader)).toList(),
                looked.stream().map(l -> look(l, people, reader)).toList(),
                split.state(),
                closing(split, reader),
                distance(rated, split),
                talking,
                reader.leads(),
                rated.stream().anyMatch(r -> r.rater().equals(reader.id())));
    }

    private Map<AccountId, AccountView> people(
            StudyId study, List<SplitReaders.Rated> rated, List<SplitWord> said, List<Reconciliations.Look> looked) {
        Set<AccountId> ids = Stream.of(
                        rated.stream().map(SplitReaders.Rated::rater),
                        said.stream().map(w -> w.word().author()),
                        looked.stream().map(Reconciliations.Look::rater))
                .flatMap(s -> s)
                .collect(Collectors.toSet());
        return names.of(study, ids);
    }

    private static String name(AccountId id, Map<AccountId, AccountView> people) {
        return Require.known(people, id).displayName();
    }

    private static int distance(List<SplitReaders.Rated> rated, Reconciliation split) {
        List<Integer> levels = levels(rated, split);
        return levels.isEmpty() ? 0 : levels.get(levels.size() - 1) - levels.get(0);
    }

    /** What raters gave at first, lowest first. */
    static List<Integer> levels(List<SplitReaders.Rated> rated, Reconciliation split) {
        List<Integer> levels = new ArrayList<>();
        for (SplitReaders.Rated r : rated) {
            Integer level = level(r, split);
            if (level != null) {
                levels.add(level);
            }
        }
        levels.sort(null);
        return levels;
    }

    static @Nullable Integer level(SplitReaders.Rated rated, Reconciliation split) {
        return mark(rated, split).level();
    }

    private static Mark mark(SplitReaders.Rated rated, Reconciliation split) {
        return Require.known(rated.said().marks(), split.criterionId());
    }

    private static SplitPage.SplitRater rater(
            SplitReaders.Rated rated,
            Reconciliation split,
            List<Reconciliations.Stood> stood,
            Map<AccountId, AccountView> people,
            Reader reader) {
        Integer original = level(rated, split);
        return new SplitPage.SplitRater(
                name(rated.rater(), people),
                rated.rater().equals(reader.id()),
                original,
                mark(rated, split).confidence(),
                reader.spoken().apply(rated.said().reason()),
                rated.said().judgement().works(),
                rated.said().coverage().entrySet().stream()
                        .map(e -> new SplitPage.SplitVerdict(e.getKey(), e.getValue()))
                        .toList(),
                rated.said().remarks().stream().map(r -> spoken(r, reader)).toList(),
                stood.stream()
                        .map(s -> new SplitPage.StanceTaken(
                                s.level(),
                                original != null && original == s.level(),
                                reader.spoken().apply(s.reason()),
                                s.at()))
                        .toList());
    }

    private static RemarkContent spoken(RemarkContent remark, Reader reader) {
        return new RemarkContent(
                remark.stance(), remark.trait(), reader.spoken().apply(remark.words()), remark.lines());
    }

    private static SplitPage.SpokenWord word(SplitWord said, Map<AccountId, AccountView> people, Reader reader) {
        Reconciliations.Word word = said.word();
        return new SplitPage.SpokenWord(
                said.id(),
                name(word.author(), people),
                word.author().equals(reader.id()),
                reader.spoken().apply(word.words()),
                word.at());
    }

    private static SplitPage.SplitLook look(
            Reconciliations.Look look, Map<AccountId, AccountView> people, Reader reader) {
        Reconciliations.Given given = look.given();
        return new SplitPage.SplitLook(
                name(look.rater(), people),
                look.askedAt(),
                given == null ? null : given.level(),
                given == null ? "" : reader.spoken().apply(given.reason()));
    }

    private static @Nullable SplitClosing closing(Reconciliation split, Reader reader) {
        SplitClosing closing = split.closing();
        return closing == null
                ? null
                : new SplitClosing(
                        closing.how(),
                        closing.level(),
                        closing.by(),
                        closing.at(),
                        reader.spoken().apply(closing.reason()),
                        closing.namesKnown());
    }

    /** What the answer of a split does to the starting code. */
    @Service
    static class Code {
        private final SplitLocks locks;
        private final SplitReaders readers;
        private final Prompts prompts;
        private final AnswerCodes codes;
        private final Snapshot snapshot;

        Code(SplitLocks locks, SplitReaders readers, Prompts prompts, AnswerCodes codes, Snapshot snapshot) {
            this.locks = locks;
            this.readers = readers;
            this.prompts = prompts;
            this.codes = codes;
            this.snapshot = snapshot;
        }

        private record ToCompare(PromptView prompt, String text) {}

        /** As raters may see it. */
        @PreAuthorize("@splitAccess.maySeeAnswer(#id)")
        @Transactional(propagation = Propagation.NEVER)
        public GradedCode of(UUID id) {
            ToCompare read = snapshot.of(() -> {
                AnswerText answer = readers.answer(locks.found(id));
                return new ToCompare(prompts.one(answer.promptId()).orElseThrow(), answer.text());
            });
            return codes.graded(read.prompt, read.text);
        }
    }
}
