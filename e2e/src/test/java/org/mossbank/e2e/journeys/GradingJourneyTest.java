package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import org.mossbank.e2e.Browser;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.Wire;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.Test;

/** From a rater's last sheet to the lead's recommendation; the rater uses the keyboard alone. */
public class GradingJourneyTest extends Journey {

    @AfterMethod(alwaysRun = true)
    public void reconnect() {
        browser.setOffline(false);
    }

    @Test
    public void theLastSheetChangesAgreementAndOutcome() {
        browser.signInAs("Orla Fennick");
        openStudy("Agreement");
        String agreementBefore = rowOf("Correctness");
        openStudy("Recommendation");
        browser.seeHeading("How candidates stand is hidden until grading ends");
        browser.seeText("15 of 16");

        gradeByKeyboardAlone();

        browser.signInAs("Orla Fennick");
        openStudy("Agreement");
        assertThat(rowOf("Correctness")).isNotEqualTo(agreementBefore);
        openStudy("Recommendation");
        browser.seeHeading("How candidates stand is hidden until grading ends");
        openStudy("Grading");
        browser.seeText("81 of 83 sheets");
        withReason("Close the round …", "Why now", "Two are on leave.", "Close the round");
        browser.seeText("and was closed");
        openStudy("Recommendation");
        assertThat(browser.seeHeading().getText()).isEqualTo("We recommend Quillwort.");
        browser.seeText("81 of 83 sheets sent in");
        browser.seeText("Two are on leave.");
        openStudy("Grading");
        withReason("Open it again …", "Why", "They are back.", "Open it again");
        browser.see(By.xpath("//button[normalize-space()='Close the round …']"));
        openStudy("Recommendation");
        browser.seeText("They are back.");
    }

    /** A step that asks why. */
    private void withReason(String opens, String label, String reason, String does) {
        browser.clickButton(opens);
        browser.field(label).sendKeys(reason);
        browser.click(By.xpath("//*[@role='dialog']//button[normalize-space()='" + does + "']"));
    }

    private void openStudy(String layer) {
        if (!String.valueOf(browser.driver().getCurrentUrl()).contains("/studies/")) {
            browser.clickLink("A code model for the buoy service");
        }
        browser.click(By.xpath("//nav//a[.//span[normalize-space()='" + layer + "']]"));
        browser.await(d -> String.valueOf(d.getCurrentUrl()).endsWith("/" + layer.toLowerCase(java.util.Locale.ROOT)));
        browser.seeHeading();
    }

    private String rowOf(String criterion) {
        return browser.see(By.xpath("//tr[th//*[normalize-space()='" + criterion + "']]"))
                .getText();
    }

    /** Signs in, finds the sheet, and does all that a sheet asks for, without a mouse. */
    private void gradeByKeyboardAlone() {
        browser.driver().manage().deleteAllCookies();
        browser.go("/sign-in").seeText("This is the demo");
        typeInto("Name", "tove");
        typeInto("Password", PASSWORD);
        browser.press(Keys.ENTER);
        browser.seeHeading("1 sheet left to grade");
        browser.tabTo("Grade the next sheet").press(Keys.ENTER);
        browser.seeHeading("Review the page of notices");
        browser.await(d -> browser.focusedLabel().startsWith("Correctness, answer 1"));

        int[] levels = levelsByText();
        for (int row = 0; row < 3; row++) {
            for (int column = 0; column < levels.length; column++) {
                browser.press(String.valueOf(levels[column]));
                browser.press(column < levels.length - 1 ? Keys.ARROW_RIGHT : Keys.HOME);
            }
            browser.press(Keys.ARROW_DOWN);
        }
        browser.press(Keys.ARROW_UP, "u");
        assertThat(browser.focusedLabel())
                .startsWith("Best practice, answer 1, level " + levels[0])
                .contains(", unsure, ");

        judgeKeyPoints();
        browser.press("s");
        browser.seeText("missing before the sheet can be sent in");
        browser.await(d -> browser.focusedLabel().startsWith("Reason for the grades"));
        browser.press(Keys.ESCAPE);
        explainTheEnds(levels);
        takeBackAndDoAgain();
        browser.press("?");
        browser.seeText("Keys at the desk");
        browser.press(Keys.ESCAPE);
        browser.await(d -> d.findElements(By.cssSelector("[role=dialog]")).isEmpty());
        browser.press("s");
        guessAndGoOn();
    }

    private void judgeKeyPoints() {
        browser.press("k");
        browser.see(By.cssSelector("[role=grid][aria-label='Key points']"));
        browser.await(d -> browser.focusedLabel().endsWith("answer 1, nothing yet"));
        browser.press("1", Keys.ARROW_RIGHT, "2", Keys.ARROW_DOWN, "3");
        assertThat(browser.focusedLabel()).endsWith("answer 2, missed");
        browser.press("k");
        browser.await(d -> browser.focusedLabel().startsWith("Correctness, answer 2"));
        browser.press(Keys.HOME);
    }

