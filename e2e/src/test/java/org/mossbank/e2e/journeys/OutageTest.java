package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.awaitility.Awaitility;
import org.mossbank.e2e.Browser;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.SmallDisk;
import org.mossbank.testkit.TestDatabase;
import org.mossbank.testkit.Wire;
import org.openqa.selenium.By;
import org.openqa.selenium.Cookie;
import org.testng.SkipException;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Listeners;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Browser, server and database apart: what was acknowledged or waits is kept, and somebody is told what is going on. */
@Listeners(WhatWasSeen.class)
public class OutageTest {
    private static final Path ROOT = Path.of(System.getProperty("mossbank.root"));
    private static final String SECRET = "heron under the jetty";
    private static final String PASSWORD = "tide and lantern";
    private static final String RATER = "Juri Halvard";

    /** A minute when there is time for it; else longer than a claim lasts. */
    private static final By SAVED = By.xpath("//*[contains(., 'All saved')]");

    private static final Duration PATIENCE = Duration.ofSeconds(10);
    private static final Duration OUTAGE = Duration.ofSeconds(Boolean.getBoolean("mossbank.long") ? 60 : 20);

    private final Optional<SmallDisk> disk = SmallDisk.mounted();
    private static final int MOST_THAT_FIND_ROOM = 400;

    private Wire toDatabase;
    private ServerProcess server;
    private Wire toServer;
    private Browser browser;

    @BeforeClass
    public void begin() {
        TestDatabase database = disk.map(TestDatabase::createOn).orElseGet(TestDatabase::create);
        toDatabase = Wire.to(database.address());
        server = ServerProcess.startDemo(
                ROOT,
                database.behind(toDatabase),
                Map.of(
                        "MOSSBANK_ALLOWED_SOURCES",
                        "127.0.0.1",
                        "MOSSBANK_HOSTS_STANDIN",
                        "127.0.0.1",
                        "MOSSBANK_SECRETS_STANDIN",
                        SECRET));
        toServer = Wire.to(server.address());
        browser = Browser.open(toServer.address());
    }

    @AfterClass(alwaysRun = true)
    public void end() throws IOException {
        disk.ifPresent(SmallDisk::free);
        if (browser != null) {
            browser.close();
        }
        if (toServer != null) {
            toServer.close();
        }
        if (server != null) {
            server.close();
        }
        if (toDatabase != null) {
            toDatabase.close();
        }
    }

    private static void openDesk(Browser window) {
        window.clickLink("Go on grading");
        window.see(By.cssSelector("[data-cell='0-0']"));
    }

    private static void give(Browser window, String cell, String level) {
        window.click(By.cssSelector("[data-cell='" + cell + "']"));
        window.press(level);
    }

    private static String label(Browser window, String cell) {
        return String.valueOf(
                window.see(By.cssSelector("[data-cell='" + cell + "']")).getAttribute("aria-label"));
    }

    private static void seeLevel(Browser window, String cell, int level) {
        window.await(d -> label(window, cell).contains("level " + level + " "));
    }

    /** What the server has of a cell, asked past all wires. */
    private JsonNode kept(String name, int answer, int criterion) {
        ApiClient rater = ApiClient.signedIn(server.address(), name, PASSWORD);
        JsonNode sheets = rater.get("/api/sheets").json();
        String open = sheets.valueStream()
                .filter(s -> !s.has("sentAt"))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asString();
        return rater.get("/api/sheets/" + open).json().at("/answers/" + answer + "/grades/" + criterion);
    }

    /** What must hold for as long as an outage lasts. */
    private static void stays(Duration time, Callable<Boolean> holds) {
        Duration rest = time.isNegative() ? Duration.ZERO : time;
        Awaitility.await()
                .during(rest)
                .atMost(rest.plus(PATIENCE))
                .pollInterval(Duration.ofSeconds(1))
                .until(holds);
    }

    private static void tell(String what, Instant since) {
        System.out.printf(
                "%s after %d ms%n", what, Duration.between(since, Instant.now()).toMillis());
    }

    @Test
    public void theDatabaseIsAwayWhileSomebodyGrades() {
        browser.signInAs(RATER);
        openDesk(browser);
        give(browser, "0-0", "2");
        browser.seeText("All saved");

        Instant cut = Instant.now();
        toDatabase.cut();
        give(browser, "0-1", "3");
        browser.seeText("The database cannot be reached");
        tell("database away: told at the desk", cut);
        Instant reloaded = Instant.now();
        browser.driver().navigate().refresh();
        browser.see(By.cssSelector("[data-cell='0-0']"));
        tell("database away: the desk loaded anew", reloaded);
        seeLevel(browser, "0-0", 2);
        seeLevel(browser, "0-1", 3);
        give(browser, "0-2", "1");
        Instant asked = Instant.now();
        ApiClient nobody = ApiClient.nobody(server.address());
        ApiClient.Response refused = nobody.post("/api/session", Map.of("name", "juri", "password", PASSWORD));
        tell("database away: a sign-in was answered", asked);
        assertThat(refused.status()).isEqualTo(503);
        assertThat(refused.problem()).isEqualTo("database-away");
        assertThat(refused.raw().headers().firstValue("Retry-After")).isPresent();
        stays(
                OUTAGE.minus(Duration.between(cut, Instant.now())),
                () -> browser.all(SAVED).isEmpty());

        Instant back = Instant.now();
        toDatabase.mend();
        browser.seeText("All saved");
        tell("database back: all saved", back);
        assertThat(kept("juri", 1, 0).path("level").asInt()).isEqualTo(3);
        assertThat(kept("juri", 2, 0).path("level").asInt()).isEqualTo(1);
    }

