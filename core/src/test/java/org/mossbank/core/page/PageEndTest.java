package org.mossbank.core.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.mossbank.core.trial.CheckItem;
import org.mossbank.core.trial.TrialOutcome;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class PageEndTest {
    private static final PageSight FOCUS = new PageSight(PageSight.How.FOCUS, "button", "Stay", "", false);
    private static final PageSight TEXT = new PageSight(PageSight.How.TEXT, "", "", "Your grades stay.", true);

    private static final List<PageStep> ASKED = List.of(
            new PageStep(PageStep.Action.OPEN, "", "", "index.html", List.of()),
            new PageStep(PageStep.Action.CLICK, "button", "Leave …", "", List.of(FOCUS, TEXT)));

    private static PageEnd.StepEnd done(List<Boolean> sights, String... errors) {
        return new PageEnd.StepEnd("", sights, "button “Leave”", List.of(errors));
    }

    private static List<CheckItem> judged(boolean errorsAllowed, PageEnd.StepEnd... steps) {
        return new PageEnd(1280, 800, List.of(steps)).judge(ASKED, errorsAllowed);
    }

    @Test
    public void passesWhereAllIsSeen() {
        assertThat(judged(false, done(List.of()), done(List.of(true, true))))
                .containsExactly(
                        CheckItem.passed(CheckItem.Sort.PAGE, "1280 × 800, step 1: open index.html"),
                        CheckItem.passed(CheckItem.Sort.PAGE, "1280 × 800, step 2: click button “Leave …”"));
    }

    @Test
    public void tellsEachThingThatIsNotAsItMustBe() {
        assertThat(judged(false, done(List.of()), done(List.of(false, false)))
                        .get(1)
                        .why())
                .isEqualTo(
                        "the focus is on button “Leave”, not on button “Stay”; “Your grades stay.” is there, and must not be");
    }

    /** What was not looked at was not seen. */
    @Test
    public void takesASightThatIsMissingForUnseen() {
        assertThat(judged(false, done(List.of()), done(List.of(true))).get(1).outcome())
                .isEqualTo(TrialOutcome.WRONG_OUTPUT);
    }

    @Test
    public void countsErrorsUnlessTheyAreAllowed() {
        PageEnd.StepEnd said = done(List.of(), "a fault");
        assertThat(judged(false, said).get(0).why()).isEqualTo("it said: a fault");
        assertThat(judged(true, said).get(0).outcome()).isEqualTo(TrialOutcome.PASSED);
    }

    @Test
    public void afterAStepThatCannotBeDoneNothingIsComeTo() {
        PageEnd.StepEnd fault = new PageEnd.StepEnd("there is no button", List.of(), "", List.of());
        assertThat(judged(true, fault))
                .extracting(CheckItem::why)
                .containsExactly("there is no button", "it was not come to");
    }

    @DataProvider
    public Object[][] words() {
        return new Object[][] {
            {PageStep.Action.OPEN, "open a text"},
            {PageStep.Action.CLICK, "click button “Leave”"},
            {PageStep.Action.TYPE, "type “a text” into button “Leave”"},
            {PageStep.Action.PRESS, "press a text"},
            {PageStep.Action.WAIT_FOR, "wait for “a text”"},
        };
    }

    @Test(dataProvider = "words")
    public void aStepIsToldInWords(PageStep.Action action, String words) {
        assertThat(new PageStep(action, "button", "Leave", "a text", List.of()).words())
                .isEqualTo(words);
    }

    @Test
    public void whatIsMissedIsToldInWords() {
        assertThat(new PageSight(PageSight.How.ROLE, "list", "Tides", "", false).missed(""))
                .isEqualTo("list “Tides” is not there");
        assertThat(new PageSight(PageSight.How.FOCUS, "list", "Tides", "", true).missed("list “Tides”"))
                .isEqualTo("the focus is on list “Tides”, and must not be");
        assertThat(new PageSight(PageSight.How.TEXT, "", "", "Tides", true).missed(""))
                .isEqualTo("“Tides” is there, and must not be");
    }
}
