package org.mossbank.server.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import javax.imageio.ImageIO;
import org.mossbank.core.page.PageSight;
import org.mossbank.core.page.PageStep;
import org.mossbank.core.trial.CheckItem;
import org.mossbank.core.trial.TrialOutcome;
import org.mossbank.server.ServerTest;
import org.mossbank.server.sandbox.Sandbox;
import org.mossbank.server.sandbox.WorkFiles;
import org.springframework.beans.factory.annotation.Autowired;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Pages in the real browser in the real sandbox, some of which mean ill. */
public class PagesTest extends ServerTest {
    private static final String DIALOG = """
            <!doctype html><title>Leave</title><button id=o>Leave the study …</button>
            <dialog id=d aria-label="Leave the study"><p>Your grades stay.</p>
            <button id=y>Leave</button><button id=n>Stay</button></dialog>
            <script type=module src="page.js"></script>
            """;
    private static final String SCRIPT =
            "const [o, d, y, n] = ['o', 'd', 'y', 'n'].map((i) => document.getElementById(i));"
                    + "o.onclick = () => { d.showModal(); %s.focus(); }; n.onclick = () => d.close();";

    private static final List<Pages.Size> LARGE = List.of(new Pages.Size(1280, 800));

    @Autowired
    private Pages pages;

    private static PageStep open() {
        return new PageStep(PageStep.Action.OPEN, "", "", "index.html", List.of());
    }

    private static PageSight text(String text, boolean absent) {
        return new PageSight(PageSight.How.TEXT, "", "", text, absent);
    }

    private static final List<PageStep> LEAVING = List.of(
            new PageStep(
                    PageStep.Action.OPEN,
                    "",
                    "",
                    "index.html",
                    List.of(new PageSight(PageSight.How.ROLE, "button", "Leave the study …", "", false))),
            new PageStep(
                    PageStep.Action.CLICK,
                    "button",
                    "Leave the study …",
                    "",
                    List.of(
                            text("Your grades stay.", false),
                            new PageSight(PageSight.How.FOCUS, "button", "Stay", "", false))),
            new PageStep(PageStep.Action.PRESS, "", "", "Escape", List.of(text("Your grades stay.", true))));

    private Pages.Seen look(Map<String, String> files, List<PageStep> steps) {
        assertThat(pages.missing()).isEmpty();
        return pages.look(WorkFiles.of(files), LARGE, steps, new Sandbox.Stop());
    }

    private static List<CheckItem> judged(Pages.Seen seen, List<PageStep> steps) {
        assertThat(seen.fault()).isEmpty();
        return seen.ends().get(0).judge(steps, false);
    }

    @Test
    public void whatIsAskedIsSeenStepByStep() throws Exception {
        Pages.Seen seen = look(Map.of("index.html", DIALOG, "page.js", SCRIPT.formatted("n")), LEAVING);
        assertThat(judged(seen, LEAVING)).extracting(CheckItem::outcome).containsOnly(TrialOutcome.PASSED);
        assertThat(seen.pictures()).hasSize(3).allSatisfy(p -> {
            BufferedImage picture = ImageIO.read(new ByteArrayInputStream(p.png()));
            assertThat(picture.getWidth()).isEqualTo(1280);
            assertThat(picture.getHeight()).isEqualTo(800);
        });
        assertThat(seen.pictures().get(1).text()).contains("Your grades stay.");
    }

    @Test
    public void aButtonThatIsWronglyPreselectedIsTold() {
        Pages.Seen seen = look(Map.of("index.html", DIALOG, "page.js", SCRIPT.formatted("y")), LEAVING);
        CheckItem wrong = judged(seen, LEAVING).get(1);
        assertThat(wrong.outcome()).isEqualTo(TrialOutcome.WRONG_OUTPUT);
        assertThat(wrong.name()).isEqualTo("1280 × 800, step 2: click button “Leave the study …”");
        assertThat(wrong.why()).isEqualTo("it must be that button “Stay” has the focus; button “Leave” has it");
    }

