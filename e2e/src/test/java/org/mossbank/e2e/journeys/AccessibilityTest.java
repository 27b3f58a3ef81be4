package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.DemoInPreparation;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Every main view in both themes, scanned with axe-core; no violation is let pass. */
public class AccessibilityTest extends Journey {
    private void scan(String view) {
        Axe.scan(browser, ROOT, view);
    }

    @Test
    public void signInPage() {
        browser.driver().manage().deleteAllCookies();
        browser.go("/sign-in").seeText("This is the demo");
        scan("sign-in");
    }

    @Test
    public void welcomePage() {
        browser.go("/welcome#spent").seeHeading("This link is spent");
        scan("welcome");
    }

    @Test
    public void leadsPages() {
        browser.signInAs("Orla Fennick");
        scan("home");
        browser.go("/bring-in");
        scan("bring-in");
        ApiClient lead = ApiClient.signedIn(server().address(), "orla", PASSWORD);
        JsonNode studies = lead.get("/api/studies").json();
        String study = studies.get(studies.size() - 1).path("id").asString();
        String prompt = lead.get("/api/studies/" + study + "/prompts")
                .json()
                .get(2)
                .path("id")
                .asString();
        browser.go("/studies/" + study + "/prompts/" + prompt);
        scan("prompt");
        for (String step : new String[] {
            "brief", "prompts", "candidates", "answers", "rubric", "grading", "agreement", "recommendation"
        }) {
            browser.go("/studies/" + study + "/" + step);
            scan(step);
        }
        String split =
                lead.get("/api/studies/" + study + "/splits").json().at("/0/id").asString();
        browser.go("/splits/" + split).seeText("The talk");
        scan("split");
        browser.go("/studies/" + study + "/recommendation?look=1").seeHeading();
        scan("look");
        browser.go("/studies/" + study + "/recommendation/how?look=1").seeHeading();
        scan("how the outcome comes about");
        browser.go("/studies/" + study + "/answers/masking").seeText("Fenlight");
        scan("masking");
        browser.click(By.xpath("//nav//a[.//span[normalize-space()='Answers']]"));
        browser.clickLink("Drift alarm fires");
        browser.seeHeading("Drift alarm");
        scan("answers of a prompt");
        browser.go("/studies/" + study + "/grading").seeHeading();
        browser.clickButton("Close the round …");
        browser.seeText("Raters will see which candidate wrote what");
        scan("dialog");
        browser.go("/studies/" + study + "/nowhere");
        scan("no such page");
    }

    /** From a table to an answer and back, in the order that was chosen. */
    @Test
    public void promptByPrompt() {
        browser.signInAs("Orla Fennick");
        ApiClient lead = ApiClient.signedIn(server().address(), "orla", PASSWORD);
        browser.go("/studies/" + DemoInPreparation.bringInOver(ROOT, lead) + "/recommendation")
                .seeHeading();
        browser.clickLink("By prompt");
        browser.seeHeading("Prompt by prompt");
        browser.seeText("8 prompts together");
        scan("prompt by prompt");
        browser.clickButton("Apart");
        browser.await(d -> d.getCurrentUrl().contains("by=spread"));
        browser.click(By.cssSelector("tbody td a"));
        browser.await(d -> d.getCurrentUrl().contains("/answers/"));
        browser.driver().navigate().back();
        browser.seeHeading("Prompt by prompt");
        browser.await(d -> d.getCurrentUrl().contains("by=spread"));
    }

    /** Of the demo's study, whatever is read in it. */
    private List<String> readingPages() {
        ApiClient lead = ApiClient.signedIn(server().address(), "orla", PASSWORD);
        JsonNode studies = lead.get("/api/studies").json();
        String study = "/studies/" + studies.get(studies.size() - 1).path("id").asString();
        String prompt =
                lead.get("/api" + study + "/prompts/titles").json().at("/0/id").asString();
        String split = lead.get("/api" + study + "/splits").json().at("/0/id").asString();
        return List.of(
                "/splits/" + split,
                study + "/answers/" + prompt,
                study + "/recommendation?look=1",
                study + "/agreement",
                study + "/grading",
                study + "/prompts/" + prompt,
                study + "/brief");
    }

    /** A page scrolls down, never sideways; what is wide scrolls within itself. */
    @Test
    public void pagesAreReadOnANarrowScreen() {
        browser.signInAs("Orla Fennick");
        browser.resize(390, 800);
        try {
            for (String page : readingPages()) {
                browser.go(page).seeHeading();
                browser.awaitPage();
                assertThat((Boolean) browser.driver()
                                .executeScript("return document.documentElement.scrollWidth <= innerWidth"))
                        .as(page)
                        .isTrue();
            }
        } finally {
            browser.resize(1280, 800);
        }
    }

