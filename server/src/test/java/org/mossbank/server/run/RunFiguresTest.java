package org.mossbank.server.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.List;
import org.mossbank.server.candidate.CandidateContent;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.testng.annotations.Test;

/** What asking costs, and in which order it is done. */
public class RunFiguresTest {
    private static CandidateContent.Price price(String input, String output) {
        return new CandidateContent.Price(
                input == null ? null : new BigDecimal(input),
                output == null ? null : new BigDecimal(output),
                null,
                "EUR",
                "",
                null);
    }

    @Test
    public void costsAreOfTokensAtTheCandidatesPricesRoundedUp() {
        // 1,500 at 2 and 500 at 10 a million: 0.003 + 0.005.
        assertThat(RunCosts.of(price("2", "10"), 1_500, 500)).contains(new BigDecimal("0.008000"));
        assertThat(RunCosts.of(price("0.5", null), 1, 9)).contains(new BigDecimal("0.000001"));
        assertThat(RunCosts.of(price(null, "3"), 7, 1_000_000)).contains(new BigDecimal("3.000000"));
        assertThat(RunCosts.of(CandidateContent.Price.UNKNOWN, 7, 7)).isEmpty();
    }

    @Test
    public void fourCharactersAreATokenRoundedUp() {
        assertThat(RunCosts.estimatedTokens("")).isZero();
        assertThat(RunCosts.estimatedTokens("abcd")).isOne();
        assertThat(RunCosts.estimatedTokens("abcde")).isEqualTo(2);
    }

    @Test
    public void amountsAreWrittenWithoutTheZerosOfTheirColumn() {
        assertThat(RunCosts.plain(new BigDecimal("2.500000"))).isEqualTo(new BigDecimal("2.5"));
        assertThat(RunCosts.plain(new BigDecimal("100.000000"))).isEqualTo(new BigDecimal("100"));
        assertThat(RunCosts.plain(null)).isNull();
        assertThat(RunCosts.plainOrZero(new BigDecimal("0.000000"))).isEqualTo(new BigDecimal("0"));
    }

    private static final List<PromptId> PROMPTS = List.of(PromptId.random(), PromptId.random());
    private static final List<CandidateId> CANDIDATES =
            List.of(CandidateId.random(), CandidateId.random(), CandidateId.random());

    @Test
    public void whoIsAskedFirstGoesRound() {
        List<RunPlan.Cell> cells = RunPlan.of(PROMPTS, CANDIDATES, 2, false, (p, c) -> 0);
        assertThat(cells).hasSize(12);
        assertThat(cells).extracting(RunPlan.Cell::group).containsExactly(0, 0, 0, 1, 1, 1, 2, 2, 2, 3, 3, 3);
        assertThat(cells)
                .extracting(c -> CANDIDATES.indexOf(c.candidateId()))
                .containsExactly(0, 1, 2, 1, 2, 0, 1, 2, 0, 2, 0, 1);
        assertThat(cells)
                .extracting(c -> PROMPTS.indexOf(c.promptId()))
                .containsExactly(0, 0, 0, 1, 1, 1, 0, 0, 0, 1, 1, 1);
        assertThat(cells).extracting(RunPlan.Cell::attempt).containsExactly(1, 1, 1, 1, 1, 1, 2, 2, 2, 2, 2, 2);
    }

    @Test
    public void attemptsGoOnFromThoseThatAreThere() {
        List<RunPlan.Cell> cells = RunPlan.of(PROMPTS, CANDIDATES, 1, false, (p, c) -> 3);
        assertThat(cells).extracting(RunPlan.Cell::attempt).containsOnly(4);
    }

    @Test
    public void whereOnlyWhatIsMissingIsAskedThereIsNoGroupWithoutCells() {
        PromptId done = PROMPTS.get(0);
        List<RunPlan.Cell> cells = RunPlan.of(PROMPTS, CANDIDATES, 2, true, (p, c) -> p.equals(done) ? 2 : 1);
        // Of the second prompt one more attempt of each candidate is missing, and nothing of the first.
        assertThat(cells).hasSize(3).allSatisfy(c -> {
            assertThat(c.promptId()).isEqualTo(PROMPTS.get(1));
            assertThat(c.attempt()).isEqualTo(2);
            assertThat(c.group()).isZero();
        });
    }
}
