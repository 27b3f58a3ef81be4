package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.DemoInPreparation;
import org.mossbank.testkit.DemoRepository;
import org.mossbank.testkit.SheetWork;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.support.ui.Select;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** From a check to what it says of answers: written, tried, started, seen at the desk, repaired, contradicted, brought in again. */
public class TrialsJourneyTest extends Journey {
    private static final String MAIN = """
            import java.util.List;

            record Position(double latitude, double longitude) {}

            public class Main {
                public static void main(String[] arguments) throws Exception {
                    double allowed = Double.parseDouble(new String(System.in.readAllBytes()).strip());
                    List<Position> hour = List.of(new Position(-17.5001, 179.9989), new Position(-17.5, -179.9991));
                    boolean drifts = new DriftAlarm(new Position(-17.5, 179.9983), allowed).isDrifting(hour);
                    System.out.println(drifts ? "drifts" : "still");
                }
            }
            """;

    private static final String ABOVE = """
            import java.util.List;

            final class DriftAlarm {
                private static final double METRES_PER_DEGREE = 111_320;
                private final Position anchor;
                private final double allowedMetres;

                DriftAlarm(Position anchor, double allowedMetres) {
                    this.anchor = anchor;
                    this.allowedMetres = allowedMetres;
                }
            """;

    private ApiClient signedIn(String name) {
        return ApiClient.signedIn(server().address(), name, PASSWORD);
    }

    private static String idOf(JsonNode prompts, String title) {
        return prompts.valueStream()
                .filter(p -> p.at("/content/title").asString().equals(title))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asString();
    }

    /** At once, as pasting would. */
    private void paste(String label, String text) {
        WebElement field = browser.field(label);
        browser.driver()
                .executeScript(
                        "const set = Object.getOwnPropertyDescriptor(Object.getPrototypeOf(arguments[0]), 'value').set;"
                                + "set.call(arguments[0], arguments[1]);"
                                + "arguments[0].dispatchEvent(new Event('input', {bubbles: true}))",
                        field,
                        text);
    }

    @Test
    public void aLeadWritesACheckTriesItAndStartsTrials() {
        ApiClient lead = signedIn("orla");
        String study = DemoInPreparation.bringInWithoutChecks(ROOT, lead);
        String prompt =
                idOf(lead.get("/api/studies/" + study + "/prompts").json(), "Drift alarm fires at the dateline");
        browser.signInAs("Orla Fennick");
        browser.go("/studies/" + study + "/prompts/" + prompt + "/check").seeHeading("Check of answers’ code");
        browser.clickButton("Begin the check");
        browser.seeText("Loose code");
        paste("File", "DriftAlarm.java");
        paste("Above it", ABOVE);
        browser.click(By.xpath("//fieldset[legend='Files of the check']//button[contains(., 'Add')]"));
        paste("File 1: path", "Main.java");
        paste("File 1: text", MAIN);
        paste("Run 1: name", "Two hundred metres");
        paste("Standard input", "200");
        browser.click(By.xpath("//label[contains(., 'Its output matters')]"));
        paste("Output", "still\n");
        browser.seeText("All saved");
        Axe.scan(browser, ROOT, "a check");
        browser.clickButton("Try it");
        browser.seeText("did not compile");
        browser.go("/studies/" + study + "/answers/trials").seeHeading("Trials");
        browser.clickButton("Try what was not tried yet");
        browser.seeText("5 of 5 trials ended.");
        browser.seeText("By trial");
        Axe.scan(browser, ROOT, "trials");
        browser.click(By.xpath("//td//button[normalize-space()='passed']"));
        browser.seeText("A trial: passed");
        browser.clickButton("Repair the code …");
        browser.see(By.cssSelector(".cm-content"));
        browser.press(Keys.ESCAPE);
    }