    /** A sheet of paper has no edge beyond which something could be scrolled to, and nothing to press to get elsewhere. */
    @Test
    public void pagesAreReadOnPaper() {
        browser.signInAs("Orla Fennick");
        browser.resize(PAPER, 1000);
        try {
            for (String page : readingPages()) {
                // What is drawn as it comes into sight is there by then.
                browser.go(page).seeHeading();
                browser.awaitPage();
                browser.print(true);
                assertThat(browser.driver().executeScript(LOST_ON_PAPER, SHRUNK * PAPER))
                        .as(page)
                        .isEqualTo(List.of());
                browser.print(false);
            }
        } finally {
            browser.print(false);
            browser.resize(1280, 800);
        }
    }

    /** A4 without its margins, in pixels of CSS. */
    private static final int PAPER = 688;

    /** What is a quarter wider is printed smaller, and still read. */
    private static final double SHRUNK = 1.25;

    private static final String LOST_ON_PAPER = """
            const most = arguments[0];
            // What is only said to whoever listens is a pixel.
            const seen = e => e.getBoundingClientRect().width > 1 && e.checkVisibility({ visibilityProperty: true });
            const cut = (e, over, all, room) => getComputedStyle(e)[over] !== 'visible' && all > room + 1;
            return [...document.querySelectorAll('body *:not(textarea)')].filter(seen)
                .filter(e => e.matches('nav') || e.getBoundingClientRect().right > most
                    || cut(e, 'overflowX', e.scrollWidth, e.clientWidth)
                    || cut(e, 'overflowY', e.scrollHeight, e.clientHeight))
                .map(e => e.tagName + ' ' + e.className + ' ' + e.textContent.slice(0, 40));""";

    /** The same views while a study is prepared, when they are written in. */
    @Test
    public void leadsPagesWhilePreparing() {
        ApiClient lead = ApiClient.signedIn(server().address(), "orla", PASSWORD);
        String study = "/studies/" + DemoInPreparation.bringIn(ROOT, lead);
        browser.signInAs("Orla Fennick");
        for (String step : new String[] {
            "brief", "prompts", "candidates", "answers", "rubric", "grading", "agreement", "recommendation"
        }) {
            browser.go(study + "/" + step);
            scan(step + " while preparing");
        }
        browser.go(study + "/prompts");
        browser.clickLink("In which order does the tender visit?");
        browser.seeHeading("In which order");
        scan("prompt being written");
        browser.clickButton("From git");
        browser.seeText("Starting code from git");
        scan("git dialog");
        browser.go(study + "/candidates");
        browser.clickLink("Write");
        scan("candidate being written");
        browser.go(study + "/answers");
        browser.clickLink("In which order does the tender visit?");
        browser.clickButton("Paste an answer");
        browser.seeText("How it ended");
        scan("answer being pasted");
        browser.go(study + "/answers/files").seeText("Drop the file here");
        scan("answers from a file");
        browser.go(study + "/answers/masking");
        browser.click(By.xpath("//button[contains(@aria-label, 'Take back: Fenlight')]"));
        browser.seeHeading("1 stretch to decide on");
        scan("stretch to decide on");
        browser.go(study + "/grading");
        browser.seeText("The plan");
        scan("plan");
        String collecting = "/studies/" + DemoInPreparation.bringInCollecting(ROOT, lead, 1, "");
        browser.go(collecting + "/answers/collect").seeText("costs at most");
        scan("collecting");
        browser.click(By.partialLinkText("Run of"));
        browser.seeText("9 of 9 answers, finished.");
        scan("run");
        browser.clickLink("Give the fees a shape");
        browser.field("Code").sendKeys("as diff");
        browser.seeText("18 lines added, 0 removed");
        scan("differences");
        browser.go(collecting + "/candidates");
        browser.clickLink("Write");
        browser.clickButton("Change the source");
        browser.seeText("Request body");
        scan("source");
    }

    @Test
    public void aReadersPage() {
        ApiClient lead = ApiClient.signedIn(server().address(), "orla", PASSWORD);
        DemoInPreparation.bringIn(ROOT, lead);
        browser.signInAs("Ines Calder");
        scan("prompts to read back");
        browser.click(By.xpath("//section[.//h2='Prompts to read back']//a[.='Clean up the chart label']"));
        browser.seeText("What do you think is asked?");
        scan("reading");
    }

