package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.mossbank.testkit.ApiClient;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.testng.annotations.Test;

/** Answers that are far too long, hold what cannot be seen, or mean ill: they are read at the desk like any other. */
public class HostileAnswersTest extends Journey {
    private static final int LINES = 50_000;

    private static String longAnswer() {
        StringBuilder text = new StringBuilder();
        for (int i = 1; i <= LINES; i++) {
            text.append("row ").append(i).append(" of the log, with nothing in it\n");
        }
        return text.toString();
    }

    private static final String SCRIPTS = """
            <script>window.reached = true</script>
            <img src=x onerror="window.reached = true"> <svg onload="window.reached = true"></svg>

            [a link](javascript:window.reached=true) ![a picture](http://elsewhere.example/p.png)

            ```html
            <script>window.reached = true</script>
            ```
            """;

    private static final String UNSEEN =
            "שלום, this \u202eturns round\u202c.\n\n```java\nif (isLead\u2066) {\u2069\n```\n\n"
                    + "```diff\n--- a/x\n+++ b/x\n@@ -1,9 +1 @@\n-ends early\n```\n\n"
                    + "```diff\ndiff --git a/p.png b/p.png\nGIT binary patch\nliteral 9\nQcmZQzpXg\n```\n\n\u0001\u0002\u001b[31m";

    private static byte[] archive() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8)) {
            StringBuilder resources = new StringBuilder();
            for (String name : List.of("kinds", "prompts", "candidates", "answers", "criteria", "raters")) {
                resources.append(", {\"name\": \"%s\", \"path\": \"%s.csv\"}".formatted(name, name));
            }
            put(
                    zip,
                    "datapackage.json",
                    "{\"name\": \"ill\", \"mossbank\": {\"format\": 1}, \"resources\": [{\"name\": \"study\","
                            + " \"path\": \"study.json\"}" + resources + "]}");
            put(zip, "study.json", """
                    {"title": "Answers that mean ill", "question": "Is it safe?", "audience": "us", "seed": 1,
                    "decisionRule": {"agreementFloor": 0.5, "margin": 5, "minimumRaters": 2}}""");
            put(zip, "kinds.csv", "kind,name\nreview,Review\n");
            put(zip, "prompts.csv", "prompt,kind,title,file\np,review,Read what came,p.md\n");
            put(zip, "candidates.csv", "candidate,name\na,Aaa\nb,Bbb\nc,Ccc\n");
            put(
                    zip,
                    "answers.csv",
                    "answer,prompt,candidate,attempt,outcome,file\np-a,p,a,1,complete,a.md\np-b,p,b,1,complete,b.md\np-c,p,c,1,complete,c.md\n");
            put(zip, "criteria.csv", "criterion,name,question,weight,highest_level\nright,Correctness,?,1,4\n");
            put(zip, "raters.csv", "rater,name\nines,Ines Calder\nsana,Sana Tillery\n");
            put(zip, "p.md", "Read it.\n");
            put(zip, "a.md", longAnswer());
            put(zip, "b.md", SCRIPTS);
            put(zip, "c.md", UNSEEN);
        }
        return out.toByteArray();
    }

    private static void put(ZipOutputStream zip, String name, String text) throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        zip.write(text.getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
    }

    @Test
    public void areReadLikeAnyOther() throws IOException {
        ApiClient.Response brought = ApiClient.signedIn(server().address(), "orla", PASSWORD)
                .upload("/api/studies/archive?again=true", archive());
        assertThat(brought.status()).as(brought.body()).isEqualTo(200);
        browser.signInAs("Ines Calder");
        browser.clickLink("Read what came");
        browser.seeHeading("Read what came");

        browser.seeText("This answer is very long (50001 lines)");
        browser.press("q");
        browser.press("row 49999 of", Keys.ENTER);
        browser.seeText("1 of 1 line");
        browser.await(d -> d.findElements(By.cssSelector("[data-picked]")).stream()
                .anyMatch(e -> e.getText().contains("row 49999 of the log")));
        browser.press(Keys.ESCAPE);

        String page = browser.see(By.tagName("main")).getText();
        assertThat(page)
                .contains("<script>window.reached = true</script>")
                .contains("[picture: a picture]")
                .contains("⟦202E⟧")
                .contains("⟦2066⟧")
                .contains("⟦0001⟧")
                .contains("GIT binary patch");
        browser.press("D");
        browser.seeText("so there is nothing to compare");
        assertThat(browser.driver().executeScript("return window.reached === undefined"))
                .isEqualTo(true);
        assertThat(browser.all(By.cssSelector("main img, main svg[onload], main script, main [onerror]")))
                .isEmpty();
    }
}
