package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.SheetWork;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.support.ui.Select;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** A lead builds a study from nothing, opens a round in balance, and an invited rater sets a password and grades. */
public class PreparingJourneyTest extends Journey {
    private static final List<String> KINDS = List.of("Explanation", "Refactoring", "Debugging", "Review");
    private static final List<String> CANDIDATES = List.of("Osierhold", "Teaselworth", "Fescuemere");
    private static final String OWN_PASSWORD = "a fair long password";
    private static final String TITLE = "A model for the lock keepers";

    private String studyPath;

    private void step(String layer) {
        browser.click(By.xpath("//nav//a[.//span[normalize-space()='" + layer + "']]"));
        browser.await(d -> String.valueOf(d.getCurrentUrl()).contains("/" + layer.toLowerCase(java.util.Locale.ROOT)));
        browser.seeHeading();
    }

    private void write(String label, String text) {
        WebElement field = browser.field(label);
        // As a person does: emptying it by the driver leaves the field, and a number that is required comes back then.
        field.sendKeys(Keys.chord(Keys.CONTROL, "a"), text);
    }

    private void choose(String label, String option) {
        new Select(browser.field(label)).selectByVisibleText(option);
    }

    private void saved() {
        browser.await(
                d -> d.findElements(By.xpath("//*[@role='status'][contains(., 'Saving') or contains(., 'Not saved')]"))
                        .isEmpty());
        browser.seeText("All saved");
    }

    private static Path repository() throws IOException, InterruptedException {
        // A name of its own, as the folder may still hold what an earlier run committed.
        Path folder = Files.createTempDirectory(Files.createDirectories(REPOSITORIES), "locks");
        Files.createDirectories(folder.resolve("src"));
        Files.writeString(folder.resolve("src/Lock.java"), "record Lock(String name, int metres) {}\n");
        git(folder, "init", "-q", "-b", "main");
        git(folder, "add", "-A");
        git(folder, "commit", "-q", "-m", "first");
        return folder;
    }

