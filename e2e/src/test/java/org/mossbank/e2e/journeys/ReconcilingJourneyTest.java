package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.mossbank.e2e.Browser;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.SheetWork;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** From a list of splits over a talk by keyboard to settled grades that stand beside the outcome. */
public class ReconcilingJourneyTest extends Journey {
    private ApiClient lead;
    private String study;

    /** The demo study once more, wholly graded. */
    @BeforeClass(dependsOnMethods = "openBrowser")
    public void bringInAndGradeTheRest() {
        lead = ApiClient.signedIn(server().address(), "orla", PASSWORD);
        JsonNode studies = lead.get("/api/studies").json();
        String demo = studies.get(studies.size() - 1).path("id").asString();
        byte[] archive = lead.get("/api/studies/" + demo + "/archive").raw().body();
        study = lead.upload("/api/studies/archive?again=true", archive)
                .json()
                .path("studyId")
                .asString();
        for (String name : List.of("tove", "juri")) {
            ApiClient rater = ApiClient.signedIn(server().address(), name, PASSWORD);
            for (JsonNode sheet : rater.get("/api/sheets").json()) {
                if (sheet.path("studyId").asString().equals(study) && !sheet.has("sentAt")) {
                    SheetWork.gradeAndSend(rater, sheet.path("id").asString(), 2);
                }
            }
        }
    }

    private String pathOf(JsonNode split) {
        return "/splits/" + split.path("id").asString();
    }

    private JsonNode splitThat(String state) {
        return lead.get("/api/studies/" + study + "/splits")
                .json()
                .valueStream()
                .filter(s -> s.path("state").asString().equals(state)
                        && s.path("words").asInt() == 0)
                .findFirst()
                .orElseThrow();
    }

    /** Two clicks to see which, and a third to read it with the answers that it failed on. */
    @Test
    public void theAnchorThatPartsRatersMostIsThreeClicksAway() {
        browser.signInAs("Orla Fennick");
        browser.click(By.xpath("//a[contains(@href, '" + study + "')]"));
        browser.clickLink("Agreement");
        By first = By.xpath("//section[@aria-label='Levels']//li[1]/button");
        String levels = browser.see(first).getText();
        browser.click(first);
        browser.see(By.xpath("//section[@aria-label='Levels']//li[1][contains(., 'Sharpen them')]"));
        browser.see(By.xpath("//section[@aria-label='Answers that got both levels']//li"));
        assertThat(levels).contains("%");
        Axe.scan(browser, ROOT, "agreement, narrowed down");

        // What is looked at stands in the address, and is let go by keyboard.
        browser.driver().navigate().refresh();
        browser.see(By.xpath("//section[@aria-label='Levels']//li[1]/button[@aria-pressed='true']"));
        browser.tabTo("Let go: between").press(Keys.ENTER);
        browser.see(By.xpath("//section[@aria-label='Widest splits']//li"));
        assertThat(browser.driver().getCurrentUrl()).doesNotContain("levels=");
    }

    @Test(dependsOnMethods = "theAnchorThatPartsRatersMostIsThreeClicksAway")
    public void theLeadTakesSplitsUpFromTheListAndRatersAreTold() {
        browser.signInAs("Orla Fennick");
        browser.go("/studies/" + study + "/agreement").seeHeading();
        browser.clickButton("Take up the 10 widest");
        browser.seeText("10 splits are taken up");
        assertThat(lead.get("/api/studies/" + study + "/splits").json().size()).isEqualTo(15);

        browser.signInAs("Bram Okkers");
        browser.seeText("Splits to talk about");
        browser.seeText("where do you stand?");
    }

