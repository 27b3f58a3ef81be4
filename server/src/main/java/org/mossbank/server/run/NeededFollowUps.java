package org.mossbank.server.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.turns.TurnVerdict;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.answer.FactsOfAnswers;
import org.mossbank.server.answer.FollowUpRules;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.source.Sources;
import org.mossbank.server.turn.Turns;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Asking the next prepared follow-up where the last reply does not do what was asked, and only there: so the number of turns to a
 * working answer is a figure. Whoever gave up is not asked again.
 */
@Service
@Transactional
class NeededFollowUps {
    private final RunCellRepository cells;
    private final RunBoards boards;
    private final RunBeginning beginning;
    private final Prompts prompts;
    private final Read read;
    private final FollowUpRules rules;
    private final Sources sources;
    private final Turns turns;

    NeededFollowUps(
            RunCellRepository cells,
            RunBoards boards,
            RunBeginning beginning,
            Prompts prompts,
            Read read,
            FollowUpRules rules,
            Sources sources,
            Turns turns) {
        this.cells = cells;
        this.boards = boards;
        this.beginning = beginning;
        this.prompts = prompts;
        this.read = read;
        this.rules = rules;
        this.sources = sources;
        this.turns = turns;
    }

    /** Answers as they are kept, and which of them a run is about already. */
    @Component
    record Read(FactsOfAnswers facts, Answers answers, Candidates candidates, RunRepository runs) {}

    private record Needed(AnswerFacts answer, String asked) {}

    /**
     * Begins a run over all answers whose last reply is found not to do, with the next prepared follow-up of each. Its budget can be set on its board.
     *
     * @throws Problem 409 if there is nothing to ask, or once the round is open
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public RunView ask(StudyId study) {
        beginning.require(study);
        List<Needed> needed = needed(study);
        if (needed.isEmpty()) {
            throw new Problem(
                    ProblemType.NOT_READY,
                    "No answer is left to ask: none of a candidate with a source has a last reply that is found not to do what was"
                            + " asked, with a prepared follow-up to come.");
        }
        if (needed.size() > RunPlanning.MOST_CELLS) {
            throw new Problem(
                    ProblemType.NOT_READY,
                    "More than " + RunPlanning.MOST_CELLS + " answers cannot be asked in one run.");
        }
        Run run = beginning.begin(study, 1, 1, null, null, currency(study, needed));
        int place = 0;
        for (Needed one : needed) {
            cells.save(RunCell.following(
                    run.id(), read.answers.one(study, one.answer.id()).orElseThrow(), one.asked, place++));
        }
        cells.flush();
        return boards.view(run);
    }

    /** That of all who are asked; absent where it is not one, as money cannot be added up then. */
    private @Nullable String currency(StudyId study, List<Needed> needed) {
        Set<CandidateId> asked =
                needed.stream().map(n -> n.answer.candidateId()).collect(Collectors.toSet());
        List<String> currencies = read.candidates.heads(study).stream()
                .filter(c -> asked.contains(c.id()))
                .map(c -> c.price().currency())
                .filter(Objects::nonNull)
                .distinct()
                .toList();
        return currencies.size() == 1 ? currencies.get(0) : null;
    }

    private List<Needed> needed(StudyId study) {
        Map<AnswerId, Map<Integer, TurnVerdict>> found = turns.ofStudy(study).stream()
                .collect(Collectors.groupingBy(
                        Turns.Said::answerId, Collectors.toMap(Turns.Said::turn, Turns.Said::verdict)));
        Map<PromptId, PromptView> sound =
                prompts.sound(study).stream().collect(Collectors.toMap(PromptView::id, Function.identity()));
        Set<CandidateId> reachable = sources.ofStudy(study).keySet();
        int most = rules.most(study).orElse(Integer.MAX_VALUE);
        Set<AnswerId> asked = read.runs.ofStudy(study).stream()
                .flatMap(r -> cells.ofRun(r.id()).stream())
                .flatMap(c -> c.awaited().stream())
                .collect(Collectors.toSet());
        List<Needed> needed = new ArrayList<>();
        for (AnswerFacts answer : read.facts.ofStudy(study)) {
            int had = answer.asked().size();
            PromptView prompt = sound.get(answer.promptId());
            TurnVerdict last = found.getOrDefault(answer.id(), Map.of()).get(had);
            boolean fails = last == TurnVerdict.DOES_NOT || last == TurnVerdict.SAID_DONE;
            if (fails
                    && prompt != null
                    && had < Math.min(most, prompt.content().followUps().size())
                    && reachable.contains(answer.candidateId())
                    && !asked.contains(answer.id())) {
                needed.add(new Needed(answer, prompt.content().followUps().get(had)));
            }
        }
        return needed;
    }
}