    /** Room that tables have left over is used up before the disk is asked for more, so this takes a few grades. */
    @Test(dependsOnMethods = "theDatabaseIsAwayWhileSomebodyGrades")
    public void theDatabaseHasNoRoomLeft() {
        SmallDisk full = disk.orElseThrow(() -> new SkipException("no small disk is mounted"));
        By noRoom = By.xpath("//*[contains(., 'The database has no room left')]");
        By saved = By.xpath("//*[contains(., 'All saved')]");
        full.fill();
        Instant begun = Instant.now();
        int level = 0;
        while (browser.all(noRoom).isEmpty()) {
            assertThat(level).as("grades that found room").isLessThan(MOST_THAT_FIND_ROOM);
            give(browser, "0-2", String.valueOf(level++ % 4));
            browser.await(
                    d -> !browser.all(saved).isEmpty() || !browser.all(noRoom).isEmpty());
        }
        tell("no room left: told at the desk", begun);
        give(browser, "0-2", "4");
        browser.driver().navigate().refresh();
        seeLevel(browser, "0-2", 4);

        full.free();
        browser.seeText("All saved");
        assertThat(kept("juri", 2, 0).path("level").asInt()).isEqualTo(4);
    }

    /** As if somebody had signed in in another window of this browser. */
    private void becomes(String name) {
        ApiClient signedIn = ApiClient.signedIn(server.address(), name, PASSWORD);
        signedIn.get("/api/session");
        for (String cookie : List.of("mossbank-session", "XSRF-TOKEN")) {
            browser.driver().manage().deleteCookieNamed(cookie);
            browser.driver()
                    .manage()
                    .addCookie(new Cookie(cookie, signedIn.cookie(cookie).orElseThrow()));
        }
    }

    @Test(dependsOnMethods = "theDatabaseHasNoRoomLeft", alwaysRun = true)
    public void whatWaitsIsNotSentForSomebodyElse() {
        toServer.cut();
        give(browser, "1-0", "4");
        browser.seeText("1 change kept here");
        becomes("tove");
        Instant back = Instant.now();
        toServer.mend();
        browser.seeText("Somebody else signed in here");
        tell("another account in this browser: told", back);
        assertThat(kept("juri", 0, 1).has("level"))
                .as("nobody's but Juri's to give")
                .isFalse();

        becomes("juri");
        browser.seeText("All saved");
        seeLevel(browser, "1-0", 4);
        assertThat(kept("juri", 0, 1).path("level").asInt()).isEqualTo(4);
    }

    /** Window 1 gives 2 and never hears of it; window 2 sees it and gives 3; window 1 sends the same again. */
    @Test(dependsOnMethods = "whatWaitsIsNotSentForSomebodyElse")
    public void aLostAnswerOverwritesNothingUnseen() throws IOException {
        try (Browser other = Browser.open(server.address())) {
            other.signInAs(RATER);
            openDesk(other);
            toServer.loseAnswers();
            give(browser, "1-1", "2");
            browser.await(d -> kept("juri", 1, 1).path("level").asInt(-1) == 2);
            // Correcting it before the first answer came is a conflict with nobody.
            give(browser, "1-2", "1");
            give(browser, "1-2", "0");
            other.driver().navigate().refresh();
            seeLevel(other, "1-1", 2);
            give(other, "1-1", "3");
            other.seeText("All saved");

            toServer.mend();
            browser.seeText("another window has since changed it to");
            seeLevel(browser, "1-1", 3);
            browser.seeText("All saved");
            assertThat(browser.all(By.xpath("//*[contains(., 'Keep this one')]")))
                    .isEmpty();
            browser.clickButton("Good");
            assertThat(kept("juri", 1, 1).path("level").asInt()).isEqualTo(3);
            assertThat(kept("juri", 2, 1).path("level").asInt()).isEqualTo(0);
        }
    }

    @Test(dependsOnMethods = "aLostAnswerOverwritesNothingUnseen", alwaysRun = true)
    public void aReplyThatWasPaidForIsKeptUntilTheDatabaseIsBack() throws Exception {
        try (RunUnderWay run = new RunUnderWay(ROOT, SECRET)) {
            run.beginAndAwaitItsMiddle(server.address());
            toDatabase.cut();
            ApiClient nobody = ApiClient.nobody(server.address());
            stays(
                    OUTAGE,
                    () -> nobody.post("/api/session", Map.of("name", "juri", "password", PASSWORD))
                                    .status()
                            == 503);
            toDatabase.mend();
            run.isFinishedUndisturbed(server.address());
        }
    }
}
