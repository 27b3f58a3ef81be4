package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.mossbank.standin.StandIn;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.DemoInPreparation;
import org.openqa.selenium.By;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** The lead collects attempts of two candidates from the stand-in, watches, stops, resumes, and brings a file in. */
public class CollectingJourneyTest extends Journey {
    private StandIn standIn;
    private String study;

    @BeforeClass
    public void begin() throws IOException {
        standIn = StandIn.start(0, List.of(ROOT.resolve("demo-next")), SECRET);
        ApiClient lead = ApiClient.signedIn(server().address(), "orla", PASSWORD);
        study = "/studies/" + DemoInPreparation.bringInCollecting(ROOT, lead, standIn.port(), "?fault=slow");
    }

    @AfterClass(alwaysRun = true)
    public void end() {
        if (standIn != null) {
            standIn.close();
        }
    }

    @Test
    public void collectsFromTwoCandidatesStopsAndResumes() {
        browser.signInAs("Orla Fennick");
        browser.go(study + "/answers").seeHeading("Answers");
        browser.clickLink("Collect from sources");
        browser.seeText("costs at most");
        browser.click(By.xpath("//label[contains(., 'Tansy')]"));
        browser.click(By.xpath("//label[contains(., 'Two ships at one berth')]"));
        browser.click(By.xpath("//label[contains(., 'Ask before a berth is given up')]"));
        browser.click(By.xpath("//label[contains(., 'Only attempts that are not there yet')]"));
        browser.field("Spend at most, EUR").sendKeys("5");
        browser.seeText("6 answers in 6 requests");
        browser.clickButton("Start");

        browser.seeText("0 of 6 answers, collecting.");
        browser.seeText("of at most 5");
        browser.seeText("asking");
        browser.seeText("first after");
        browser.clickButton("Stop at once");
        browser.seeText("It was stopped.");
        browser.seeText("incomplete");
        assertThat(browser.all(By.xpath("//td//div[starts-with(normalize-space(), 'waiting')]")))
                .isNotEmpty();
        int asked = standIn.asked("quillwort") + standIn.asked("brindle");

        browser.driver().navigate().refresh();
        browser.clickButton("Go on");
        browser.seeText("6 of 6 answers, finished.");
        assertThat(standIn.asked("quillwort") + standIn.asked("brindle"))
                .isEqualTo(6)
                .isGreaterThan(asked);
        assertThat(standIn.asked("tansy")).isZero();

        browser.clickLink("Review the arrival form");
        browser.seeHeading("Review the arrival form");
        String page = browser.driver().findElement(By.tagName("main")).getText();
        assertThat(page)
                .contains("Quillwort", "Brindle", "complete", "first output after", "tokens out a second", "EUR")
                .contains("of the context window")
                .contains("innerHTML");
        assertThat(browser.driver().getPageSource()).doesNotContain(SECRET);
    }

    @Test(dependsOnMethods = "collectsFromTwoCandidatesStopsAndResumes")
    public void bringsAFileInAfterLookingAtIt() throws IOException {
        Path bad = Files.createTempFile("answers", ".jsonl");
        Files.writeString(bad, "{\"prompt\": \"nobody-asked\", \"candidate\": \"tansy\", \"text\": \"x\"}\n");
        Path good = Files.createTempFile("answers", ".jsonl");
        Files.writeString(
                good,
                "{\"prompt\": \"review-arrival-form\", \"candidate\": \"tansy\", \"text\": \"Mind the name.\", "
                        + "\"follow_ups\": [{\"asked\": \"Which one?\", \"reply\": \"The ship's.\"}]}\n");
        browser.go(study + "/answers");
        browser.clickLink("Bring answers in");
        browser.see(By.cssSelector("input[type=file]")).sendKeys(bad.toString());
        browser.seeText("Nothing is taken until it is mended");
        browser.seeText("nobody-asked");
        browser.see(By.cssSelector("input[type=file]")).sendKeys(good.toString());
        browser.seeText("1 new answer");
        browser.clickButton("Take 1 answer");
        browser.seeText("1 answer is taken");
        browser.clickLink("See all answers");
        browser.seeText("1 follow-up, its own");
    }

    /** A prompt came to have a password in it: the lead sees where, and says that it may be sent before it is. */
    @Test(dependsOnMethods = "bringsAFileInAfterLookingAtIt")
    public void asksBeforeWhatLooksLikeASecretIsSent() {
        ApiClient lead = ApiClient.signedIn(server().address(), "orla", PASSWORD);
        writeAPassword(lead);
        int asked = standIn.asked("quillwort");
        browser.go(study + "/answers");
        browser.clickLink("Collect from sources");
        browser.seeText("1 place looks like a secret");
        browser.seeText("the request, line 3");
        assertThat(browser.driver().getPageSource()).doesNotContain("gr33n-heron-41");
        Axe.scan(browser, ROOT, "what looks like a secret");
        browser.clickButton("None");
        browser.click(By.xpath("//label[contains(., 'Two ships at one berth')]"));
        browser.click(By.xpath("//label[contains(., 'Only attempts that are not there yet')]"));
        browser.seeText("costs at most");
        browser.clickButton("Start");
        browser.seeText("whether it may be sent before anything is.");
        assertThat(standIn.asked("quillwort")).isEqualTo(asked);

        browser.click(By.xpath("//button[starts-with(normalize-space(), 'It may be sent')]"));
        browser.field("Why it may be sent").sendKeys("It opens a sandbox of ours.");
        browser.clickButton("It may be sent");
        browser.seeText("1 place looks like a secret and may be sent");
        assertThat(browser.all(By.xpath("//*[@role='alert']"))).isEmpty();
        browser.clickButton("Start");
        browser.seeText("answers, finished.");
        assertThat(standIn.asked("quillwort")).isGreaterThan(asked);
    }

    private void writeAPassword(ApiClient lead) {
        JsonNode prompt = lead.get("/api" + study + "/prompts").json().values().stream()
                .filter(p -> p.at("/content/title").asString().equals("Two ships at one berth"))
                .findFirst()
                .orElseThrow();
        ObjectNode content = (ObjectNode) prompt.path("content").deepCopy();
        content.put("request", "Why is nobody let in?\n\n    password = 'gr33n-heron-41'\n");
        assertThat(lead.put(
                                "/api" + study + "/prompts/" + prompt.path("id").asString(),
                                Map.of(
                                        "version",
                                        prompt.path("version").asLong(),
                                        "kindId",
                                        prompt.at("/kind/id").asString(),
                                        "content",
                                        content))
                        .status())
                .isEqualTo(200);
    }
}
