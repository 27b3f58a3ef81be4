package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.openqa.selenium.By;
import org.testng.annotations.Test;

/** A lead brings in an archive: a bad one is refused with its faults, a good one gives links that let raters in. */
public class BringInJourneyTest extends Journey {

    private static Path zip(Map<String, String> changes) throws IOException {
        Path folder = ROOT.resolve("server/src/test/resources/by-hand");
        Path file = Files.createTempFile("study", ".zip");
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file));
                Stream<Path> paths = Files.walk(folder)) {
            for (Path path : paths.filter(Files::isRegularFile).toList()) {
                String name = folder.relativize(path).toString();
                zip.putNextEntry(new ZipEntry(name));
                zip.write(
                        changes.containsKey(name)
                                ? changes.get(name).getBytes(StandardCharsets.UTF_8)
                                : Files.readAllBytes(path));
                zip.closeEntry();
            }
        }
        return file;
    }

    private void choose(Path file) {
        browser.see(By.cssSelector("input[type=file]")).sendKeys(file.toString());
    }

    @Test
    public void aBadArchiveShowsItsFaultsAndAGoodOneLetsRatersIn() throws IOException {
        browser.signInAs("Orla Fennick");
        browser.clickLink("Bring in a study");
        browser.seeHeading("Bring in a study");
        choose(zip(Map.of("kinds.csv", "kind,name\nexpla nation,Explanation\ndebugging,Debugging\n")));
        browser.seeText("Nothing was loaded");
        List<String> cells = browser.all(By.xpath("//tr[th//code[text()='kinds.csv']]/*")).stream()
                .map(e -> e.getText())
                .toList();
        assertThat(cells).contains("kinds.csv", "2", "kind", "expla nation");

        choose(zip(Map.of("raters.csv", "rater,name\nwren,Wren Holloway\nbram,Bram Okkers\n")));
        browser.seeText("is loaded.");
        String link = browser.see(By.xpath("//code[contains(., '/welcome#')]")).getText();
        assertThat(browser.all(By.xpath("//code[contains(., '/welcome#')]"))).hasSize(1);

        browser.driver().manage().deleteAllCookies();
        browser.go(link.substring(link.indexOf("/welcome")));
        browser.seeText("wren");
        browser.field("Password").sendKeys("a fair long password");
        browser.field("The same again").sendKeys("another one");
        browser.clickButton("Set the password");
        browser.seeText("The two are not the same");
        browser.field("The same again").clear();
        browser.field("The same again").sendKeys("a fair long password");
        browser.clickButton("Set the password");
        browser.seeHeading("4 sheets left to grade");

        browser.driver().manage().deleteAllCookies();
        browser.go("/sign-in").seeText("Sign in");
        browser.go(link.substring(link.indexOf("/welcome")));
        browser.seeHeading("This link is spent");
    }

    /** Hostile Markdown in an answer stays text: nothing runs, nothing is fetched from elsewhere. */
    @Test(dependsOnMethods = "aBadArchiveShowsItsFaultsAndAGoodOneLetsRatersIn")
    public void hostileAnswersStayText() throws IOException {
        String hostile = "<script>window.broken = 1</script>\n\n<img src=x onerror='window.broken = 1'>\n\n"
                + "![seen](http://127.0.0.1:9/pixel.png)\n\n[click](javascript:window.broken=1)\n\n"
                + "```java\nString s = \"</code><script>window.broken = 1</script>\";\n```\n";
        browser.signInAs("Orla Fennick");
        browser.go("/bring-in").seeHeading();
        choose(zip(Map.of(
                "text/mean-level-osier.md",
                hostile,
                "study.json",
                "{\"title\":\"Hostile <b>study</b>\",\"question\":\"?\",\"audience\":\"us\",\"seed\":1,"
                        + "\"decisionRule\":{\"agreementFloor\":0.5,\"margin\":5,\"minimumRaters\":1}}")));
        browser.seeText("is loaded");
        browser.signInAs("Bram Okkers");
        browser.click(
                By.xpath("//section[./div/h2[contains(., 'Hostile')]]//a[contains(., 'What is the mean level?')]"));
        browser.seeHeading("What is the mean level?");
        browser.seeText("[picture: seen]");
        assertThat(browser.driver().executeScript("return window.broken === undefined"))
                .isEqualTo(true);
        assertThat(browser.all(By.cssSelector("main script, main img"))).isEmpty();
        assertThat(browser.all(By.cssSelector("a[href^='javascript']"))).isEmpty();
        assertThat(browser.all(By.xpath("//a[normalize-space()='click']")))
                .allSatisfy(
                        a -> assertThat(String.valueOf(a.getAttribute("href"))).doesNotContain("javascript"));
    }
}
