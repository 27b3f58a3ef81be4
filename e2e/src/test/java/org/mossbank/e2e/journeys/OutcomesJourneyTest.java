package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.DemoInPreparation;
import org.openqa.selenium.By;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Each outcome that a study can have, from its page to the memo that carries it, and the views that it is told in. */
public class OutcomesJourneyTest extends Journey {
    private ApiClient lead() {
        return ApiClient.signedIn(server().address(), "orla", PASSWORD);
    }

    private static String page(String study, String name) {
        return "/studies/" + study + "/recommendation" + name;
    }

    /** The study that is over, its rule or its grades changed so that another outcome follows. */
    @DataProvider
    Object[][] outcomes() {
        return new Object[][] {
            {"SAFE_CHOICES", DemoInPreparation.bringInOver(ROOT, lead())},
            {"UNDECIDED", DemoInPreparation.bringInOver(ROOT, lead(), "study.json", "\"margin\": 8", "\"margin\": 1")},
            {"RECOMMENDED", DemoInPreparation.bringInOver(ROOT, lead(), "grades.csv", "(-brindle,[a-z]+),[0-9]", "$1,1")
            },
            {
                "WITHHELD",
                DemoInPreparation.bringInOver(
                        ROOT, lead(), "study.json", "\"minimumRaters\": 3", "\"minimumRaters\": 9")
            },
            {"BY_KIND", DemoInPreparation.bringInByKind(ROOT, lead())},
        };
    }

    @Test(dataProvider = "outcomes")
    public void theOutcomeAndItsMemoSayTheSame(String outcome, String study) {
        browser.signInAs("Orla Fennick");
        JsonNode report =
                lead().get("/api/studies/" + study + "/recommendation").json();
        assertThat(report.path("outcome").asString()).isEqualTo(outcome);
        String headline = report.path("headline").asString();

        browser.go(page(study, "")).seeHeading(headline);
        browser.see(By.xpath("//ul[@aria-label='Conditions of the rule']"));
        browser.clickLink("Memo");
        browser.seeHeading("Memo");
        browser.clickButton("Begin the memo");
        browser.seeHeading("Memo, version 1");
        browser.seeText(headline);
        Axe.scan(browser, ROOT, "memo of " + outcome);
    }

    /** Every view of a study that follows another, in both themes and narrow. */
    @Test
    public void everyViewOfTheRecommendationIsReadable() {
        String study = DemoInPreparation.bringInAfter(ROOT, lead());
        browser.signInAs("Orla Fennick");
        browser.go(page(study, "")).seeHeading();
        for (List<String> view : List.of(
                List.of("/standings", "Standings", "Among some of the prompts"),
                List.of("/work", "Does it work", "By raters’ word"),
                List.of("/costs", "Cost and time", "A month for the team"),
                List.of("/covers", "Who covers what", "A second opinion"),
                List.of("/expected", "Expected and claimed", "What is claimed elsewhere"),
                List.of("/since", "Since the last", "Old and new on one scale"),
                List.of("/next", "The next study", "Who takes part again"))) {
            browser.go(page(study, view.get(0))).seeHeading(view.get(1));
            browser.seeText(view.get(2));
            Axe.scan(browser, ROOT, view.get(1));
            browser.resize(390, 800);
            assertThat(browser.driver().executeScript("return document.documentElement.scrollWidth"))
                    .as(view.get(1) + " at 390 pixels")
                    .isEqualTo(390L);
            browser.resize(1280, 800);
        }
    }

    /** From what was found to the study after it, its old answers graded again among the new. */
    @Test
    public void theNextStudyIsBegunFromThisOne() {
        String study = DemoInPreparation.bringInOver(ROOT, lead());
        browser.signInAs("Orla Fennick");
        browser.go(page(study, "")).seeHeading();
        browser.clickLink("Begin the next study from this one");
        browser.seeHeading("The next study");
        browser.field("Title").sendKeys("The buoys, once more");
        browser.click(By.xpath("//label[starts-with(., 'Tansy')]"));
        browser.clickButton("Begin it");
        browser.await(d -> !String.valueOf(d.getCurrentUrl()).contains(study));
        browser.seeText("What you expect");
        browser.clickLink("Candidates");
        browser.seeText("Quillwort");
        assertThat(browser.all(By.xpath("//main//*[text()='Tansy']"))).isEmpty();
    }
}
