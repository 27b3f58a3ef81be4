package org.mossbank.server.evidence;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Wilson;
import org.mossbank.core.trial.TrialStanding;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.evidence.EvidenceReport.AnswerEvidence;
import org.mossbank.server.evidence.EvidenceReport.Standing;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.prompt.KindView;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.study.RaterTerms;
import org.mossbank.server.trial.TriedAnswer;

/** Counts what works by trial. */
final class EvidenceComputation {
    private static final double LEVEL = 0.95;

    private EvidenceComputation() {}

    /**
     * What it is made of, as it stood at one moment.
     *
     * @param prompts sound ones that have a check
     * @param answers to them
     * @param tried   those that were tried
     */
    record Basis(
            RaterTerms.TrialsShown shown,
            List<EvidenceReport.EvidenceCandidate> candidates,
            Map<PromptId, PromptView> prompts,
            List<AnswerFacts> answers,
            Map<AnswerId, TriedAnswer> tried) {}

    static EvidenceReport of(Basis basis) {
        List<AnswerEvidence> answers = basis.answers.stream()
                .map(a -> answer(a, basis.tried.get(a.id())))
                .toList();
        List<KindView> kinds = basis.prompts.values().stream()
                .map(PromptView::kind)
                .distinct()
                .sorted(Comparator.comparing(KindView::name))
                .toList();
        List<EvidenceReport.EvidencePart> parts = new ArrayList<>();
        parts.add(new EvidenceReport.EvidencePart(null, "", candidates(basis, answers, p -> true)));
        if (kinds.size() > 1) {
            kinds.forEach(k -> parts.add(new EvidenceReport.EvidencePart(
                    k.id(), k.name(), candidates(basis, answers, p -> p.kind().equals(k)))));
        }
        return new EvidenceReport(
                basis.shown,
                basis.candidates,
                basis.prompts.values().stream()
                        .sorted(Comparator.comparing(PromptView::key))
                        .map(p -> new EvidenceReport.EvidencePrompt(
                                p.id(), p.title(), p.kind().name()))
                        .toList(),
                answers,
                parts);
    }

    private static AnswerEvidence answer(AnswerFacts facts, @Nullable TriedAnswer tried) {
        Optional<TriedAnswer.TurnTried> last = Optional.ofNullable(tried).flatMap(TriedAnswer::last);
        Optional<TrialStanding> standing = Optional.ofNullable(tried).flatMap(TriedAnswer::standing);
        return new AnswerEvidence(
                facts.id(),
                facts.promptId(),
                facts.candidateId(),
                facts.attempt(),
                last.filter(t -> t.trials().isFlaky()).isPresent()
                        ? Standing.FLAKY
                        : standing.map(EvidenceComputation::standing).orElse(Standing.NOT_TRIED),
                standing.flatMap(s -> s instanceof TrialStanding.AfterRepair after
                                ? Optional.of(after.lines())
                                : Optional.empty())
                        .orElse(null),
                last.map(TriedAnswer.TurnTried::worst).orElse(null),
                last.map(t -> t.trials().trials().size()).orElse(0),
                tried == null
                        ? List.of()
                        : tried.turns().stream()
                                .map(t -> new EvidenceReport.TurnOutcome(t.turn(), t.worst()))
                                .toList(),
                tried == null ? 0 : tried.repairs().size(),
                last.map(TriedAnswer.TurnTried::warnings).orElse(0),
                last.map(TriedAnswer.TurnTried::deprecations).orElse(0),
                last.map(TriedAnswer.TurnTried::broken).orElse(0),
                last.map(TriedAnswer.TurnTried::mended).orElse(0));
    }

    private static Standing standing(TrialStanding standing) {
        return standing instanceof TrialStanding.AsIs
                ? Standing.AS_IS
                : standing instanceof TrialStanding.AfterRepair ? Standing.AFTER_REPAIR : Standing.NOT;
    }

    private static List<EvidenceReport.CandidateEvidence> candidates(
            Basis basis, List<AnswerEvidence> answers, Predicate<PromptView> wanted) {
        return basis.candidates.stream()
                .map(c -> candidate(
                        c,
                        answers.stream()
                                .filter(a -> a.candidateId().equals(c.candidateId()))
                                .filter(a -> Optional.ofNullable(basis.prompts.get(a.promptId()))
                                        .filter(wanted)
                                        .isPresent())
                                .toList()))
                .toList();
    }

    private static EvidenceReport.CandidateEvidence candidate(
            EvidenceReport.EvidenceCandidate candidate, List<AnswerEvidence> own) {
        int asIs = count(own, Standing.AS_IS);
        int after = count(own, Standing.AFTER_REPAIR);
        int tried = own.size() - count(own, Standing.NOT_TRIED);
        return new EvidenceReport.CandidateEvidence(
                candidate.candidateId(),
                own.size(),
                tried,
                asIs,
                after,
                count(own, Standing.NOT),
                count(own, Standing.FLAKY),
                share(asIs, tried),
                share(asIs + after, tried),
                own.stream().mapToInt(AnswerEvidence::warnings).sum(),
                own.stream().mapToInt(AnswerEvidence::deprecations).sum(),
                (int) own.stream().filter(a -> a.broken() > 0).count());
    }

    private static int count(List<AnswerEvidence> answers, Standing standing) {
        return (int) answers.stream().filter(a -> a.standing() == standing).count();
    }

    private static Figure share(int hits, int tries) {
        return Figure.of(
                tries == 0 ? Estimate.undefined(Reason.NO_DATA) : Estimate.of((double) hits / tries),
                Wilson.interval(hits, tries, LEVEL));
    }
}
