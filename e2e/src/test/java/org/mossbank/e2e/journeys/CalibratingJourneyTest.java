package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.DemoInPreparation;
import org.mossbank.testkit.SheetWork;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Before the round: everybody grades two prompts, sees what others gave, talks, mends an anchor and grades again. */
public class CalibratingJourneyTest extends Journey {
    private ApiClient lead;
    private String study;

    @BeforeClass(dependsOnMethods = "openBrowser")
    public void bringInAStudyThatIsBeingPrepared() {
        lead = ApiClient.signedIn(server().address(), "orla", PASSWORD);
        study = DemoInPreparation.bringInToCalibrate(ROOT, lead);
    }

    private void grade(String name, int level) {
        ApiClient rater = ApiClient.signedIn(server().address(), name, PASSWORD);
        for (JsonNode sheet : rater.get("/api/sheets").json()) {
            if (sheet.path("studyId").asString().equals(study) && !sheet.has("sentAt")) {
                SheetWork.gradeAndSend(rater, sheet.path("id").asString(), level);
            }
        }
    }

    private String calibration() {
        return "/calibrations/" + study + "/1";
    }

    @Test
    public void theLeadLaysTwoPromptsBeforeEverybody() {
        browser.signInAs("Orla Fennick");
        browser.go("/studies/" + study + "/grading").seeHeading("Open a round");
        browser.clickButton("Calibrate …");
        browser.click(By.xpath("//label[contains(., 'Two ships at one berth')]"));
        browser.click(By.xpath("//label[contains(., 'When is the basin open?')]"));
        browser.clickButton("Lay them before the raters");
        browser.seeText("0 of 8 sheets sent in");
        browser.clickLink("Calibration 1");
        browser.seeText("Still grading: Bram Okkers, Ines Calder, Juri Halvard, Sana Tillery.");
        Axe.scan(browser, ROOT, "calibration that waits");
    }

    /** Without a mouse, from the cell to the proposal. */
    @Test(dependsOnMethods = "theLeadLaysTwoPromptsBeforeEverybody")
    public void onceTheLastIsInRatersTalkAndProposeByKeyboard() {
        grade("bram", 3);
        grade("ines", 3);
        grade("juri", 1);
        browser.signInAs("Bram Okkers");
        browser.seeText("waits for 2 sheets of others");
        grade("sana", 3);
        browser.go("/").seeText("all are in: compare and talk");
        browser.go(calibration()).seeText("What everybody gave");
        browser.seeText("How far you lie from the others");
        Axe.scan(browser, ROOT, "calibration");
        WebElement cell =
                browser.all(By.cssSelector("a[href*='criterion=correctness']")).get(0);
        cell.sendKeys(Keys.ENTER);
        browser.seeText("The talk");
        tabTo("From line").press("1");
        tabTo("What you saw").press("The first line has it.");
        browser.driver().navigate().refresh();
        browser.seeText("The talk");
        assertThat(browser.field("What you saw").getAttribute("value")).isEqualTo("The first line has it.");
        tabTo("From line").press("1");
        tabTo("What you saw").press(Keys.chord(Keys.CONTROL, Keys.ENTER));
        browser.seeText("on correctness, at line 1");
        Axe.scan(browser, ROOT, "answer of a calibration");

        browser.tabTo("Propose an anchor …");
        browser.press("p");
        browser.seeText("What raters grade by stays as it is");
        tabTo("What it should say").press(Keys.chord(Keys.CONTROL, "a"), "Right, and all that was asked.");
        browser.tabTo("Propose it").press(Keys.ENTER);
        browser.seeText("Proposed. The lead finds it with the rubric.");
        assertThat(browser.all(By.xpath("//button[starts-with(., 'Settle it')]")))
                .isEmpty();
    }

    /** Presses Tab until the field with the label has the focus. */
    private org.mossbank.e2e.Browser tabTo(String label) {
        WebElement field = browser.field(label);
        for (int i = 0; i < 60 && !browser.driver().switchTo().activeElement().equals(field); i++) {
            browser.press(Keys.TAB);
        }
        assertThat(browser.driver().switchTo().activeElement()).as(label).isEqualTo(field);
        return browser;
    }

    @Test(dependsOnMethods = "onceTheLastIsInRatersTalkAndProposeByKeyboard")
    public void theLeadSettlesPublishesTheNextVersionAndHasItGradedAgain() {
        browser.signInAs("Orla Fennick");
        browser.go(calibration() + "/1?criterion=correctness").seeText("The first line has it.");
        browser.clickButton("Settle it …");
        browser.click(By.xpath("//*[@role='dialog']//label[contains(., '2')]"));
        browser.field("Why").sendKeys("Half of it.");
        browser.click(By.xpath("//*[@role='dialog']//button[.='Settle it']"));
        browser.seeText("Settled by Orla Fennick");

        browser.go("/studies/" + study + "/rubric").seeText("Proposed for the next version");
        browser.clickButton("Take it …");
        browser.click(By.xpath("//*[@role='dialog']//button[.='Take it']"));
        browser.seeText("Version 3, a draft");
        browser.clickButton("Publish …");
        browser.click(By.xpath("//*[@role='dialog']//button[.='Publish it']"));
        browser.seeText("Version 3, published");

        browser.go(calibration()).seeText("What comes next");
        browser.clickButton("Have it graded again …");
        browser.click(By.xpath("//*[@role='dialog']//button[.='Lay it before them again']"));
        browser.seeText("It is graded again: 0 of 8 sheets sent in");
        List.of("bram", "ines", "juri", "sana").forEach(name -> grade(name, 2));
        browser.go(calibration()).seeText("After it");
        browser.seeText("settled 2");
        browser.resize(390, 800);
        browser.go(calibration()).seeText("After it");
        assertThat(browser.driver().executeScript("return document.documentElement.scrollWidth"))
                .isEqualTo(390L);
        browser.go(calibration() + "/1").seeText("The talk");
        assertThat(browser.driver().executeScript("return document.documentElement.scrollWidth"))
                .isEqualTo(390L);
        browser.resize(1280, 800);
    }

    @Test(dependsOnMethods = "theLeadSettlesPublishesTheNextVersionAndHasItGradedAgain")
    public void whatTheySettledTeachesTheRatersOfAnotherStudy() {
        browser.go(calibration()).seeText("1 answer has a level to stand at.");
        browser.tabTo("Keep the prompts with these answers").press(Keys.ENTER);
        browser.seeText("is kept as version 1, with 1 answer.");
        String other = lead.post("/api/studies", Map.of("title", "Another quay"))
                .json()
                .path("id")
                .asString();
        browser.go("/studies/" + other + "/prompts").seeHeading("Prompts");
        browser.click(By.xpath("(//button[starts-with(@aria-label, 'From the bank')])[1]"));
        browser.click(By.xpath("//*[@role='dialog']//button[contains(., '1 answer with levels')]"));
        browser.seeText("Brings along 1 answer to calibrate by:");
        Axe.scan(browser, ROOT, "bank with answers");
        browser.clickButton("Take version 1");
        browser.seeText("One answer came out of the bank with it.");
        browser.click(By.xpath("//summary[starts-with(., 'Answer 1: correctness 2 of 4')]"));
        browser.seeText("Half of it.");
        Axe.scan(browser, ROOT, "prompt with answers from the bank");
    }
}
