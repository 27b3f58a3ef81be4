package org.mossbank.e2e;

import java.net.URI;
import java.nio.file.Path;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.DemoInPreparation;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.TestDatabase;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.testng.annotations.Test;

/** Takes one picture of each main view from the demo study; not a test, run by {@code ./mossbank screenshots}. */
public class Screenshots {
    private static final Path ROOT = Path.of(System.getProperty("mossbank.root"));
    private static final Path FOLDER = Path.of(System.getProperty("mossbank.screenshots"));

    @Test
    public void takeAll() {
        String running = System.getProperty("mossbank.address");
        if (running != null) {
            take(URI.create(running));
            return;
        }
        try (ServerProcess server = ServerProcess.startDemo(ROOT, TestDatabase.create())) {
            take(server.address());
        }
    }

    private static void take(URI address) {
        try (Browser browser = Browser.open(address)) {
            browser.go("/sign-in").seeText("This is the demo");
            browser.setTheme("light");
            lead(browser);
            whatIsOver(browser, address);
            preparing(browser, address);
            rater(browser);
        }
    }

    private static void shot(Browser browser, String name) {
        browser.saveScreenshot(FOLDER.resolve(name + ".png"));
    }

    private static void lead(Browser browser) {
        browser.signInAs("Orla Fennick");
        browser.clickLink("A code model for the buoy service");
        browser.seeHeading();
        for (String layer :
                new String[] {"Brief", "Prompts", "Candidates", "Answers", "Rubric", "Grading", "Agreement"}) {
            browser.click(By.xpath("//nav//a[.//span[normalize-space()='" + layer + "']]"));
            browser.await(d -> d.getCurrentUrl().endsWith("/" + layer.toLowerCase(java.util.Locale.ROOT)));
            browser.seeHeading();
            if (!layer.equals("Prompts")) {
                shot(browser, layer.toLowerCase(java.util.Locale.ROOT));
            }
        }
    }

    private static void whatIsOver(Browser browser, URI address) {
        ApiClient lead = ApiClient.signedIn(address, "orla", "tide and lantern");
        browser.go("/studies/" + DemoInPreparation.bringInSigned(ROOT, lead) + "/recommendation");
        browser.seeText("Chance of standing highest");
        browser.seeText("of weightings");
        shot(browser, "recommendation");
        browser.clickLink("Cost and time");
        browser.seeText("A month for the team");
        shot(browser, "cost-and-time");
        browser.clickLink("What if");
        browser.seeText("As the rule has it");
        browser.tabTo("Idiom").press(Keys.END);
        browser.seeText("Exploring");
        browser.await(d -> d.findElements(By.cssSelector("[aria-busy='true']")).isEmpty());
        shot(browser, "what-if");
        browser.clickLink("Memo");
        browser.seeHeading("Memo");
        browser.clickLink("Version 1");
        browser.seeText("How sure");
        shot(browser, "memo");
        browser.go("/studies/" + DemoInPreparation.bringInAfter(ROOT, lead) + "/recommendation/since");
        browser.seeText("Old and new on one scale");
        shot(browser, "since-the-last");
    }

    private static void preparing(Browser browser, URI address) {
        ApiClient lead = ApiClient.signedIn(address, "orla", "tide and lantern");
        String collecting = "/studies/" + DemoInPreparation.bringInCollecting(ROOT, lead, 1, "");
        browser.go(collecting + "/answers");
        browser.click(By.partialLinkText("Run of"));
        browser.seeText("9 of 9 answers, finished.");
        browser.go("/calibrations/" + DemoInPreparation.bringInCalibrated(ROOT, lead) + "/1");
        browser.seeText("What everybody gave");
        shot(browser, "calibration");
        String study = "/studies/" + DemoInPreparation.bringIn(ROOT, lead);
        browser.go(study + "/brief").seeHeading();
        browser.seeText("Shines only here");
        browser.driver().executeScript("document.querySelector('[role=slider]').scrollIntoView({block: 'center'})");
        browser.seeText("How often agreement withholds a study of this size");
        shot(browser, "planner");
        browser.go(study + "/prompts");
        browser.clickLink("In which order does the tender visit?");
        browser.seeHeading("In which order");
        shot(browser, "prompt-being-written");
        browser.go(study + "/answers/masking").seeHeading();
        for (String found : new String[] {"As an AI model", "Quillwort 7.1"}) {
            browser.click(By.xpath("//button[contains(@aria-label, 'Take back: " + found + "')]"));
            browser.see(By.xpath("//button[contains(@aria-label, 'Mask it: " + found + "')]"));
        }
        shot(browser, "masking");
    }

    private static void rater(Browser browser) {
        browser.signInAs("Juri Halvard");
        shot(browser, "my-sheets");
        browser.clickLink("Go on grading");
        browser.seeHeading("Service visits");
        browser.click(By.cssSelector("[role=gridcell][data-cell='0-1']"));
        browser.press(Keys.ARROW_DOWN, Keys.ARROW_UP);
        browser.see(By.cssSelector("[data-column='0'] .tok-keyword"));
        browser.see(By.cssSelector("[data-column='2'] .tok-keyword"));
        browser.setTheme("light");
        shot(browser, "desk");
        browser.click(By.cssSelector("[role=gridcell][data-cell='0-0']"));
        for (int column = 0; column < 5; column++) {
            browser.press("3", Keys.ARROW_RIGHT);
        }
        browser.seeText("All saved");
        browser.press("e");
        browser.click(By.xpath("//button[.='A moment, three hours behind']"));
        browser.seeText("Expected");
        shot(browser, "trials-at-the-desk");
        browser.signInAs("Bram Okkers");
        browser.setTheme("dark");
        browser.click(By.xpath("//section[h2='Splits to talk about']//a[.='Clean up the chart label, correctness']"));
        browser.seeText("The talk");
        shot(browser, "split");
    }
}
