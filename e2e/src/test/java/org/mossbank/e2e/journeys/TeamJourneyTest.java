package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.awaitility.Awaitility;
import org.mossbank.e2e.Browser;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.ProviderProcess;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/** A team of several leads: let in by a provider or the administrator, and what they do written down. */
public class TeamJourneyTest extends Journey {
    private ProviderProcess provider;

    @BeforeClass(dependsOnMethods = "openBrowser")
    public void startProvider() {
        provider = ProviderProcess.start(ROOT, PROVIDER_PORT);
    }

    @AfterClass(alwaysRun = true)
    public void stopProvider() {
        provider.close();
    }

    @Test
    public void whoeverTheProviderKnowsComesInBeginsAStudyAndSignsOutThereToo() {
        browser.go("/sign-in").seeHeading("Sign in");
        Axe.scan(browser, ROOT, "sign in");
        browser.clickButton("Sign in by Harbour office");
        browser.see(By.name("username")).sendKeys("wren");
        browser.see(By.name("password")).sendKeys("tide and lantern", Keys.ENTER);
        browser.seeText("Wren Aldous");
        browser.clickButton("Begin a study");
        browser.field("Title").sendKeys("One of our own", Keys.ENTER);
        browser.seeHeading("Brief");

        browser.see(By.xpath("//button[contains(., 'Wren Aldous')]")).click();
        browser.see(By.xpath("//*[@role='menuitem'][contains(., 'Sign out')]")).click();
        browser.seeHeading("Sign in");
        browser.clickButton("Sign in by Harbour office");
        assertThat(browser.see(By.name("username")).isDisplayed())
                .as("the provider asks again who it is")
                .isTrue();
    }

    @Test(dependsOnMethods = "whoeverTheProviderKnowsComesInBeginsAStudyAndSignsOutThereToo")
    public void anAdministratorMakesAnAccountAndSeesWhatWasDone() {
        browser.signInAs("Orla Fennick");
        browser.go("/administration").seeHeading("Accounts");
        browser.seeText("Tove Lindqvest");
        Axe.scan(browser, ROOT, "accounts");
        browser.clickButton("Make an account");
        browser.field("Name").sendKeys("Perrin Wold");
        browser.clickButton("Make it");
        WebElement link = browser.see(By.xpath("//code[contains(., '/welcome#')]"));
        String token = link.getText().substring(link.getText().indexOf('#') + 1);
        browser.clickLink("What was done");
        browser.seeText("Account made");
        browser.seeText("perrin");
        Axe.scan(browser, ROOT, "what was done anywhere");

        ApiClient perrin = ApiClient.nobody(server().address());
        assertThat(perrin.post(
                                "/api/links/use",
                                Map.of("token", token, "displayName", "Perrin Wold", "password", PASSWORD))
                        .status())
                .isEqualTo(200);
    }

    @Test(dependsOnMethods = "anAdministratorMakesAnAccountAndSeesWhatWasDone")
    public void aStudyIsHandedOverAndTheRecordSaysSo() {
        ApiClient orla = ApiClient.signedIn(server().address(), "orla", PASSWORD);
        String study = orla.post("/api/studies", Map.of("title", "To be handed over"))
                .json()
                .path("id")
                .asString();
        browser.go("/studies/" + study + "/people").seeHeading("People");
        browser.field("Name").sendKeys("Perrin Wold");
        browser.field("As").sendKeys("Reader");
        browser.clickButton("Add");
        browser.seeText("They are asked");
        Axe.scan(browser, ROOT, "people of a study");
        ApiClient perrin = ApiClient.signedIn(server().address(), "perrin", PASSWORD);
        perrin.post("/api/asked/" + study, Map.of());

        browser.driver().navigate().refresh();
        browser.see(By.xpath("//button[@aria-label='Hand over to Perrin Wold']"))
                .click();
        browser.clickButton("Hand it over");
        browser.seeHeading("Studies");
        browser.seeText("You read it");

        browser.go("/account").seeHeading("Orla Fennick");
        browser.seeText("Where you are signed in");
        Axe.scan(browser, ROOT, "own account");
        assertThat(perrin.get("/api/studies/" + study + "/audit-events")
                        .json()
                        .at("/events/0/sort")
                        .asString())
                .isEqualTo("LEAD_STEPPED_BACK");
    }