    @Test
    public void whatIsNotThereEndsThePage() {
        List<PageStep> steps =
                List.of(open(), new PageStep(PageStep.Action.CLICK, "button", "Buy", "", List.of()), LEAVING.get(2));
        List<CheckItem> items = judged(look(Map.of("index.html", DIALOG, "page.js", ""), steps), steps);
        assertThat(items.get(1).why()).isEqualTo("there is no button “Buy”");
        assertThat(items.get(2).why()).isEqualTo("it was not come to");
    }

    @Test
    public void errorsThatAPageSaysAreTold() {
        List<PageStep> steps = List.of(open());
        List<CheckItem> items =
                judged(look(Map.of("index.html", "<p>Here<script>console.error('a fault')</script>"), steps), steps);
        assertThat(items.get(0).why()).contains("a fault");
    }

    private static String script(String code) {
        return "<!doctype html><p id=p>begun</p><script type=module>const say = (t) => { p.textContent = t; };"
                + "const p = document.getElementById('p');" + code + "</script>";
    }

    @DataProvider
    public Object[][] hostile() {
        return new Object[][] {
            {
                "the network",
                "try { await fetch('http://example.com/'); say('reached'); } catch { say('kept in'); }",
                "kept in"
            },
            {
                "files of the machine",
                "try { say(await (await fetch('/../../etc/passwd')).text() || 'kept in'); } catch { say('kept in'); }",
                "kept in"
            },
            {
                "files by their address",
                "try { await fetch('file:///etc/passwd'); say('reached'); } catch { say('kept in'); }",
                "kept in"
            },
            {
                "what drives it",
                "try { const r = await fetch('http://127.0.0.1:9515/session', {method: 'POST', body: '{}'});"
                        + " say((await r.text()) ? 'reached' : 'kept in'); } catch { say('kept in'); }",
                "kept in"
            },
            {
                "permissions",
                "navigator.geolocation.getCurrentPosition(() => say('reached'), () => say('kept in'));",
                "kept in"
            },
            {
                "what it shows as a message",
                "setTimeout(() => { for (let i = 0; i < 3; i++) alert('stay'); say('kept in'); });",
                "kept in"
            },
        };
    }

    @Test(dataProvider = "hostile")
    public void aPageThatMeansIllIsKeptIn(String name, String code, String text) {
        List<PageStep> steps =
                List.of(open(), new PageStep(PageStep.Action.WAIT_FOR, "", "", text, List.of(text("reached", true))));
        Pages.Seen seen = look(Map.of("index.html", script(code)), steps);
        assertThat(seen.ends().get(0).judge(steps, true))
                .as(name + ": " + seen.ends())
                .extracting(CheckItem::outcome)
                .containsOnly(TrialOutcome.PASSED);
    }

    @DataProvider
    public Object[][] endless() {
        return new Object[][] {
            {"a script that never ends", "for (;;) {}"},
            {"a thousand windows", "for (let i = 0; i < 1000; i++) window.open('about:blank');"},
            {"a page that calls itself", "location.reload();"},
            {"memory", "const all = []; for (;;) all.push(new Uint8Array(50_000_000).fill(1));"},
            {
                "a download",
                "const a = document.createElement('a'); a.href = 'data:text/plain,x'; a.download = 'x'; a.click();"
            },
            {"sound", "new Audio('data:audio/wav;base64,UklGRiQAAABXQVZFZm10IBAAAAABAAEA').play();"},
        };
    }

    /** It is ended, or does no harm; what comes next works as before. */
    @Test(dataProvider = "endless")
    public void aPageThatDoesNotStopIsEnded(String name, String code) throws Exception {
        List<Path> before = downloads();
        Pages.Seen seen = look(Map.of("index.html", script(code)), List.of(open()));
        assertThat(seen.ends().isEmpty() ? seen.fault() : "seen").as(name).isNotBlank();
        assertThat(downloads()).isEqualTo(before);
        assertThat(judged(look(Map.of("index.html", "<p>Here"), List.of(open())), List.of(open())))
                .extracting(CheckItem::outcome)
                .containsOnly(TrialOutcome.PASSED);
    }

    private static List<Path> downloads() throws Exception {
        Path home = Path.of(System.getProperty("user.home"));
        try (var files = Files.list(home)) {
            return files.sorted().toList();
        }
    }
}
