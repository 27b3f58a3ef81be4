package org.mossbank.e2e;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.TestDatabase;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.testng.annotations.Test;

/**
 * How fast the desk is with six answers of 800 lines each, by the browser's own clocks: from a key to the frame after it, from
 * a click or an address to the table, and what the first load weighs. Not a test, run by
 * {@code ./mossbank bench}.
 */
public class DeskTimings {
    private static final Path ROOT = Path.of(System.getProperty("mossbank.root"));
    private static final int ANSWERS = 6;
    private static final int LINES = 800;
    private static final int OPENINGS = 7;

    /**
     * Collects how long every key took until the frame after it was drawn, and when the table was first there. The frame
     * counts once its layout and paint are done: a message sent from its callback is handled only then.
     */
    private static final String WATCH = """
            window.took = [];
            addEventListener('keydown', e => requestAnimationFrame(() => {
              const done = new MessageChannel();
              done.port1.onmessage = () => window.took.push([performance.now() - e.timeStamp, e.key]);
              done.port2.postMessage(0);
            }), { capture: true });
            window.tableAt = 0;
            window.allAt = 0;
            const look = () => {
              const texts = document.querySelectorAll('[data-column] .reading').length;
              if (texts < %d || document.querySelector('.answer-late')) {
                window.allAt = 0;
              } else if (window.allAt === 0) {
                window.allAt = -1;
                requestAnimationFrame(() => { window.allAt = performance.now(); });
              }
              if (!document.querySelector('[data-cell]')) {
                window.tableAt = 0;
              } else if (window.tableAt === 0) {
                // Once more, so that what was found has been painted.
                requestAnimationFrame(() => { window.tableAt = performance.now(); });
                window.tableAt = -1;
              }
              requestAnimationFrame(look);
            };
            requestAnimationFrame(look);""".formatted(ANSWERS);

    /** From a key to the frame after it, in milliseconds; keys above it are named. */
    private static final int BAR = 50;

    /** A fast typist's pause, in milliseconds: what is measured is one key, not a queue of them. */
    private static final int PAUSE = 80;

    @Test
    public void measure() throws IOException {
        try (ServerProcess server = ServerProcess.startDemo(ROOT, TestDatabase.create());
                Browser browser = Browser.open(server.address())) {
            ApiClient lead = ApiClient.signedIn(server.address(), "orla", "tide and lantern");
            ApiClient.Response brought = lead.upload("/api/studies/archive?again=true", archive());
            if (brought.status() != 200) {
                throw new IllegalStateException(brought.body());
            }
            browser.driver().executeCdpCommand("Page.addScriptToEvaluateOnNewDocument", Map.of("source", WATCH));
            firstLoad(browser);
            browser.signInAs("Juri Halvard");
            opening(browser);
            keys(browser);
        }
    }

    private static void firstLoad(Browser browser) {
        browser.go("/sign-in").seeText("This is the demo");
        Object kilobytes = browser.driver().executeScript("""
                return performance.getEntriesByType('resource').filter(e => !e.name.includes('/api/'))
                  .concat(performance.getEntriesByType('navigation'))
                  .reduce((sum, e) => sum + e.encodedBodySize, 0) / 1000""");
        System.out.printf("first load: %.0f kB compressed, fonts included%n", ((Number) kilobytes).doubleValue());
    }

    private static void opening(Browser browser) {
        List<Double> clicked = new ArrayList<>();
        List<Double> loaded = new ArrayList<>();
        List<Double> whole = new ArrayList<>();
        for (int i = 0; i < OPENINGS; i++) {
            browser.go("/").seeText("Prompt of the bench 1");
            browser.driver().executeScript("""
                    window.clickedAt = performance.now();
                    [...document.querySelectorAll('a')].find(a => a.textContent === 'Prompt of the bench 1').click();""");
            clicked.add(when(browser, "tableAt") - number(browser, "return window.clickedAt"));
            browser.driver().navigate().refresh();
            loaded.add(when(browser, "tableAt"));
            whole.add(when(browser, "allAt"));
        }
        report("desk opened from the list, to the table painted", clicked);
        report("desk opened by its address, to the table painted", loaded);
        report("desk opened by its address, to the last of the answers painted", whole);
    }

    private static double when(Browser browser, String mark) {
        browser.await(d -> number(browser, "return window." + mark) > 0);
        return number(browser, "return window." + mark);
    }

    private static double number(Browser browser, String script) {
        return ((Number) browser.driver().executeScript(script)).doubleValue();
    }

    private static void keys(Browser browser) {
        browser.see(By.cssSelector("[data-cell='0-0']")).click();
        List<CharSequence> grading = new ArrayList<>();
        for (int row = 0; row < 3; row++) {
            for (int column = 0; column < ANSWERS; column++) {
                grading.addAll(List.of(String.valueOf((row + column) % 4 + 1), "u", Keys.ARROW_RIGHT));
            }
            grading.addAll(List.of(Keys.HOME, Keys.ARROW_DOWN));
        }
        report("keys that grade and move", browser, grading);
        report("keys of a reason", browser, typed("w", "Weighs them as I would, and says why.", Keys.ESCAPE));
        report("keys of the key points", browser, List.of("k", "1", Keys.ARROW_RIGHT, "2", Keys.ARROW_DOWN, "3", "k"));
        report("keys of a remark", browser, typed("r", "+Good", Keys.ESCAPE));
        report(
                "keys that change the view (layouts, pin, prompt, folds, pages)",
                browser,
                List.of("v", "v", "v", "i", "i", "p", "p", "f", "f", Keys.PAGE_DOWN, Keys.PAGE_UP));
    }

