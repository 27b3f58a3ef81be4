package org.mossbank.server.masking;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.masking.GiveAway;
import org.mossbank.core.masking.Span;
import org.mossbank.server.answer.FactsOfAnswers;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.testng.annotations.Test;

public class MaskingViewTest {
    private static Stretches.AnswerStretches answer(int decided, int undecided) {
        List<Stretches.Stretch> stretches = new ArrayList<>();
        for (int i = 0; i < decided + undecided; i++) {
            stretches.add(stretch(2 * i, i < decided ? true : null));
        }
        FactsOfAnswers.Whole answer = new FactsOfAnswers.Whole(
                AnswerId.random(),
                "a",
                PromptId.random(),
                CandidateId.random(),
                1,
                0,
                "x ".repeat(decided + undecided));
        return new Stretches.AnswerStretches(answer, stretches, true);
    }

    private static Stretches.Stretch stretch(int from, @Nullable Boolean accepted) {
        return new Stretches.Stretch(new Span(from, from + 1), GiveAway.Sort.NAME, "-", accepted);
    }

    @Test
    public void showsThoseToDecideOnBeforeTheOthers() {
        MaskingView.AnswerInMasking one =
                MaskingView.shown(List.of(answer(190, 30))).get(0);

        assertThat(one.stretches()).hasSize(200);
        assertThat(one.stretches().stream().filter(s -> s.accepted() == null)).hasSize(30);
        assertThat(one.stretches()).isSortedAccordingTo((a, b) -> Integer.compare(a.from(), b.from()));
        assertThat(one.more()).isEqualTo(20);
    }

    @Test
    public void showsNoMoreInAllThanAnybodyLooksThrough() {
        List<MaskingView.AnswerInMasking> all = MaskingView.shown(
                IntStream.range(0, 30).mapToObj(i -> answer(50, 100)).toList());

        assertThat(all.stream().mapToInt(a -> a.stretches().size()).sum()).isEqualTo(2_000);
        assertThat(all.get(0).stretches()).hasSize(100);
        assertThat(all.get(29).stretches()).isEmpty();
        assertThat(all.stream().mapToInt(MaskingView.AnswerInMasking::more).sum())
                .isEqualTo(30 * 150 - 2_000);
    }
}