    @Test
    public void aRaterSeesTrialsGivesAnInputRepairsALineAndGrades() {
        browser.signInAs("Juri Halvard");
        browser.clickLink("Service visits show a day early");
        browser.seeHeading("Service visits show a day early");
        browser.await(d -> browser.focusedLabel().startsWith("Correctness, answer 1"));
        browser.press("e");
        browser.seeText("shown once you have graded it");
        browser.press("e");
        browser.await(d -> browser.all(By.xpath("//h2[.='What came of trying the answers']"))
                .isEmpty());
        browser.see(By.cssSelector("[data-cell='0-0']")).click();
        for (int column = 0; column < 5; column++) {
            browser.press("4", Keys.ARROW_RIGHT);
        }
        browser.seeText("All saved");
        browser.press("e");
        browser.seeText("A moment, three hours behind");
        browser.click(By.xpath("//button[.='A moment, three hours behind']"));
        browser.seeText("Expected");
        Axe.scan(browser, ROOT, "trials at the desk");
        browser.field("Arguments").sendKeys("Etc/GMT+3 2026-12-24");
        browser.clickButton("Give it to 5 answers");
        browser.seeText("Your input 1: Etc/GMT+3 2026-12-24");
        browser.await(d ->
                browser.all(By.xpath("//td//span[contains(., '24 December')]")).size() >= 3);
        repairTheOneWithWrongOutput();
        assertThat(String.valueOf(browser.driver().executeScript("return document.body.innerText")))
                .doesNotContain("Brindle", "Marram", "Quillwort", "Tansy", "Tillery");
        browser.resize(390, 800);
        assertThat(browser.driver().executeScript("return document.documentElement.scrollWidth"))
                .isEqualTo(390L);
        browser.resize(1280, 800);
    }

    private void repairTheOneWithWrongOutput() {
        browser.click(By.xpath("(//tr[th='Repairs']//td[position() = count(//thead//th[contains(., 'wrong output')]"
                + "/preceding-sibling::th)]//button[contains(., 'Repair')])[1]"));
        WebElement code = browser.see(By.cssSelector(".cm-content"));
        code.click();
        code.sendKeys(Keys.chord(Keys.CONTROL, Keys.HOME));
        code.sendKeys("// tried with the day alone\n");
        browser.clickButton("Try it so");
        browser.seeText("After a repair of 1 line");
        browser.press(Keys.ESCAPE);
        browser.clickButton("Drop it");
        browser.seeText("(yours)");
    }

    @Test(dependsOnMethods = "aRaterSeesTrialsGivesAnInputRepairsALineAndGrades")
    public void gradesThatTrialsSpeakAgainstAreFlaggedAndComeInAgain() {
        ApiClient juri = signedIn("juri");
        ApiClient lead = signedIn("orla");
        JsonNode sheet = juri.get("/api/sheets")
                .json()
                .valueStream()
                .filter(s -> s.path("promptTitle").asString().equals("Service visits show a day early"))
                .findFirst()
                .orElseThrow();
        String study = sheet.path("studyId").asString();
        SheetWork.gradeAndSend(juri, sheet.path("id").asString(), 4);
        lead.post("/api/studies/" + study + "/round/close", Map.of("reason", "Enough is graded."));
        browser.signInAs("Orla Fennick");
        browser.go("/studies/" + study + "/recommendation/trials").seeHeading("Trials");
        browser.seeText("Grades that trials speak against");
        browser.see(By.xpath("//tr[contains(., 'Juri Halvard') and contains(., '4 of 4')]"));
        browser.seeText("What people tried of their own");
        Axe.scan(browser, ROOT, "trials beside the recommendation");
        browser.resize(390, 800);
        assertThat(browser.driver().executeScript("return document.documentElement.scrollWidth"))
                .isEqualTo(390L);
        browser.resize(1280, 800);

        String again = broughtInAgain(lead, study);
        assertThat(standings(lead, again)).isEqualTo(standings(lead, study));
    }

