package org.mossbank.server.run;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.answer.Measures;
import org.mossbank.server.candidate.CandidateContent;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.source.Reply;
import org.mossbank.server.source.SourceContent;
import org.mossbank.server.source.Sources;
import org.mossbank.server.source.Turn;
import org.springframework.stereotype.Component;

/** What a cell of a run is about: its prompt and turns, its candidate's price, and what a reply took. */
@Component
class RunSubject {
    private final Prompts prompts;
    private final Candidates candidates;
    private final Answers answers;
    private final Sources sources;

    RunSubject(Prompts prompts, Candidates candidates, Answers answers, Sources sources) {
        this.prompts = prompts;
        this.candidates = candidates;
        this.answers = answers;
        this.sources = sources;
    }

    /** The lead may have removed the answer, or the prepared follow-up, since the first reply came. */
    boolean canFollow(RunCell cell) {
        return cell.turn() == 0
                || cell.answerId() != null
                        && (cell.ownFollowUp() != null
                                || cell.turn() <= prompt(cell).followUps().size());
    }

    Candidates.Head candidate(RunCell cell) {
        return candidates.head(cell.candidateId()).orElseThrow();
    }

    /** How often a request that failed is sent at most. */
    int tries(Run run, RunCell cell) {
        return sources.of(run.studyId(), cell.candidateId())
                .map(SourceContent::mostTries)
                .orElse(1);
    }

    CandidateContent.Price price(RunCell cell) {
        return candidates.head(cell.candidateId()).map(Candidates.Head::price).orElse(CandidateContent.Price.UNKNOWN);
    }

    /** What was asked and replied before, as the answer has it, then what is asked now. */
    List<Turn> turns(RunCell cell) {
        return turns(cell, asked(cell));
    }

    /** The same where it was read already what the prompt asks. */
    List<Turn> turns(RunCell cell, PromptContent.Asked asked) {
        String first = PromptText.of(asked);
        if (cell.turn() == 0) {
            return List.of(new Turn(first, null));
        }
        AnswerView answer = answers.one(Objects.requireNonNull(cell.answerId())).orElseThrow();
        List<Turn> turns = new ArrayList<>();
        turns.add(new Turn(first, answer.text()));
        answer.followUps().forEach(f -> turns.add(new Turn(f.asked(), f.reply())));
        turns.add(new Turn(followUp(cell), null));
        return turns;
    }

    String followUp(RunCell cell) {
        String own = cell.ownFollowUp();
        return own == null ? prompt(cell).followUps().get(cell.turn() - 1) : own;
    }

    /** The starting code, text by path. */
    Map<String, String> code(RunCell cell) {
        return asked(cell).startingCode();
    }

    /** What candidates get of the cell's prompt. */
    PromptContent.Asked asked(RunCell cell) {
        return prompts.asked(cell.promptId()).orElseThrow();
    }

    /** The same with the version of the prompt. */
    Prompts.Sendable sendable(RunCell cell) {
        return prompts.sendable(cell.promptId()).orElseThrow();
    }

    Prompts.Outline prompt(RunCell cell) {
        return prompts.outline(cell.promptId()).orElseThrow();
    }

    Measures measures(RunCell cell, Reply reply) {
        boolean estimated = !reply.free() && (reply.inputTokens() == null || reply.outputTokens() == null);
        Long in = reply.inputTokens();
        Long out = reply.outputTokens();
        if (reply.free()) {
            // After a first reply nothing was added to what is known; before one, nothing is known.
            in = cell.turn() == 0 ? null : Long.valueOf(0);
            out = in;
        } else {
            in = in == null ? estimatedInput(cell) : in;
            out = out == null ? RunCosts.estimatedTokens(reply.text()) : out;
        }
        CandidateContent.Price price = price(cell);
        BigDecimal cost =
                in == null || out == null ? null : RunCosts.of(price, in, out).orElse(null);
        return new Measures(
                reply.firstOutputMs(),
                reply.totalMs(),
                in,
                out,
                cost,
                cost == null ? null : price.currency(),
                estimated,
                cell.tries(),
                reply.model());
    }

    private long estimatedInput(RunCell cell) {
        return turns(cell).stream()
                .mapToLong(t -> RunCosts.estimatedTokens(t.asked())
                        + (t.reply() == null ? 0 : RunCosts.estimatedTokens(t.reply())))
                .sum();
    }
}
