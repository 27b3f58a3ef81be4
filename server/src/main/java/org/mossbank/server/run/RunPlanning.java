package org.mossbank.server.run;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.answer.FollowUpRules;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.source.SourceContent;
import org.mossbank.server.source.Sources;
import org.mossbank.server.source.Turn;
import org.springframework.stereotype.Component;

/** What a run would ask, and whether it may be asked. */
@Component
class RunPlanning {
    static final int MOST_CELLS = 5000;

    private final Prompts prompts;
    private final Candidates candidates;
    private final Answers answers;
    private final FollowUpRules rules;
    private final Sources sources;

    RunPlanning(Prompts prompts, Candidates candidates, Answers answers, FollowUpRules rules, Sources sources) {
        this.prompts = prompts;
        this.candidates = candidates;
        this.answers = answers;
        this.rules = rules;
        this.sources = sources;
    }

    /**
     * All that a run asks.
     *
     * @param sources  by candidate
     * @param currency of all prices; absent where no candidate has a price for tokens
     */
    record Asked(
            List<RunPlan.Cell> cells,
            Map<PromptId, PromptView> prompts,
            Map<CandidateId, CandidateView> candidates,
            Map<CandidateId, SourceContent> sources,
            @Nullable String currency) {

        RunForecast forecast(int mostFollowUps) {
            int requests = 0;
            long input = 0;
            long output = 0;
            BigDecimal cost = BigDecimal.ZERO;
            for (RunPlan.Cell cell : cells) {
                PromptView prompt = Require.known(prompts, cell.promptId());
                SourceContent source = Require.known(sources, cell.candidateId());
                List<Turn> turns = new ArrayList<>();
                turns.add(new Turn(PromptText.of(prompt.content().asked()), null));
                prompt.content().followUps().stream().limit(mostFollowUps).forEach(f -> turns.add(new Turn(f, null)));
                for (int turn = 1; turn <= turns.size(); turn++) {
                    // What came before is sent again, each reply at the most that it can be.
                    long in = Sources.mostInputTokens(source, turns.subList(0, turn))
                            + (turn - 1L) * source.mostOutputTokens();
                    requests++;
                    input += in;
                    output += source.mostOutputTokens();
                    cost = cost.add(RunCosts.of(
                                    Require.known(candidates, cell.candidateId())
                                            .content()
                                            .price(),
                                    in,
                                    source.mostOutputTokens())
                            .orElse(BigDecimal.ZERO));
                }
            }
            return new RunForecast(
                    cells.size(), requests, input, output, currency == null ? null : RunCosts.plain(cost), currency);
        }
    }

    /** @throws Problem 400 with what cannot be asked */
    Asked asked(StudyId study, StartRun request) {
        Map<PromptId, PromptView> soundPrompts =
                prompts.sound(study).stream().collect(Collectors.toMap(PromptView::id, p -> p));
        Map<CandidateId, CandidateView> all =
                candidates.ofStudy(study).stream().collect(Collectors.toMap(CandidateView::id, c -> c));
        Map<CandidateId, SourceContent> bySource = sources.ofStudy(study);
        if (!soundPrompts.keySet().containsAll(request.promptIds())) {
            throw Problem.invalid("promptIds", "must be prompts of this study that are not set aside");
        }
        for (CandidateId id : request.candidateIds()) {
            if (!all.containsKey(id)) {
                throw Problem.invalid("candidateIds", "must be candidates of this study");
            }
            if (!bySource.containsKey(id)) {
                throw Problem.invalid(
                        "candidateIds", "must have a source; " + all.get(id).name() + " has none");
            }
        }
        rules.most(study).ifPresent(most -> {
            if (request.followUps() > most) {
                throw Problem.invalid("followUps", "must be at most " + most + ", as the study gives up then");
            }
        });
        String currency = currency(request, all);
        List<RunPlan.Cell> planned = RunPlan.of(
                inOrder(request.promptIds(), prompts.soundIds(study)),
                inOrder(
                        request.candidateIds(),
                        candidates.ofStudy(study).stream()
                                .map(CandidateView::id)
                                .toList()),
                request.attempts(),
                request.onlyMissing(),
                lastAttempts(study));
        if (planned.size() > MOST_CELLS) {
            throw Problem.invalid("attempts", "must make at most " + MOST_CELLS + " answers in one run");
        }
        answers.requireRoom(study, planned.size(), 0);
        return new Asked(planned, soundPrompts, all, bySource, currency);
    }

    private static <T> List<T> inOrder(List<T> chosen, List<T> all) {
        Set<T> set = new HashSet<>(chosen);
        return all.stream().filter(set::contains).toList();
    }

    private java.util.function.BiFunction<PromptId, CandidateId, Integer> lastAttempts(StudyId study) {
        Map<Answers.Cell, Integer> last = answers.lastAttempts(study);
        return (prompt, candidate) -> last.getOrDefault(new Answers.Cell(prompt, candidate), 0);
    }

    /** One currency for all, or money cannot be added up. */
    private static @Nullable String currency(StartRun request, Map<CandidateId, CandidateView> all) {
        Set<String> currencies = new HashSet<>();
        for (CandidateId id : request.candidateIds()) {
            CandidateView candidate = Require.known(all, id);
            var price = candidate.content().price();
            if (RunCosts.of(price, 1, 1).isPresent()) {
                currencies.add(Objects.requireNonNull(price.currency()));
            } else if (request.budgetCost() != null && price.monthly() == null) {
                throw Problem.invalid(
                        "budgetCost", "needs a price for every candidate; " + candidate.name() + " has none");
            }
        }
        if (currencies.size() > 1) {
            throw Problem.invalid(
                    "candidateIds", "must have their prices in one currency; run those of each by themselves");
        }
        return currencies.stream().findFirst().orElse(null);
    }
}