    /** A remark on two lines for the first answer at an end of the scale, a reason for the others. */
    private void explainTheEnds(int[] levels) {
        boolean remarked = false;
        for (int column = 0; column < levels.length; column++) {
            browser.await(d -> !browser.focusedLabel().isEmpty());
            if (levels[column] != 4) {
                continue;
            }
            browser.press(Keys.HOME);
            for (int i = 0; i < column; i++) {
                browser.press(Keys.ARROW_RIGHT);
            }
            if (!remarked) {
                browser.press("l", Keys.ARROW_DOWN);
                browser.press(Keys.chord(Keys.SHIFT, Keys.ARROW_DOWN));
                browser.press("r");
                browser.see(By.cssSelector("form[aria-label^='Remark on answer']"));
                browser.press("+kept", Keys.ENTER, "As the page does it everywhere.", Keys.ENTER);
                browser.seeText("kept the code base's conventions");
                browser.await(d -> browser.focusedLabel().contains(", answer "));
                remarked = true;
            } else {
                browser.press("w");
                assertThat(browser.focusedLabel()).isEqualTo("Reason for the grades of answer " + (column + 1));
                browser.press("Weighs them as I would.", Keys.ESCAPE);
            }
        }
        browser.seeText("All saved");
    }

    private void takeBackAndDoAgain() {
        browser.press(Keys.HOME, Keys.DELETE);
        assertThat(browser.focusedLabel()).endsWith("no grade");
        browser.press(Keys.chord(Keys.CONTROL, "z"));
        browser.await(d -> browser.focusedLabel().contains("level"));
        browser.seeText("All saved");
    }

    private void guessAndGoOn() {
        browser.seeText("This sheet is sent in.");
        for (int i = 0; i < 8; i++) {
            browser.press(Keys.ARROW_DOWN);
        }
        browser.await(d -> browser.focusedLabel().startsWith("Who wrote it, answer 1"));
        browser.press("0");
        browser.await(d -> browser.focusedLabel().endsWith("no idea"));
        browser.press(Keys.ARROW_RIGHT, "1");
        browser.await(d -> !browser.focusedLabel().endsWith("nothing yet"));
        browser.seeText("All saved");
        browser.press("s");
        browser.seeHeading("All your sheets are sent in");
    }

    private void typeInto(String label, String text) {
        WebElement field = browser.field(label);
        for (int i = 0; i < 20 && !browser.driver().switchTo().activeElement().equals(field); i++) {
            browser.press(Keys.TAB);
        }
        browser.press(text);
    }

    /** What a reader of the answers would give, whatever order this sheet has them in. */
    private int[] levelsByText() {
        int[] levels = new int[5];
        // The answers come in one by one, from the left.
        browser.await(d -> d.findElements(By.cssSelector("[data-column]:not(.answer-late) .reading"))
                        .size()
                == levels.length);
        for (int i = 0; i < levels.length; i++) {
            String text = browser.see(By.cssSelector("[aria-label='Answer " + (i + 1) + "']"))
                    .getText();
            levels[i] = text.contains("Must be mended") || text.contains("Anybody who can publish")
                    ? 4
                    : text.contains("Thank you for the change") ? 1 : 3;
        }
        return levels;
    }

    private static void openJurisSheet(Browser window) {
        window.signInAs("Juri Halvard");
        window.clickLink("Review the page of notices");
        window.seeHeading("Review the page of notices");
    }

    @Test
    public void aLostConnectionLosesNothing() {
        openJurisSheet(browser);
        browser.click(By.cssSelector("[data-cell='0-0']"));
        browser.setOffline(true);
        browser.press("3", Keys.ARROW_DOWN, "2");
        browser.seeText("2 changes kept here");
        browser.setOffline(false);
        browser.seeText("All saved");
        browser.driver().navigate().refresh();
        browser.seeHeading("Review the page of notices");
        assertThat(browser.see(By.cssSelector("[data-cell='1-0']")).getAttribute("aria-label"))
                .contains("level 2 ");
    }

    /** What waits in the browser survives a reload, and goes out under the same id. */
    @Test(dependsOnMethods = "aLostConnectionLosesNothing")
    public void aReloadWhileTheServerIsOutOfReachLosesNothing() {
        openJurisSheet(browser);
        browser.click(By.cssSelector("[data-cell='2-0']"));
        browser.block("*/grades/*");
        browser.press("4");
        browser.seeText("1 change kept here");
        browser.driver().navigate().refresh();
        browser.seeHeading("Review the page of notices");
        browser.seeText("1 change kept here");
        browser.block();
        browser.await(d -> String.valueOf(
                        d.findElement(By.cssSelector("[data-cell='2-0']")).getAttribute("aria-label"))
                .contains("level 4 "));
        browser.seeText("All saved");
        assertThat(made()).isEqualTo(3);
    }

