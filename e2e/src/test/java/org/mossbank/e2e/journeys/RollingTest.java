package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.mossbank.e2e.Browser;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.SheetWork;
import org.mossbank.testkit.TestDatabase;
import org.openqa.selenium.By;
import org.testng.SkipException;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/**
 * The release before beside this one, on one database that this one has brought up to date: servers are replaced one by one
 * while people work.
 */
public class RollingTest {
    private static final Path ROOT = Path.of(System.getProperty("mossbank.root"));
    private static final String PASSWORD = "tide and lantern";

    private ServerProcess before;
    private ServerProcess now;
    private ApiClient raterAtBefore;
    private ApiClient leadAtNow;

    @BeforeClass
    public void startBoth() {
        String release = System.getProperty("mossbank.release", "");
        if (release.isEmpty() || !Files.isDirectory(Path.of(release))) {
            throw new SkipException("the release before is only built for the long check");
        }
        TestDatabase database = TestDatabase.create();
        before = ServerProcess.startDemo(Path.of(release), database, ServerProcess.AMONG_MANY);
        raterAtBefore = ApiClient.signedIn(before.address(), "juri", PASSWORD);
        now = ServerProcess.startDemo(ROOT, database, ServerProcess.AMONG_MANY);
        leadAtNow = ApiClient.signedIn(now.address(), "orla", PASSWORD);
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        if (before != null) {
            before.close();
        }
        if (now != null) {
            now.close();
        }
    }

    @Test
    public void whoWasSignedInAtOneIsSignedInAtTheOther() {
        assertThat(raterAtBefore.get("/api/account").status()).isEqualTo(200);
        ApiClient sameBrowser = raterAtBefore.at(now.address());
        assertThat(sameBrowser
                        .get("/api/account")
                        .json()
                        .at("/account/signInName")
                        .asString())
                .isEqualTo("juri");
    }

    @Test
    public void aGradeThatIsGivenAtTheReleaseBeforeIsThereAtThisOne() {
        JsonNode open = raterAtBefore.get("/api/sheets").json().values().stream()
                .filter(s -> s.path("sentAt").isMissingNode())
                .findFirst()
                .orElseThrow();
        String sheet = "/api/sheets/" + open.path("id").asString();
        JsonNode shown = raterAtBefore.get(sheet).json();
        String cell = sheet + "/answers/" + shown.at("/answers/0/id").asString() + "/grades/"
                + shown.at("/criteria/0/id").asString();
        long revision = shown.at("/answers/0/grades/0/revision").asLong(0);

        assertThat(raterAtBefore.put(cell, SheetWork.grade(revision, 2)).status())
                .isEqualTo(200);

        JsonNode there = raterAtBefore.at(now.address()).get(sheet).json();
        assertThat(there.at("/answers/0/grades").toString()).contains("\"level\":2");
    }

    /** What only this release knows must not trip the one before. */
    @Test
    public void theReleaseBeforeLivesWithReadersSeveralLeadsAndPutAwayStudies() {
        ApiClient leadAtBefore = leadAtNow.at(before.address());
        String study = "/api/studies/"
                + leadAtNow
                        .post("/api/studies", Map.of("title", "Of both"))
                        .json()
                        .path("id")
                        .asString();
        for (String[] person : new String[][] {{"reads", "READER"}, {"leads", "LEAD"}}) {
            Map<String, String> added = Map.of("signInName", person[0], "name", person[0], "role", person[1]);
            assertThat(leadAtNow.post(study + "/raters", added).status()).isEqualTo(201);
        }
        leadAtNow.post(study + "/put-away", Map.of());

        assertThat(leadAtBefore.get(study + "/people").json().size()).isEqualTo(3);
        assertThat(leadAtBefore.get("/api/studies").status()).isEqualTo(200);
        assertThat(leadAtBefore.get(study + "/grading").status()).isEqualTo(200);
        assertThat(leadAtBefore
                        .post(study + "/raters", Map.of("signInName", "made-before", "name", "Made Before"))
                        .status())
                .as("what the release before writes is whole")
                .isEqualTo(201);
        assertThat(leadAtNow.get(study + "/people").json().toString()).contains("made-before", "READER");
    }

    /** Data of the release before, seen by people at both. */
    @Test
    public void leadAndRaterClickThroughBoth() {
        for (ServerProcess server : List.of(before, now)) {
            try (Browser browser = Browser.open(server.address())) {
                browser.signInAs("Orla Fennick");
                browser.clickLink("A code model for the buoy service");
                browser.seeText("closed again");
                browser.clickLink("Grading");
                browser.seeHeading();
                browser.seeText("Juri Halvard");
                browser.signInAs("Juri Halvard");
                browser.clickLink("Go on grading");
                browser.see(By.cssSelector("[data-cell='0-0']"));
            }
        }
    }
}