    private static void git(Path folder, String... arguments) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of(
                "git", "-c", "user.name=Test", "-c", "user.email=test@example.invalid", "-C", folder.toString()));
        command.addAll(List.of(arguments));
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor()).as(output).isZero();
    }

    @Test
    public void theBriefIsWrittenAndClosed() {
        browser.signInAs("Orla Fennick");
        browser.clickButton("Begin a study");
        write("Title", TITLE);
        browser.clickButton("Begin");
        browser.seeHeading("Brief");
        String url = String.valueOf(browser.driver().getCurrentUrl());
        studyPath = url.substring(url.indexOf("/studies/"), url.lastIndexOf('/'));
        write("Question", "Which model should write our lock scripts?");
        write("For whom", "The two keepers who program");
        write("Margin, in points of 100", "4");
        write("Raters an answer, at least", "2");
        write("Weight of Idiom", "0.1");
        saved();
        browser.seeText("How much is enough?");
        browser.see(By.xpath("//*[@role='slider'][@aria-label='Prompts of each kind']"))
                .sendKeys(Keys.ARROW_RIGHT);
        browser.seeText("hours of grading,");
        // What is typed survives a reload, also before the server has it.
        browser.block("*/api/*/brief");
        write("Question", "Which model should write our lock scripts, if any?");
        browser.seeText("No connection: kept in this browser");
        browser.driver().navigate().refresh();
        browser.seeText("Could not fetch the brief");
        browser.block();
        // The page also tries by itself, and may be faster.
        browser.clickWhileThere(By.xpath("//button[normalize-space()='Try again']"));
        browser.seeHeading("Brief");
        assertThat(browser.field("Question").getAttribute("value")).endsWith("if any?");
        saved();
        write("Which model do you think will do best?", "Osierhold");
        browser.clickButton("That is what I expect");
        browser.seeText("Said; it can be changed");
        browser.clickButton("Close the brief");
        browser.seeText("Brief, closed");
        assertThat(browser.seeHeading().getText()).isEqualTo("Which model should write our lock scripts, if any?");
        browser.seeText("Correctness 59 %");
    }

    @Test(dependsOnMethods = "theBriefIsWrittenAndClosed")
    public void promptsAreWrittenWithKeyPointsAndCodeFromGit() throws IOException, InterruptedException {
        Path repository = repository();
        for (String kind : KINDS) {
            step("Prompts");
            browser.clickButton("Write one, of kind " + kind);
            browser.seeHeading("New prompt");
            browser.seeText("There are no key points");
            write("Title", kind + " of the lock");
            write("Language and its version", "Java 17");
            write("Request", "Work on the lock: " + kind.toLowerCase(java.util.Locale.ROOT) + ".");
            if (kind.equals("Explanation")) {
                browser.clickButton("From git");
                write("Repository", "/etc");
                browser.clickButton("Look");
                browser.seeText("there is no repository in a folder that the administrator allows");
                write("Repository", repository.toString());
                browser.clickButton("Look");
                browser.seeText("1 file at");
                browser.click(By.xpath("//label[.//code[text()='src/Lock.java']]"));
                browser.clickButton("Take 1 file");
                browser.await(
                        d -> d.findElements(By.cssSelector("[role=dialog]")).isEmpty());
                browser.seeText("From " + repository);
            }
            browser.clickButton("Add what it must contain");
            write("Key point 1", "What the lock does with a metre too much");
            if (kind.equals("Explanation")) {
                choose("Seen in", "src/Lock.java");
            }
            saved();
            browser.await(d -> d.findElements(By.xpath("//*[contains(., 'There are no key points')]"))
                    .isEmpty());
        }
        step("Prompts");
        assertThat(browser.all(By.xpath("//a[contains(., 'of the lock')]"))).hasSize(4);
    }

    @Test(dependsOnMethods = "promptsAreWrittenWithKeyPointsAndCodeFromGit")
    public void candidatesAreNamedAndTheirUnlikeSettingsPointedOut() {
        for (String name : CANDIDATES) {
            step("Candidates");
            browser.clickButton("Add a candidate");
            browser.seeHeading("New candidate");
            write("Name", name);
            browser.clickButton("Add a setting");
            write("Name of setting 1", "effort");
            write("Value of setting 1", name.equals("Osierhold") ? "high" : "low");
            saved();
        }
        step("Candidates");
        browser.seeText("Not alike");
        assertThat(browser.see(By.xpath("//tr[th[normalize-space()='effort']]")).getText())
                .contains("high")
                .contains("low");
    }

    @Test(dependsOnMethods = "candidatesAreNamedAndTheirUnlikeSettingsPointedOut")
    public void theRubricChangesInOneAnchorAndIsPublished() {
        step("Rubric");
        browser.clickButton("Publish …");
        write("What changed", "As it came");
        browser.clickButton("Publish it");
        browser.seeText("Version 1, published");
        browser.clickButton("Debugging");
        write("Anchor of Correctness, level 4, for debugging", "Cause and fix, and the gate stays shut.");
        saved();
        browser.clickButton("Undo");
        saved();
        browser.clickButton("Redo");
        saved();
        browser.clickButton("Publish …");
        write("What changed", "Speaks of the gate");
        browser.clickButton("Publish it");
        browser.seeText("Version 2, published");
        assertThat(browser.see(By.tagName("ins")).getText()).isEqualTo("Cause and fix, and the gate stays shut.");
    }

    @Test(dependsOnMethods = "theRubricChangesInOneAnchorAndIsPublished")
    public void answersArePasted() {
        for (String kind : KINDS) {
            for (String candidate : CANDIDATES) {
                step("Answers");
                // By the candidate's own column: the first that lacks one may be as it was before the last was kept.
                browser.click(By.xpath("//tr[th[contains(., '" + kind + " of the lock')]]/td["
                        + (CANDIDATES.indexOf(candidate) + 1) + "]//a[normalize-space()='Paste one']"));
                browser.seeText("Keep it");
                // One of them says who wrote it.
                String signature = kind.equals("Review") && candidate.equals("Teaselworth") ? " Teaselworth." : "";
                write("Answer", "The gate, for reason " + CANDIDATES.indexOf(candidate) + "." + signature);
                write("Seconds in all", "4.5");
                browser.clickButton("Keep it");
                browser.await(
                        d -> d.findElements(By.cssSelector("[role=dialog]")).isEmpty());
                browser.seeText("reason " + CANDIDATES.indexOf(candidate));
            }
        }
        step("Answers");
        browser.seeText("12 answers");
        browser.await(d -> d.findElements(By.linkText("Paste one")).isEmpty());
    }

    @Test(dependsOnMethods = "answersArePasted")
    public void whatGivesACandidateAwayIsMasked() {
        browser.clickLink("Masking");
        browser.seeHeading("1 stretch to decide on");
        browser.seeText("Mask it");
        browser.clickButton("Mask it: Teaselworth, line 1");
        browser.seeHeading("Everything that was found is decided");
        assertThat(browser.see(By.tagName("ins")).getText()).isEqualTo("[masked]");
    }

    @Test(dependsOnMethods = "whatGivesACandidateAwayIsMasked")
    public void aRoundInBalanceIsOpenedAndAnInvitedRaterGrades() {
        step("Grading");
        browser.seeHeading("Open a round");
        for (String name : List.of("Bram Okkers", "Juri Halvard", "Wilma Sluys", "Nele Poort")) {
            write("Name", name);
            browser.clickButton("Add a rater");
            browser.seeText("Signs in as");
            browser.await(d -> !d.findElements(By.xpath("//table//th[normalize-space()='" + name + "']"))
                    .isEmpty());
        }
        String link = browser.see(By.xpath("//li[contains(., 'Wilma')]//code[contains(., '/welcome#')]"))
                .getText();
        choose("Each answer is graded by", "2 raters, in balance");
        browser.seeText("Each answer gets 2 raters.");
        browser.seeText("Every rater sees every candidate equally often.");
        browser.clickButton("Open the round …");
        browser.clickButton("Open it");
        browser.seeText("0 of 8 sheets are sent in");

        browser.driver().manage().deleteAllCookies();
        browser.go(link.substring(link.indexOf("/welcome")));
        write("Password", OWN_PASSWORD);
        write("The same again", OWN_PASSWORD);
        browser.clickButton("Set the password");
        browser.seeHeading("2 sheets left to grade");
        browser.clickLink("Grade the next sheet");
        browser.seeHeading("Before you see any answer");
        write("What do you use today?", "Pen and paper");
        browser.clickButton("That is what I expect");
        browser.seeHeading("of the lock");
        for (int row = 0; row < 3; row++) {
            for (int column = 0; column < 3; column++) {
                browser.click(By.cssSelector("[data-cell='" + row + "-" + column + "']"));
                browser.press("3");
            }
        }
        browser.seeText("All saved");
        browser.clickButton("Send in");
        browser.await(d ->
                d.findElements(By.xpath("//*[contains(., 'sheet 2 of 2')]")).size() > 0);
        ApiClient wilma = ApiClient.signedIn(server().address(), "wilma", OWN_PASSWORD);
        JsonNode sheets = wilma.get("/api/sheets").json();
        assertThat(sheets.size()).isEqualTo(2);
        assertThat(sheets.get(0).has("sentAt")).isTrue();
        assertThat(wilma.get("/api" + studyPath + "/candidates").status()).isEqualTo(403);
    }

    @Test(dependsOnMethods = "aRoundInBalanceIsOpenedAndAnInvitedRaterGrades")
    public void aPromptSetAsideIsSaidOnEveryFigure() {
        browser.signInAs("Orla Fennick");
        browser.go(studyPath + "/prompts");
        browser.clickLink("Review of the lock");
        browser.clickButton("Set it aside …");
        write("What is wrong with it", "Two locks have this name.");
        browser.clickButton("Set it aside");
        browser.seeText("It counts nowhere");
        browser.go(studyPath + "/agreement");
        browser.seeText("was set aside: Two locks have this name.");
        browser.go(studyPath + "/recommendation");
        browser.seeText("Prompt set aside");
        browser.seeText("Two locks have this name.");
        browser.go(studyPath + "/grading");
        browser.seeText("of 6 sheets are sent in");
    }

    /** Every act that may change an outcome, done by hand in one study, stands in the list, the archive and the rows. */
    @Test(dependsOnMethods = "aPromptSetAsideIsSaidOnEveryFigure")
    public void everyActStaysOnRecord() throws IOException {
        onePromptIsGradedByTwo();
        browser.go(studyPath + "/prompts");
        browser.clickLink("Review of the lock");
        withReason("Let it count again …", "Why it is sound after all", "One of them is a weir.", "Let it count again");
        browser.go(studyPath + "/candidates");
        browser.click(By.xpath("//tr[contains(., 'Osierhold')]//a[.='Look up']"));
        browser.clickButton("Change them …");
        browser.clickButton("Add a consideration");
        write("Consideration 1", "Its maker answers the telephone");
        withReason("Keep the change …", "Why", "They called back.", "Keep the change");
        theBriefIsReopenedForALook();
        sheetsAreTakenOutAndPassedOn();
        browser.go(studyPath + "/recommendation");
        browser.clickButton("Take this look …");
        browser.clickButton("Take it");
        browser.await(d -> String.valueOf(d.getCurrentUrl()).contains("look=1"));
        browser.go(studyPath + "/grading");
        withReason("Close the round …", "Why now", "The locks freeze.", "Close the round");
        withReason("Open it again …", "Why", "They thawed.", "Open it again");
        withReason("Close the round …", "Why now", "Enough is known.", "Close the round");
        browser.seeText("Open the round again");

        browser.go(studyPath + "/recommendation");
        browser.seeText("Acts on record");
        browser.see(By.xpath("//table[caption[.='Acts on record']]/tbody/tr"));
        List<String> shown = browser.all(By.xpath("//table[caption[.='Acts on record']]/tbody/tr")).stream()
                .map(WebElement::getText)
                .toList();
        for (String act : ACTS) {
            assertThat(shown).as(act).anyMatch(row -> row.contains(act));
        }
        ApiClient lead = ApiClient.signedIn(server().address(), "orla", PASSWORD);
        assertThat(lead.get("/api" + studyPath + "/acts").json().size()).isEqualTo(shown.size());
        assertThat(actsInTheArchive(lead)).isEqualTo(shown.size() + 1L);
    }

    private static final List<String> ACTS = List.of(
            "Brief closed",
            "Brief reopened",
            "Rubric published",
            "Masking changed",
            "Considerations changed",
            "Round opened",
            "Look taken",
            "Round closed",
            "Round opened again",
            "Prompt set aside",
            "Prompt counted again",
            "Sheet withdrawn",
            "Sheet given back",
            "Sheet handed over");

    private void withReason(String opens, String label, String reason, String does) {
        browser.clickButton(opens);
        write(label, reason);
        browser.click(By.xpath("//*[@role='dialog']//button[normalize-space()='" + does + "']"));
        browser.await(d -> d.findElements(By.cssSelector("[role=dialog]")).isEmpty());
    }

    /** Whoever shares Wilma's first prompt grades it too, so that a look has something to rest on. */
    private void onePromptIsGradedByTwo() {
        ApiClient lead = ApiClient.signedIn(server().address(), "orla", PASSWORD);
        JsonNode raters = lead.get("/api" + studyPath + "/grading").json().path("raters");
        String prompt = raters.valueStream()
                .flatMap(r -> r.path("sheets").valueStream())
                .filter(s -> s.has("sentAt"))
                .findFirst()
                .orElseThrow()
                .path("promptId")
                .asString();
        for (JsonNode rater : raters) {
            for (JsonNode sheet : rater.path("sheets")) {
                if (sheet.path("promptId").asString().equals(prompt) && !sheet.has("sentAt")) {
                    SheetWork.gradeAndSend(
                            joined(lead, rater), sheet.path("sheetId").asString(), 2);
                }
            }
        }
    }

    /** Those who have no password yet come in by their link. */
    private ApiClient joined(ApiClient lead, JsonNode rater) {
        String name = rater.path("signInName").asString();
        if (rater.path("hasPassword").asBoolean()) {
            return expecting(ApiClient.signedIn(server().address(), name, PASSWORD));
        }
        String token = lead.post(
                        "/api" + studyPath + "/raters/" + rater.path("raterId").asString() + "/link", Map.of())
                .json()
                .path("token")
                .asString();
        ApiClient.nobody(server().address())
                .post(
                        "/api/links/use",
                        Map.of(
                                "token", token,
                                "displayName", rater.path("name").asString(),
                                "password", OWN_PASSWORD));
        return expecting(ApiClient.signedIn(server().address(), name, OWN_PASSWORD));
    }

    /** Who grades says first what they expect. */
    private ApiClient expecting(ApiClient rater) {
        rater.put("/api" + studyPath + "/expectation", Map.of("expects", "", "usesToday", ""));
        return rater;
    }

    private void theBriefIsReopenedForALook() {
        browser.go(studyPath + "/brief");
        withReason("Reopen the brief …", "Reason", "We want to look once.", "Reopen it");
        choose("Standings are seen", "once before, and at the end");
        saved();
        browser.clickButton("Close the brief");
        browser.seeText("Brief, closed");
    }

    /** With a rater who has two sheets and sent none. */
    private void sheetsAreTakenOutAndPassedOn() {
        browser.go(studyPath + "/grading");
        browser.clickButton("Wilma Sluys");
        withReason("Withdraw …", "Why", "Read on a telephone.", "Withdraw it");
        withReason("Give it back …", "Why", "It was a large telephone.", "Give it back");
        browser.clickButton("Hand over …");
        write("Why", "Wilma is away.");
        browser.clickButton("Hand it over");
        browser.await(d -> d.findElements(By.cssSelector("[role=dialog]")).isEmpty());
    }

    private long actsInTheArchive(ApiClient lead) throws IOException {
        byte[] archive = lead.get("/api" + studyPath + "/archive").raw().body();
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(archive))) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                if (entry.getName().equals("acts.csv")) {
                    return new String(zip.readAllBytes(), StandardCharsets.UTF_8)
                            .lines()
                            .count();
                }
            }
        }
        throw new AssertionError("no acts in the archive");
    }
}
