package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.IOException;
import java.util.Base64;
import java.util.Map;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.ImageType;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.apache.pdfbox.text.PDFTextStripper;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.DemoInPreparation;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/** From a recommendation to what is handed out: explored, written, signed, countersigned, read without an account, printed. */
public class MemoJourneyTest extends Journey {
    private static final int DOTS_AN_INCH = 50;
    private static final int WHITE = 250;

    private String study;

    @BeforeClass(dependsOnMethods = "openBrowser")
    public void bringInAStudyThatIsOver() {
        study = DemoInPreparation.bringInOver(ROOT, ApiClient.signedIn(server().address(), "orla", PASSWORD));
    }

    private String page(String name) {
        return "/studies/" + study + "/recommendation" + name;
    }

    @Test
    public void theLeadExploresByKeyboardAndKeepsWhatWasFound() {
        browser.signInAs("Orla Fennick");
        browser.go(page("")).seeHeading();
        browser.clickLink("Good at, bad at");
        browser.seeHeading("Good at, bad at");
        Axe.scan(browser, ROOT, "traits");
        browser.go(page("")).clickLink("What if");
        browser.seeHeading("What if");
        browser.seeText("Standings");
        WebElement weight = browser.see(By.cssSelector("[role=slider][aria-label=Correctness]"));
        browser.tabTo("Correctness").press(Keys.HOME);
        browser.seeText("Exploring");
        assertThat(weight.getAttribute("aria-valuenow")).isEqualTo("0");
        browser.await(d -> String.valueOf(d.getCurrentUrl()).contains("weight.correctness=0"));
        Axe.scan(browser, ROOT, "what if");
        browser.tabTo("Keep it as a note in the memo").press(Keys.ENTER);
        browser.seeText("marked as exploring");
        browser.driver().navigate().refresh();
        browser.seeText("Exploring");
        browser.clickButton("As the rule has it");
        browser.await(d -> !String.valueOf(d.getCurrentUrl()).contains("weight"));
    }

    @Test(dependsOnMethods = "theLeadExploresByKeyboardAndKeepsWhatWasFound")
    public void whatIsWrittenOutlivesAReloadAndIsSignedAsItWasRead() {
        browser.go(page("/memo")).seeHeading("Memo");
        browser.clickLink("Version 1");
        browser.seeHeading("Memo, version 1");
        browser.seeText("How sure");
        assertThat(browser.field("Your words: What it hangs on").getAttribute("value"))
                .startsWith("> **Exploring, not the rule.**");
        browser.field("Your words: On one page").sendKeys("We take **none** yet.");
        browser.driver().navigate().refresh();
        browser.seeHeading("Memo, version 1");
        browser.await(
                d -> String.valueOf(browser.field("Your words: On one page").getAttribute("value"))
                        .contains("none"));
        browser.seeText("All saved");
        Axe.scan(browser, ROOT, "memo being written");
        browser.clickButton("Read it as it will stand");
        browser.see(By.xpath("//strong[.='none']"));
        browser.clickButton("Sign it …");
        browser.click(By.xpath("//*[@role='dialog']//button[.='Sign it']"));
        browser.seeText("Signed by Orla Fennick");
        assertThat(browser.all(By.xpath("//button[.='Sign it …']"))).isEmpty();
        Axe.scan(browser, ROOT, "memo");
    }

    @Test(dependsOnMethods = "whatIsWrittenOutlivesAReloadAndIsSignedAsItWasRead")
    public void aRaterCountersignsIt() {
        browser.signInAs("Bram Okkers");
        browser.go(page("/memo/1")).seeHeading("Memo, version 1");
        browser.clickButton("Countersign it …");
        browser.clickButton("Add it");
        browser.seeText("Countersigned");
        assertThat(browser.all(By.xpath("//button[.='Countersign it …']"))).isEmpty();
    }

    @Test(dependsOnMethods = "aRaterCountersignsIt")
    public void somebodyWithoutAnAccountReadsItAndPrintsIt() throws IOException {
        browser.signInAs("Orla Fennick");
        browser.go(page("/memo/1")).seeHeading("Memo, version 1");
        browser.clickButton("Make a link");
        String address =
                browser.see(By.xpath("//p[contains(., '/api/memo-links/')]")).getText();
        browser.driver().manage().deleteAllCookies();
        browser.driver().get(address);
        browser.seeText("How sure");
        browser.seeText("We take none yet.");
        browser.seeText("Countersigned");
        assertThat(browser.all(By.tagName("script"))).isEmpty();
        Axe.inLight(browser, ROOT, "memo by a link");
        prefer("dark");
        Axe.inLight(browser, ROOT, "memo by a link, dark");
        prefer("light");
        browser.resize(390, 800);
        assertThat(browser.driver().executeScript("return document.documentElement.scrollWidth"))
                .isEqualTo(390L);
        browser.resize(1280, 800);
        try (PDDocument printed = Loader.loadPDF(Base64.getDecoder().decode(printed()))) {
            seePaper(printed);
        }
        browser.go(page("/memo/1")).see(By.xpath("//h1[contains(., 'Mossbank') or contains(., 'Sign in')]"));
    }

    private void prefer(String theme) {
        browser.driver()
                .executeCdpCommand(
                        "Emulation.setEmulatedMedia",
                        Map.of("features", java.util.List.of(Map.of("name", "prefers-color-scheme", "value", theme))));
    }

    private String printed() {
        return String.valueOf(browser.driver()
                .executeCdpCommand("Page.printToPDF", Map.of("preferCSSPageSize", true, "printBackground", true))
                .get("data"));
    }

    /** The first page alone says what is to be known; pages are numbered, heads of tables come again, nothing is cut. */
    private static void seePaper(PDDocument printed) throws IOException {
        int pages = printed.getNumberOfPages();
        assertThat(pages).isGreaterThan(4);
        assertThat(words(printed, 1))
                .contains("How sure")
                .contains("At what cost")
                .contains("What it hangs on")
                .contains("1 of " + pages)
                .doesNotContain("For whom");
        int appendix = 0;
        PDFRenderer renderer = new PDFRenderer(printed);
        for (int page = 1; page <= pages; page++) {
            assertThat(words(printed, page)).contains(page + " of " + pages);
            if (words(printed, page).contains("Correctness: Rater")) {
                assertThat(words(printed, page))
                        .as("the head of the table comes again")
                        .contains("Levels");
                appendix++;
            }
            assertThat(isClearAtTheEdges(renderer.renderImageWithDPI(page - 1, DOTS_AN_INCH, ImageType.GRAY)))
                    .as("page " + page)
                    .isTrue();
        }
        assertThat(appendix)
                .as("pages of the appendix with the head of its table")
                .isGreaterThan(1);
    }

    private static String words(PDDocument printed, int page) throws IOException {
        PDFTextStripper reader = new PDFTextStripper();
        reader.setStartPage(page);
        reader.setEndPage(page);
        return reader.getText(printed);
    }

    /** Whether there is paper all around: what is cut off reaches the edge. */
    private static boolean isClearAtTheEdges(BufferedImage page) {
        int margin = DOTS_AN_INCH / 4;
        for (int x = 0; x < page.getWidth(); x++) {
            for (int y = 0; y < page.getHeight(); y++) {
                boolean edge =
                        x < margin || x >= page.getWidth() - margin || y < margin || y >= page.getHeight() - margin;
                if (edge && page.getRaster().getSample(x, y, 0) < WHITE) {
                    return false;
                }
            }
        }
        return true;
    }
}
