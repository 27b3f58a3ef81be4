package org.mossbank.core.turns;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import org.mossbank.core.turns.Course.Step;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class CourseTest {
    private static final TurnVerdict UNSAID = null;

    private static Course of(TurnVerdict... verdicts) {
        return new Course(Arrays.stream(verdicts).map(Optional::ofNullable).toList());
    }

    @DataProvider
    Object[][] courses() {
        return new Object[][] {
            {"at once", of(TurnVerdict.DOES), OptionalInt.of(0), List.of(), false},
            {
                "mended by the first",
                of(TurnVerdict.DOES_NOT, TurnVerdict.DOES),
                OptionalInt.of(1),
                List.of(Step.MENDED),
                false
            },
            {
                "stuck, then mended, then broken",
                of(TurnVerdict.SAID_DONE, TurnVerdict.DOES_NOT, TurnVerdict.DOES, TurnVerdict.DOES_NOT),
                OptionalInt.of(2),
                List.of(Step.STUCK, Step.MENDED, Step.BROKE),
                false
            },
            {"gave up", of(TurnVerdict.DOES_NOT, TurnVerdict.GAVE_UP), OptionalInt.empty(), List.of(Step.STUCK), true},
            {"held", of(TurnVerdict.DOES, TurnVerdict.DOES), OptionalInt.of(0), List.of(Step.HELD), false},
            {
                "may have worked before anybody looked",
                of(UNSAID, TurnVerdict.DOES),
                OptionalInt.empty(),
                List.of(),
                false
            },
            {"not looked at after the first", of(TurnVerdict.DOES_NOT, UNSAID), OptionalInt.empty(), List.of(), false},
            {"nothing came", of(), OptionalInt.empty(), List.of(), false},
        };
    }

    @Test(dataProvider = "courses")
    public void goesFromTurnToTurn(
            String name, Course course, OptionalInt works, List<Step> steps, boolean withoutSuccess) {
        assertThat(course.followUpsToWork()).as(name).isEqualTo(works);
        assertThat(course.steps()).as(name).isEqualTo(steps);
        assertThat(course.isWithoutSuccess()).as(name).isEqualTo(withoutSuccess);
    }

    @Test
    public void theLastIsWhatIsSaidOfTheLastReply() {
        assertThat(of(TurnVerdict.DOES, TurnVerdict.GAVE_UP).last()).contains(TurnVerdict.GAVE_UP);
        assertThat(of(TurnVerdict.DOES, UNSAID).last()).isEmpty();
        assertThat(of().last()).isEmpty();
    }
}