    @Test
    public void ratersPages() {
        browser.signInAs("Sana Tillery");
        scan("my sheets");
        browser.click(By.linkText("Drift alarm fires at the dateline"));
        browser.seeHeading("Drift alarm");
        scan("desk, sent in");
        browser.click(By.xpath("//section[@aria-label='Answer 1']//button[.='Files']"));
        browser.see(By.cssSelector(".plain-lines"));
        scan("desk, files");
        browser.signInAs("Juri Halvard");
        browser.click(By.linkText("Service visits show a day early"));
        browser.seeHeading("Service visits");
        scan("desk");
        browser.press("k");
        browser.see(By.cssSelector("[role=grid][aria-label='Key points']"));
        browser.press("l", "r");
        browser.press("in");
        browser.see(By.cssSelector("[role=listbox]:not([hidden])"));
        scan("desk, key points and a remark");
        browser.press(Keys.ESCAPE);
        browser.await(d -> browser.focusedLabel().contains(", answer 1"));
        browser.press("k", "q");
        browser.press("day", Keys.ENTER);
        browser.seeText("1 of ");
        scan("desk, search");
        browser.press(Keys.ESCAPE, "g");
        browser.seeText("The code of");
        browser.seeText("only in answer");
        scan("desk, comparison");
        browser.press("g");
        browser.clickButton("Keys");
        browser.seeText("Keys at the desk");
        scan("keys");
    }

    /** Once grading begins the prompt gives way; what does not fit whole shows that it is there. */
    @Test
    public void answersHaveHalfOfTheHeightAndStandThereWhole() {
        browser.signInAs("Juri Halvard");
        browser.click(By.linkText("Service visits show a day early"));
        browser.seeHeading("Service visits");
        browser.await(d -> browser.focusedLabel().startsWith("Correctness, answer 1"));
        browser.press(Keys.ARROW_DOWN);
        browser.await(d -> shareOfAnswers() >= 0.5);
        assertThat(wholeColumns()).as("and the edge of the fourth").isEqualTo(3);
        for (int i = 0; i < 4; i++) {
            browser.press(Keys.ARROW_RIGHT);
        }
        browser.await(d -> wholeColumns() >= 3);
        browser.press("p");
        browser.see(By.cssSelector("section[aria-label='Prompt']"));

        browser.signInAs("Sana Tillery");
        browser.click(By.linkText("Drift alarm fires at the dateline"));
        browser.seeText("This sheet is sent in.");
        browser.press(Keys.ARROW_DOWN);
        browser.await(d -> shareOfAnswers() >= 0.5);
    }

    private double shareOfAnswers() {
        return ((Number)
                        browser.driver()
                                .executeScript(
                                        "return document.querySelector('[data-column]:not([inert])').clientHeight / innerHeight"))
                .doubleValue();
    }

    /** Columns of which all is in sight, right of the heads of the rows. */
    private long wholeColumns() {
        return ((Number) browser.driver().executeScript("""
                        return [...document.querySelectorAll('[data-column]:not([inert])')].filter(c => {
                            const at = c.getBoundingClientRect();
                            return at.left >= 180 && at.right <= innerWidth + 1;
                        }).length;""")).longValue();
    }

    /** A window of 1280 by 800 shows this much when it is enlarged to 200 %. */
    @Test
    public void theDeskEnlargedTwofold() {
        browser.resize(640, 400);
        try {
            browser.signInAs("Juri Halvard");
            browser.click(By.linkText("Service visits show a day early"));
            assertThat(browser.seeHeading("Service visits").getSize().getWidth())
                    .as("the title has room")
                    .isGreaterThan(300);
            browser.await(d -> browser.focusedLabel().startsWith("Correctness, answer 1"));
            for (int row = 0; row < 4; row++) {
                assertThat((Boolean) browser.driver().executeScript(CELL_AND_CHOICES_IN_SIGHT))
                        .as("row %d and its choices are in sight", row + 1)
                        .isTrue();
                browser.press(Keys.ARROW_DOWN);
            }
            assertThat((Boolean)
                            browser.driver().executeScript("return document.documentElement.scrollWidth <= innerWidth"))
                    .as("only the table goes on to the right")
                    .isTrue();
            browser.press(Keys.END);
            browser.await(d -> browser.focusedLabel().contains(", answer 5"));
            assertThat((Boolean) browser.driver().executeScript(CELL_AND_CHOICES_IN_SIGHT))
                    .isTrue();
            // Colours are those of the desk at its usual size.
            browser.awaitPage();
            Axe.inLight(browser, ROOT, "desk, enlarged");
        } finally {
            browser.resize(1280, 800);
        }
    }

    private static final String CELL_AND_CHOICES_IN_SIGHT = """
            const cell = document.activeElement.getBoundingClientRect();
            const choices = document.querySelector("[aria-label^='Choices for']").getBoundingClientRect();
            return cell.top >= 0 && cell.bottom <= choices.top + 1 && choices.bottom <= innerHeight + 1
                && choices.height > 20 && cell.left >= 0 && cell.left < innerWidth - 100;""";
}