    /** Two windows on one sheet: the second asks before it writes over the first. */
    @Test(dependsOnMethods = "aReloadWhileTheServerIsOutOfReachLosesNothing")
    public void twoWindowsDoNotOverwriteEachOtherSilently() {
        openJurisSheet(browser);
        try (Browser second = Browser.open(server().address())) {
            openJurisSheet(second);
            browser.click(By.cssSelector("[data-cell='0-1']"));
            browser.press("1");
            browser.seeText("All saved");
            second.click(By.cssSelector("[data-cell='0-1']"));
            second.press("4");
            second.seeText("another window says 1, here it is 4");
            second.clickButton("Keep this one");
            second.seeText("All saved");
            browser.driver().navigate().refresh();
            browser.seeHeading("Review the page of notices");
            assertThat(browser.see(By.cssSelector("[data-cell='0-1']")).getAttribute("aria-label"))
                    .contains("level 4 ");
        }
    }

    @Test(dependsOnMethods = "twoWindowsDoNotOverwriteEachOtherSilently")
    public void anIncompleteSheetSaysWhatIsMissingAndGoesThere() {
        openJurisSheet(browser);
        browser.click(By.cssSelector("[data-cell='0-0']"));
        browser.press("s");
        browser.seeText("things are missing before the sheet can be sent in");
        browser.await(d -> browser.focusedLabel().equals("Reason for the grades of answer 1"));
        browser.clickButton("Answer 2: Idiom");
        browser.await(d -> browser.focusedLabel().equals("Idiom, answer 2, no grade"));
    }

    /** Not only requests fail: the whole connection is cut, and the page itself must come from the browser. */
    @Test(dependsOnMethods = "anIncompleteSheetSaysWhatIsMissingAndGoesThere")
    public void theDeskOpensWithoutAConnection() throws IOException {
        try (Wire wire = Wire.to(server().address());
                Browser away = Browser.open(wire.address())) {
            openJurisSheet(away);
            away.click(By.cssSelector("[data-cell='1-2']"));
            away.await(d -> away.focusedLabel().startsWith("Idiom, answer 3"));
            away.press("2");
            away.await(d -> label(away, "1-2").contains("level 2 "));
            away.seeText("All saved");
            // The copy follows what is saved by a moment.
            away.await(d -> Boolean.TRUE.equals(away.driver().executeAsyncScript(IS_KEPT, made())));

            wire.cut();
            away.driver().navigate().refresh();
            away.seeHeading("Review the page of notices");
            away.seeText("No connection: the sheet as it was here last");
            assertThat(label(away, "1-2")).contains("level 2 ");
            away.click(By.cssSelector("[data-cell='1-3']"));
            away.press("3");
            away.seeText("No connection: 1 change kept here");
            away.driver().navigate().refresh();
            away.seeText("No connection: 1 change kept here");
            assertThat(label(away, "1-3")).contains("level 3 ");

            wire.mend();
            away.seeText("All saved");
            browser.driver().navigate().refresh();
            browser.await(d -> label(browser, "1-3").contains("level 3 "));
            assertThat(label(browser, "1-2")).contains("level 2 ");
        }
    }

    /** Grades that juri has given on the sheet, as the server has them. */
    private long made() {
        ApiClient juri = ApiClient.signedIn(server().address(), "juri", PASSWORD);
        return juri.get("/api/sheets").json().values().stream()
                .filter(s -> s.path("promptTitle").asString().startsWith("Review the page"))
                .findFirst()
                .orElseThrow()
                .path("made")
                .asLong();
    }

    /** Whether all files of the page are kept in the browser, and a sheet with so many grades. */
    private static final String IS_KEPT = """
            const [made, done] = arguments;
            const graded = sheet => sheet.answers.flatMap(a => a.grades)
              .filter(g => g.level !== undefined || g.notApplicable).length;
            const sheets = caches.open('mossbank.copies').then(copies => copies.keys().then(keys => Promise.all(
              keys.filter(k => k.url.includes('/sheets/')).map(k => copies.match(k).then(r => r.json())))));
            Promise.all([caches.open('mossbank.files').then(c => c.keys()), sheets])
              .then(([files, copies]) => {
                const kept = files.map(file => file.url);
                const used = performance.getEntriesByType('resource').map(e => e.name).filter(n => n.includes('/assets/'));
                done(used.every(name => kept.includes(name)) && copies.some(sheet => graded(sheet) === made));
              }, () => done(false));""";

    private static String label(Browser window, String cell) {
        return String.valueOf(
                window.see(By.cssSelector("[data-cell='" + cell + "']")).getAttribute("aria-label"));
    }
}