    private static List<CharSequence> typed(CharSequence first, String words, CharSequence last) {
        List<CharSequence> keys = new ArrayList<>(List.of(first));
        words.chars().mapToObj(c -> String.valueOf((char) c)).forEach(keys::add);
        keys.add(last);
        return keys;
    }

    private static void report(String what, Browser browser, List<CharSequence> keys) {
        browser.driver().executeScript("window.took = []");
        for (CharSequence key : keys) {
            browser.press(key);
            browser.driver().executeAsyncScript("setTimeout(arguments[arguments.length - 1], " + PAUSE + ")");
        }
        List<Double> took = new ArrayList<>();
        StringBuilder slow = new StringBuilder();
        if (browser.driver().executeScript("return window.took") instanceof List<?> all) {
            for (Object each : all) {
                if (each instanceof List<?> pair && pair.get(0) instanceof Number millis) {
                    took.add(millis.doubleValue());
                    if (millis.doubleValue() > BAR) {
                        slow.append(" %s %.0f".formatted(pair.get(1), millis.doubleValue()));
                    }
                }
            }
        }
        report(what + " (" + took.size() + "), to the frame drawn", took);
        if (!slow.isEmpty()) {
            System.out.println("  over " + BAR + " ms:" + slow);
        }
    }

    private static void report(String what, List<Double> took) {
        took.sort(null);
        System.out.printf(
                "%s: median %.0f ms, 95th percentile %.0f ms, slowest %.0f ms%n",
                what,
                took.get(took.size() / 2),
                took.get((int) Math.min(took.size() - 1, Math.floor(0.95 * took.size()))),
                took.get(took.size() - 1));
    }

    private static byte[] archive() throws IOException {
        StringBuilder answers = new StringBuilder("answer,prompt,candidate,attempt,outcome,file\n");
        StringBuilder candidates = new StringBuilder("candidate,name\n");
        for (int c = 0; c < ANSWERS; c++) {
            candidates.append("c%d,Bench %d%n".formatted(c, c));
            for (int p = 1; p <= 2; p++) {
                answers.append("p%d-c%d,p%d,c%d,1,complete,a%d.md%n".formatted(p, c, p, c, c));
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8)) {
            put(zip, "datapackage.json", """
                    {"name": "bench", "mossbank": {"format": 1}, "resources": [
                    {"name": "study", "path": "study.json"}, {"name": "kinds", "path": "kinds.csv"},
                    {"name": "prompts", "path": "prompts.csv"}, {"name": "key-points", "path": "points.csv"},
                    {"name": "candidates", "path": "candidates.csv"}, {"name": "answers", "path": "answers.csv"},
                    {"name": "criteria", "path": "criteria.csv"}, {"name": "raters", "path": "raters.csv"}]}""");
            put(zip, "study.json", """
                    {"title": "Bench", "question": "How fast?", "audience": "us", "seed": 1,
                    "decisionRule": {"agreementFloor": 0.5, "margin": 5, "minimumRaters": 2}}""");
            put(zip, "kinds.csv", "kind,name\ndebugging,Debugging\n");
            put(zip, "candidates.csv", candidates.toString());
            put(zip, "criteria.csv", "criterion,name,question,weight,highest_level\na,A,?,1,4\nb,B,?,1,4\nc,C,?,1,4\n");
            put(
                    zip,
                    "prompts.csv",
                    "prompt,kind,title,file\np1,debugging,Prompt of the bench 1,p.md\np2,debugging,Prompt of the bench 2,p.md\n");
            put(zip, "points.csv", "prompt,stance,text\np1,must-contain,One\np1,must-contain,Two\np1,must-not,Three\n");
            put(zip, "answers.csv", answers.toString());
            put(zip, "raters.csv", "rater,name\njuri,Juri Halvard\ntove,Tove Lindqvest\n");
            put(zip, "p.md", "Find the fault, and mend it.\n");
            for (int c = 0; c < ANSWERS; c++) {
                put(zip, "a" + c + ".md", answer(c));
            }
        }
        return out.toByteArray();
    }

    /** Prose, lists and Java in turn, 800 lines of them. */
    private static String answer(int number) {
        StringBuilder text = new StringBuilder();
        int lines = 0;
        for (int section = 1; lines < LINES; section++) {
            text.append("## Part ")
                    .append(section)
                    .append("\n\nThe lamp of buoy ")
                    .append(number)
                    .append(" stays dark because `isLit` compares a moment with a *day*, and a day has none.\n\n");
            text.append("- the first thing to see\n- the second, with `code`\n\n```java\n");
            lines += 7;
            for (int i = 0; i < 36 && lines < LINES - 2; i++, lines++) {
                text.append("    private static final Duration DARK_")
                        .append(i)
                        .append(" = Duration.ofMinutes(")
                        .append(section * i)
                        .append("); // as before\n");
            }
            text.append("```\n\n");
            lines += 2;
        }
        return text.toString();
    }

    private static void put(ZipOutputStream zip, String name, String text) throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        zip.write(text.getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
    }
}
