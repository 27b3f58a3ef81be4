package org.mossbank.server.agreement;

import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.diagnosis.Narrowed;
import org.mossbank.core.diagnosis.Narrowing;
import org.mossbank.core.diagnosis.PackedGrades;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.shared.Problem;

/** A study's grades, laid out to be narrowed down, with what a reader calls their parts. Some megabytes for 250,000 grades. */
final class NarrowingBasis {
    /** @param family what all wordings of the prompt have in common */
    private record PromptName(PromptId id, String title, String family) {}

    private final List<CriterionView> criteria;
    private final Map<CriterionId, PackedGrades> packed;
    private final Map<AnswerId, PromptName> promptOfAnswer;
    private final Map<PromptId, String> families;
    private final Map<String, PromptName> named;
    private final Map<AnswerId, CandidateId> candidateOfAnswer;
    private final Map<String, String> raters;

    private NarrowingBasis(AgreementData data) {
        criteria = data.criteria();
        packed = criteria.parallelStream()
                .collect(Collectors.toConcurrentMap(
                        CriterionView::id,
                        c -> PackedGrades.of(
                                data.matrix(c, data.grades()),
                                data::family,
                                answer -> data.prompt(answer).kind().id().toString())));
        Map<PromptId, PromptName> names = data.promptOfAnswer().values().stream()
                .distinct()
                .collect(Collectors.toMap(PromptView::id, NarrowingBasis::name));
        promptOfAnswer = data.promptOfAnswer().entrySet().stream()
                .collect(Collectors.toMap(
                        Map.Entry::getKey,
                        e -> Require.known(names, e.getValue().id())));
        families = names.values().stream().collect(Collectors.toMap(PromptName::id, PromptName::family));
        named = data.families().entrySet().stream()
                .collect(Collectors.toMap(Map.Entry::getKey, e -> name(e.getValue())));
        candidateOfAnswer = data.candidateOfAnswer();
        raters = data.raters().keySet().stream()
                .map(AccountId::toString)
                .collect(Collectors.toMap(Function.identity(), data::rater));
    }

    static NarrowingBasis of(AgreementData data) {
        return new NarrowingBasis(data);
    }

    private static PromptName name(PromptView prompt) {
        return new PromptName(prompt.id(), prompt.title(), prompt.family().toString());
    }

    /** @throws Problem 404 if there is no such criterion */
    NarrowedReport narrowed(NarrowTo to) {
        CriterionView criterion = criteria.stream()
                .filter(c -> c.id().equals(to.criterion()))
                .findFirst()
                .orElseThrow(() -> Problem.notFound("This criterion"));
        Map<CriterionId, Narrowed> all = criteria.parallelStream()
                .collect(Collectors.toConcurrentMap(
                        CriterionView::id, c -> narrowed(c, to, c.id().equals(criterion.id()))));
        Narrowed found = Require.known(all, criterion.id());
        return new NarrowedReport(
                criterion.id(),
                criteria.stream()
                        .flatMap(c -> Require.known(all, c.id()).kinds().stream()
                                .map(k -> new NarrowedReport.CellPart(
                                        c.id(), KindId.from(k.first()), k.share(), k.pairs(), k.apart())))
                        .toList(),
                found.prompts().stream()
                        .limit(NarrowedReport.MOST_PROMPTS)
                        .map(this::prompt)
                        .toList(),
                found.levelPairs().stream()
                        .map(l -> new NarrowedReport.LevelPart(
                                Integer.parseInt(l.first()), Integer.parseInt(l.second()), l.share(), l.pairs()))
                        .toList(),
                found.raterPairs().stream().map(NarrowingBasis::pair).toList(),
                found.useOfScale().stream()
                        .map(u -> new DiagnosisReport.RaterUse(AccountId.from(u.rater()), u.counts()))
                        .toList(),
                found.parted().stream().map(p -> split(criterion, p)).toList(),
                found.partedCount());
    }

    /** @param whole whether it is the criterion that is looked at: levels are its own, and its splits are named */
    private Narrowed narrowed(CriterionView criterion, NarrowTo to, boolean whole) {
        Narrowing narrowing = new Narrowing(
                text(to.kind()),
                to.prompt() == null ? null : families.getOrDefault(to.prompt(), ""),
                text(to.rater()),
                whole ? to.levels() : null);
        return Require.known(packed, criterion.id()).narrowed(narrowing, whole ? NarrowedReport.MOST_SPLITS : 0);
    }

    private static @Nullable String text(@Nullable Object id) {
        return id == null ? null : id.toString();
    }

    private NarrowedReport.PromptPart prompt(Narrowed.Part part) {
        PromptName prompt = Require.known(named, part.first());
        return new NarrowedReport.PromptPart(prompt.id(), prompt.title(), part.share(), part.pairs(), part.apart());
    }

    private static NarrowedReport.PairPart pair(Narrowed.RaterPair pair) {
        return new NarrowedReport.PairPart(
                AccountId.from(pair.first()),
                AccountId.from(pair.second()),
                pair.share(),
                Figure.of(pair.kappa()),
                pair.answers(),
                pair.apart());
    }

    private AgreementReport.SplitView split(CriterionView criterion, Narrowed.Parted parted) {
        AnswerId answer = AnswerId.from(parted.unit());
        PromptName prompt = Require.known(promptOfAnswer, answer);
        return new AgreementReport.SplitView(
                answer,
                Require.known(candidateOfAnswer, answer),
                prompt.id(),
                prompt.title(),
                criterion.id(),
                criterion.name(),
                parted.distance(),
                parted.ratings().stream().map(r -> grade(criterion, r)).toList());
    }

    private AgreementReport.SplitGrade grade(CriterionView criterion, Rating rating) {
        return new AgreementReport.SplitGrade(
                AccountId.from(rating.rater()),
                Require.known(raters, rating.rater()),
                rating.category(),
                criterion.levels().get(rating.category()).name());
    }
}