    @Test(dependsOnMethods = "aStudyIsHandedOverAndTheRecordSaysSo")
    public void somebodyIsInvitedByMailAndComesInByTheLinkInTheLetter() {
        ApiClient orla = ApiClient.signedIn(server().address(), "orla", PASSWORD);
        String study = orla.post("/api/studies", Map.of("title", "By letter"))
                .json()
                .path("id")
                .asString();
        browser.go("/studies/" + study + "/people").seeHeading("People");
        browser.field("Name").sendKeys("Wanda Kessel");
        browser.field("Address for mail").sendKeys("wanda@harbour.example");
        browser.clickButton("Add");
        browser.seeText("Wanda Kessel");

        Awaitility.await()
                .atMost(Duration.ofMinutes(2))
                .until(() -> !MAIL.to("wanda@harbour.example").isEmpty());
        String letter = MAIL.to("wanda@harbour.example").get(0).content().replace("=\n", "");
        Matcher link = Pattern.compile("https://mossbank\\.example(/welcome#[A-Za-z0-9_=-]+)")
                .matcher(letter);
        assertThat(link.find()).as(letter).isTrue();
        try (Browser wanda = Browser.open(server().address())) {
            wanda.go(link.group(1)).seeHeading();
            wanda.field("Password").sendKeys("sedge and bulrush");
            wanda.field("The same again").sendKeys("sedge and bulrush");
            wanda.clickButton("Set the password");
            wanda.see(By.linkText("By letter"));
        }
    }

    private void more(String title, String item) {
        browser.clickButton("More for " + title);
        browser.click(By.xpath("//*[@role='menuitem'][normalize-space()='" + item + "']"));
    }

    @Test(dependsOnMethods = "somebodyIsInvitedByMailAndComesInByTheLinkInTheLetter")
    public void aStudyIsMadeASecondTimePutAwayDeletedAndBroughtBack() {
        browser.signInAs("Orla Fennick");
        browser.go("/?part=By+letter").seeHeading("Studies");
        more("By letter", "Make a second one");
        browser.clickButton("Make it");
        browser.seeHeading("Brief");
        browser.seeText("By letter, again");

        browser.go("/?part=By+letter").seeHeading("Studies");
        more("By letter, again", "Put away");
        browser.await(d -> d.findElements(By.linkText("By letter, again")).isEmpty());
        browser.go("/?part=By+letter&away=true").seeHeading("Studies");
        more("By letter, again", "Bring back");
        browser.seeText("No study is like this.");

        browser.go("/?part=By+letter").seeHeading("Studies");
        more("By letter, again", "Delete …");
        browser.see(By.cssSelector("[role=dialog] input")).sendKeys("By letter, again");
        Axe.scan(browser, ROOT, "deleting a study");
        browser.clickButton("Delete it");
        browser.seeText("gone for good after");
        assertThat(browser.driver().findElements(By.linkText("By letter, again")))
                .isEmpty();
        browser.clickButton("Bring back By letter, again");
        browser.see(By.linkText("By letter, again"));
    }

    @Test(dependsOnMethods = "aStudyIsMadeASecondTimePutAwayDeletedAndBroughtBack")
    public void wordsAreLookedForInAStudy() {
        browser.go("/").seeHeading("Studies");
        browser.clickLink("code model for the buoy service");
        browser.clickLink("Search");
        browser.seeHeading("Search");
        browser.press("buoy");
        browser.see(By.xpath("//mark[translate(., 'B', 'b') = 'buoy']"));
        Axe.scan(browser, ROOT, "search");
        browser.click(By.cssSelector("main ul a"));
        browser.seeHeading();
        browser.driver().navigate().back();
        browser.see(By.xpath("//mark[translate(., 'B', 'b') = 'buoy']"));
    }
}