    /** From a check in a repository to what an answer broke there: tried, run, seen at the desk, counted, brought in again. */
    @Test
    public void whatAnAnswerDoesToAWholeRepositoryIsSeen() throws Exception {
        DemoRepository.make(ROOT, REPOSITORIES);
        ApiClient lead = signedIn("orla");
        String study = DemoInPreparation.bringInNext(ROOT, lead);
        String path = "/api/studies/" + study;
        JsonNode prompts = lead.get(path + "/prompts").json();
        lead.delete(path + "/prompts/" + idOf(prompts, "Review the arrival form"));
        lead.delete(path + "/prompts/" + idOf(prompts, PAGE) + "/check");
        browser.signInAs("Orla Fennick");
        browser.go("/studies/" + study + "/prompts/" + idOf(prompts, "Give the fees a shape") + "/check")
                .seeHeading("Check of answers’ code");
        browser.seeText("Answers change a whole repository");
        browser.clickButton("Look it up");
        browser.seeText("13 files at that commit.");
        Axe.scan(browser, ROOT, "a check in a repository");
        browser.clickButton("Try it");
        browser.seeText("2 still fail, as they may, 9 still pass");
        browser.go("/studies/" + study + "/answers/trials").seeHeading("Trials");
        browser.clickButton("Try what was not tried yet");
        browser.seeText("3 of 3 trials ended.");
        browser.click(By.xpath("//td//button[contains(., 'failed tests')]"));
        browser.seeText("1 broken");
        Axe.scan(browser, ROOT, "a trial in a repository");
        browser.press(Keys.ESCAPE);

        openTheRound(lead, path);
        browser.signInAs("Bram Okkers");
        browser.go("/").clickLink("Give the fees a shape");
        browser.seeHeading("Give the fees a shape");
        browser.await(d -> browser.focusedLabel().startsWith("Correctness, answer 1"));
        browser.press("e");
        browser.seeText("writesWhatIsKnownOfALine");
        browser.see(By.xpath("//td//span[starts-with(., 'broken')]"));
        Axe.scan(browser, ROOT, "a repository's tests at the desk");

        String again = broughtInAgain(lead, study);
        assertThat(standings(lead, again)).isNotEmpty().isEqualTo(standings(lead, study));
    }

    private static final String PAGE = "Ask before a berth is given up";

    /** From a check of a page to the wrong button that one answer preselects: written, tried, run, seen at the desk, brought in again. */
    @Test
    public void whatAPageDoesIsSeenStepByStep() {
        ApiClient lead = signedIn("orla");
        String study = DemoInPreparation.bringInNext(ROOT, lead);
        String path = "/api/studies/" + study;
        JsonNode prompts = lead.get(path + "/prompts").json();
        lead.delete(path + "/prompts/" + idOf(prompts, "Review the arrival form"));
        lead.delete(path + "/prompts/" + idOf(prompts, "Give the fees a shape") + "/check");
        String prompt = idOf(prompts, PAGE);
        lead.delete(path + "/prompts/" + prompt + "/check");
        browser.signInAs("Orla Fennick");
        browser.go("/studies/" + study + "/prompts/" + prompt + "/check").seeHeading("Check of answers’ code");
        new Select(browser.field("By which toolchain")).selectByValue("page");
        browser.clickButton("Begin the check");
        browser.seeText("A page is opened and looked at");
        browser.clickButton("Add a step");
        paste("Name", "Give up berth 4");
        browser.clickButton("Add what must be seen after step 2");
        new Select(browser.field("After step 2, sight 1")).selectByVisibleText("what has the focus");
        browser.all(By.xpath("//label[.='Name']/following-sibling::input"))
                .get(1)
                .sendKeys("Keep it");
        browser.seeText("All saved");
        Axe.scan(browser, ROOT, "a check of a page");
        new Select(browser.field("On")).selectByVisibleText("answer debug-give-up-berth-brindle");
        browser.clickButton("Try it");
        browser.await(d -> drawn("[aria-label='Pictures of the page'] img") == 2);

        browser.go("/studies/" + study + "/answers/trials").seeHeading("Trials");
        browser.clickButton("Try what was not tried yet");
        browser.seeText("3 of 3 trials ended.");
        browser.click(By.xpath("(//td//button[contains(., 'wrong output')])[1]"));
        browser.await(d -> drawn("[aria-label='Pictures of the page'] img") == 2);
        Axe.scan(browser, ROOT, "a trial of a page");
        browser.press(Keys.ESCAPE);

        openTheRound(lead, path);
        seePagesAtTheDesk();

        String again = broughtInAgain(lead, study);
        assertThat(standings(lead, again)).isNotEmpty().isEqualTo(standings(lead, study));
        assertThat(pictures(lead, again)).isEqualTo(6).isEqualTo(pictures(lead, study));
    }