    /** Without a mouse, from the first page on. */
    @Test(dependsOnMethods = "theLeadTakesSplitsUpFromTheListAndRatersAreTold")
    public void aRaterTalksByKeyboardAloneAndConsentSettlesIt() {
        JsonNode split = splitThat("OPEN");
        lead.post("/api" + pathOf(split) + "/words", says("Brindle and Tansy do that, I think."));
        browser.go(pathOf(split)).seeText("The talk");
        browser.seeText("[masked] and [masked] do that");
        tabTo("What you saw").press("It says so in the last line.");
        browser.driver().navigate().refresh();
        browser.seeText("The talk");
        assertThat(browser.field("What you saw").getAttribute("value")).isEqualTo("It says so in the last line.");
        tabTo("What you saw").press(Keys.chord(Keys.CONTROL, Keys.ENTER));
        browser.seeText("Bram Okkers (you)");
        browser.await(d -> String.valueOf(browser.field("What you saw").getAttribute("value"))
                .isEmpty());

        browser.click(By.cssSelector("fieldset input[type=radio]:checked"));
        for (int i = 0; i < 5; i++) {
            browser.press(Keys.ARROW_LEFT);
            if (browser.all(By.cssSelector("fieldset label:first-of-type input:checked"))
                            .size()
                    == 1) {
                break;
            }
        }
        tabTo("Why").press("The last line decides it.");
        browser.tabTo("Stand there").press(Keys.ENTER);
        browser.seeText("stands at 0 now");

        for (String name : List.of("ines", "juri", "sana", "tove")) {
            ApiClient rater = ApiClient.signedIn(server().address(), name, PASSWORD);
            rater.post(
                    "/api" + pathOf(split) + "/stances",
                    Map.of("id", UUID.randomUUID().toString(), "level", 0, "reason", "So be it."));
        }
        browser.seeText("Settled at 0 by all");
        browser.seeText("the grades they gave stay");
        assertThat(browser.all(By.xpath("//button[.='Say it']"))).isEmpty();
    }

    /** Presses Tab until the field with the label has the focus. */
    private Browser tabTo(String label) {
        WebElement field = browser.field(label);
        for (int i = 0; i < 60 && !browser.driver().switchTo().activeElement().equals(field); i++) {
            browser.press(Keys.TAB);
        }
        assertThat(browser.driver().switchTo().activeElement()).as(label).isEqualTo(field);
        return browser;
    }

    private static Map<String, Object> says(String words) {
        return Map.of("id", UUID.randomUUID().toString(), "words", words);
    }

    @Test(dependsOnMethods = "aRaterTalksByKeyboardAloneAndConsentSettlesIt")
    public void theLeadSettlesWithAReasonAndItStandsBesideTheOutcome() {
        JsonNode split = splitThat("OPEN");
        browser.signInAs("Orla Fennick");
        browser.go(pathOf(split)).seeText("Closing it");
        browser.clickButton("Settle it …");
        browser.field("Why").sendKeys("By its anchor.");
        browser.click(By.xpath("//*[@role='dialog']//button[starts-with(., 'Settle at')]"));
        browser.seeText("They knew the names.");
        browser.clickButton("Open it again …");
        browser.field("Why").sendKeys("Too soon.");
        browser.click(By.xpath("//*[@role='dialog']//button[.='Open it again']"));
        browser.seeText("It is open.");
        browser.clickButton("Leave it open …");
        browser.field("Why").sendKeys("A matter of taste.");
        browser.click(By.xpath("//*[@role='dialog']//button[.='Leave it open']"));
        browser.seeText("Left open by Orla Fennick");

        browser.go("/studies/" + study + "/grading").seeHeading();
        browser.clickButton("Close the round …");
        browser.click(By.xpath("//*[@role='dialog']//button[.='Close the round']"));
        browser.seeText("Open the round again");
        browser.go("/studies/" + study + "/recommendation").seeHeading();
        browser.seeText("have a settled grade");
        browser.seeText("Split settled by the lead");
        browser.seeText("Split left open");
        browser.go(pathOf(split)).seeText("A matter of taste.");
        assertThat(browser.all(By.xpath("//button[.='Say it']"))).isEmpty();
    }
}