    private void seePagesAtTheDesk() {
        browser.signInAs("Bram Okkers");
        browser.go("/").clickLink(PAGE);
        browser.seeHeading(PAGE);
        browser.await(d -> browser.focusedLabel().startsWith("Correctness, answer 1"));
        browser.press("e");
        browser.await(d -> drawn("table td img") == 6);
        browser.see(By.xpath("//td//span[contains(., 'the focus is on button “Give it up”')]"));
        Axe.scan(browser, ROOT, "pages at the desk");
        browser.press("z");
        browser.await(d -> drawn("[role=dialog] img") == 1);
        String first = browser.see(By.cssSelector("[role=dialog] h2")).getText();
        browser.press(Keys.ARROW_RIGHT, Keys.ARROW_DOWN);
        browser.await(
                d -> !browser.see(By.cssSelector("[role=dialog] h2")).getText().equals(first)
                        && browser.see(By.cssSelector("[role=dialog] h2"))
                                .getText()
                                .startsWith("Answer 2: 1280 × 800, step 2"));
        Axe.scan(browser, ROOT, "a page enlarged");
        browser.press(Keys.ESCAPE);
        browser.await(d -> browser.all(By.cssSelector("[role=dialog]")).isEmpty());
        assertThat(String.valueOf(browser.driver().executeScript("return document.body.innerText")))
                .doesNotContain("Brindle", "Quillwort", "Tansy");
    }

    /** How many pictures have come, and can be seen. */
    private long drawn(String selector) {
        browser.driver()
                .executeScript("for (const i of document.querySelectorAll(arguments[0])) i.scrollIntoView()", selector);
        return (Long) browser.driver()
                .executeScript(
                        "return [...document.querySelectorAll(arguments[0])].filter(i => i.naturalWidth > 0).length",
                        selector);
    }

    private static int pictures(ApiClient lead, String study) {
        String trials = "/api/studies/" + study + "/trials";
        return lead.get(trials)
                .json()
                .path("trials")
                .valueStream()
                .mapToInt(t -> lead.get(trials + "/" + t.path("id").asString())
                        .json()
                        .path("pictures")
                        .size())
                .sum();
    }

    /** With trials in sight from the start, so that a rater need not grade first. */
    private static void openTheRound(ApiClient lead, String path) {
        JsonNode view = lead.get(path + "/brief").json();
        ((ObjectNode) view.at("/brief/raters")).put("trials", "FROM_THE_START");
        lead.put(
                path + "/brief",
                Map.of(
                        "version",
                        view.path("version").asInt(),
                        "title",
                        view.path("title").asString(),
                        "brief",
                        view.path("brief")));
        lead.post(path + "/brief/close", Map.of());
        ApiClient.Response opened = lead.post(
                path + "/round",
                Map.of(
                        "ratersAnAnswer",
                        4,
                        "repeatShare",
                        0,
                        "leadGrades",
                        false,
                        "despite",
                        "They talked about it at length."));
        assertThat(opened.status()).as(opened.body()).isBetween(200, 204);
    }

    private static String broughtInAgain(ApiClient lead, String study) {
        byte[] out = lead.get("/api/studies/" + study + "/archive").raw().body();
        return lead.upload("/api/studies/archive?again=true", out)
                .json()
                .path("studyId")
                .asString();
    }

    private static List<String> standings(ApiClient lead, String study) {
        return lead.get("/api/studies/" + study + "/evidence")
                .json()
                .path("answers")
                .valueStream()
                .map(a -> a.path("standing").asString() + " " + a.path("lines").asInt(0) + " "
                        + a.at("/last/passed").asInt(0))
                .sorted()
                .toList();
    }
}
