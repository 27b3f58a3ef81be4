package org.mossbank.server.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.mossbank.core.page.PageSight;
import org.mossbank.core.page.PageStep;
import org.mossbank.core.trial.CheckItem;
import org.mossbank.core.trial.TrialOutcome;
import org.mossbank.server.ServerTest;
import org.mossbank.server.sandbox.Sandbox;
import org.mossbank.server.sandbox.SandboxJob;
import org.mossbank.server.sandbox.SandboxLimits;
import org.mossbank.server.sandbox.SandboxResult;
import org.mossbank.server.sandbox.WorkFiles;
import org.mossbank.server.toolchain.Toolchains;
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

    private static final List<PageContent.PageSize> LARGE = List.of(new PageContent.PageSize(1280, 800));

    @Autowired
    private Pages pages;

    @Autowired
    private Toolchains toolchains;

    @Autowired
    private Sandbox sandbox;

    private static PageContent.StepOfPage step(
            PageStep.Action action, String role, String name, String text, PageContent.SightOfPage... sights) {
        return new PageContent.StepOfPage(action, role, name, text, List.of(sights));
    }

    private static PageContent.StepOfPage open() {
        return step(PageStep.Action.OPEN, "", "", "index.html");
    }

    private static PageContent.SightOfPage text(String text, boolean absent) {
        return new PageContent.SightOfPage(PageSight.How.TEXT, "", "", text, absent);
    }

    private static final List<PageContent.StepOfPage> LEAVING = List.of(
            step(
                    PageStep.Action.OPEN,
                    "",
                    "",
                    "index.html",
                    new PageContent.SightOfPage(PageSight.How.ROLE, "button", "Leave the study …", "", false)),
            step(
                    PageStep.Action.CLICK,
                    "button",
                    "Leave the study …",
                    "",
                    text("Your grades stay.", false),
                    new PageContent.SightOfPage(PageSight.How.FOCUS, "button", "Stay", "", false)),
            step(PageStep.Action.PRESS, "", "", "Escape", text("Your grades stay.", true)));

    private static PageContent page(List<PageContent.StepOfPage> steps) {
        return new PageContent(LARGE, steps, false);
    }

    private Pages.Seen look(Map<String, String> files, List<PageContent.StepOfPage> steps) {
        assertThat(pages.missing()).isEmpty();
        return pages.look(WorkFiles.of(files), page(steps), new Sandbox.Stop());
    }

    private static List<CheckItem> judged(Pages.Seen seen, List<PageContent.StepOfPage> steps) {
        return seen.judged(page(steps));
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
        assertThat(seen.pictures().get(1).about().text()).contains("Your grades stay.");
        assertThat(seen.pictures()).noneMatch(p -> p.about().unread());
    }

    @Test
    public void aButtonThatIsWronglyPreselectedIsTold() {
        Pages.Seen seen = look(Map.of("index.html", DIALOG, "page.js", SCRIPT.formatted("y")), LEAVING);
        CheckItem wrong = judged(seen, LEAVING).get(1);
        assertThat(wrong.outcome()).isEqualTo(TrialOutcome.WRONG_OUTPUT);
        assertThat(wrong.name()).isEqualTo("1280 × 800, step 2: click button “Leave the study …”");
        assertThat(wrong.why()).isEqualTo("the focus is on button “Leave”, not on button “Stay”");
    }

    @Test
    public void whatIsNotThereEndsThePage() {
        List<PageContent.StepOfPage> steps =
                List.of(open(), step(PageStep.Action.CLICK, "button", "Buy", ""), LEAVING.get(2));
        List<CheckItem> items = judged(look(Map.of("index.html", DIALOG, "page.js", ""), steps), steps);
        assertThat(items.get(1).why()).isEqualTo("there is no button “Buy”");
        assertThat(items.get(2).why()).isEqualTo("it was not come to");
    }

    /** What a page draws anew while it is looked at takes away what was just found. */
    @Test
    public void whatIsDrawnAnewMeanwhileIsFoundAllTheSame() {
        String page = "<!doctype html><div id=d></div><p id=p></p><script>let n = 0; function draw() { d.innerHTML ="
                + " Array.from({length: 40}, (_, i) => `<button>No ${i}</button>`).join('')"
                + " + '<button onclick=\"p.textContent = \\'gone\\'\">Go</button>'; if (n++ < 20) setTimeout(draw, 30); } draw();</script>";
        List<PageContent.StepOfPage> steps =
                List.of(open(), step(PageStep.Action.CLICK, "button", "Go", "", text("gone", false)));
        assertThat(judged(look(Map.of("index.html", page), steps), steps))
                .extracting(CheckItem::why)
                .containsExactly("", "");
    }

    @Test
    public void somethingIsFoundOnALargePage() {
        String page = "<!doctype html><table>" + "<tr><td>1<td>2".repeat(2_000) + "</table><button>Go</button>";
        List<PageContent.StepOfPage> steps = List.of(open(), step(PageStep.Action.CLICK, "button", "Go", ""));
        assertThat(judged(look(Map.of("index.html", page), steps), steps))
                .extracting(CheckItem::why)
                .containsExactly("", "");
    }

    /** By the names that the standard has, held together where a plus stands between. */
    @Test
    public void keysArePressedAlsoTogether() {
        String page = "<!doctype html><input aria-label=Berth value=four><p id=p></p><script>"
                + "document.onkeydown = (e) => { if (e.key === 'K' && e.ctrlKey && e.shiftKey) p.textContent = 'pressed'; }"
                + "</script>";
        List<PageContent.StepOfPage> steps = List.of(
                open(),
                step(PageStep.Action.CLICK, "textbox", "Berth", ""),
                step(PageStep.Action.PRESS, "", "", "Control+Shift+K", text("pressed", false)),
                step(PageStep.Action.TYPE, "textbox", "Berth", "teen"),
                step(PageStep.Action.PRESS, "", "", "Nothing"));
        List<CheckItem> items = judged(look(Map.of("index.html", page), steps), steps);
        assertThat(items).extracting(CheckItem::why).containsExactly("", "", "", "", "there is no key “Nothing”");
    }

    @Test
    public void errorsThatAPageSaysAreTold() {
        List<PageContent.StepOfPage> steps = List.of(open());
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
        List<PageContent.StepOfPage> steps =
                List.of(open(), step(PageStep.Action.WAIT_FOR, "", "", text, text("reached", true)));
        Pages.Seen seen = look(Map.of("index.html", script(code)), steps);
        assertThat(seen.judged(new PageContent(LARGE, steps, true)))
                .as(name + ": " + seen.ends())
                .extracting(CheckItem::outcome)
                .containsOnly(TrialOutcome.PASSED);
    }

    @DataProvider
    public Object[][] endless() {
        // Those that take all of their time belong to the long check; every check has one whose build forges findings.
        Object[][] patient = {
            {"a script that never ends", "for (;;) {}"},
            {"a thousand windows", "for (let i = 0; i < 1000; i++) window.open('about:blank');"},
            {"a page that calls itself", "location.reload();"},
        };
        Object[][] always = {
            {"memory", "const all = []; for (;;) all.push(new Uint8Array(50_000_000).fill(1));"},
            {
                "a download",
                "const a = document.createElement('a'); a.href = 'data:text/plain,x'; a.download = 'x'; a.click();"
            },
            {"sound", "new Audio('data:audio/wav;base64,UklGRiQAAABXQVZFZm10IBAAAAABAAEA').play();"},
        };
        return Stream.of(always, Boolean.getBoolean("mossbank.long") ? patient : new Object[0][])
                .flatMap(Arrays::stream)
                .toArray(Object[][]::new);
    }

    /** It is ended, or does no harm; what comes next works as before. */
    @Test(dataProvider = "endless")
    public void aPageThatDoesNotStopIsEnded(String name, String code) throws Exception {
        List<Path> before = downloads();
        Pages.Seen seen = look(Map.of("index.html", script(code)), List.of(open()));
        assertThat(judged(seen, List.of(open()))).as(name).isNotEmpty();
        assertThat(downloads()).isEqualTo(before);
        assertThatTheNextIsSeen();
    }

    private void assertThatTheNextIsSeen() {
        assertThat(judged(look(Map.of("index.html", "<p>Here"), List.of(open())), List.of(open())))
                .extracting(CheckItem::outcome)
                .containsOnly(TrialOutcome.PASSED);
    }

    /** What a build leaves where the browser's findings are to be is not taken for them. */
    @Test
    public void findingsAreNotForgedByABuild() {
        Pages.Seen seen = look(
                Map.of(
                        "index.html",
                        "<p>Here<script>for (;;) {}</script>",
                        ".page/result.json",
                        "{\"sizes\":[{\"steps\":[{\"fault\":\"\",\"sights\":[]}]}]}",
                        ".page/0-0.png",
                        "<script>alert(1)</script>"),
                List.of(open()));
        assertThat(judged(seen, List.of(open()))).extracting(CheckItem::outcome).doesNotContain(TrialOutcome.PASSED);
        assertThat(seen.pictures()).allSatisfy(p -> assertThat(p.png()).startsWith(0x89, 'P', 'N', 'G'));
        assertThatTheNextIsSeen();
    }

    @DataProvider
    public Object[][] unread() {
        return new Object[][] {
            {"a canvas", "<canvas></canvas>", true},
            {"a picture", "<img alt='' src='data:,'>", true},
            {"a frame", "<iframe srcdoc='Brindle'></iframe>", true},
            {"a ground", "<p style=\"background: url('x.svg')\">Here", true},
            {
                "a page that lies about itself",
                "<canvas></canvas><script>document.querySelector = () => null</script>",
                true
            },
            {"text alone", "<p>Here", false},
            {"a gradient", "<p style='background: linear-gradient(red, blue)'>Here", false},
        };
    }

    @Test(dataProvider = "unread")
    public void whatCannotBeReadIsTold(String name, String html, boolean unread) {
        Pages.Seen seen = look(Map.of("index.html", "<!doctype html>" + html), List.of(open()));
        assertThat(seen.pictures().get(0).about().unread()).as(name).isEqualTo(unread);
    }

    @Test
    public void whatIsGeneratedIsRead() {
        Pages.Seen seen = look(
                Map.of(
                        "index.html",
                        "<!doctype html><style>p::before { content: 'By Brindle' }</style><p>Here<input placeholder=Quillwort>"
                                + "<div id=d></div><script>d.attachShadow({mode: 'closed'}).innerHTML = '<b>Sedge</b>'</script>"),
                List.of(open()));
        assertThat(seen.pictures().get(0).about().text()).contains("By Brindle", "Quillwort", "Sedge");
    }

    /** As the toolchain of pages builds it. */
    @Test
    public void reactIsBundledWithoutANetwork() throws Exception {
        Toolchains.Offered toolchain = toolchains.of("page").orElseThrow();
        WorkFiles files = WorkFiles.of(Map.of(
                "index.html",
                "<!doctype html><title>Tides</title><div id=root></div><script type=module src=main.js></script>",
                "main.tsx",
                "import { useState } from 'react'; import { createRoot } from 'react-dom/client';"
                        + "function Tides() { const [n, set] = useState(0);"
                        + " return <button onClick={() => set(n + 1)}>{n} tides</button>; }"
                        + "createRoot(document.getElementById('root')!).render(<Tides />);"));
        SandboxResult built = sandbox.run(
                new SandboxJob(files, toolchain.build(), "", toolchain.tools(), SandboxLimits.usual()),
                new Sandbox.Stop());
        assertThat(built.status())
                .as(built.output().text() + built.errors().text())
                .isZero();
        List<PageContent.StepOfPage> steps =
                List.of(open(), step(PageStep.Action.CLICK, "button", "0 tides", "", text("1 tides", false)));
        Pages.Seen seen = pages.look(built.files(), page(steps), new Sandbox.Stop());
        assertThat(judged(seen, steps)).extracting(CheckItem::why).containsOnly("");

        WorkFiles wrong = files.with(Map.of("main.tsx", "const n: number = 'many'; export {};"));
        SandboxResult refused = sandbox.run(
                new SandboxJob(wrong, toolchain.build(), "", toolchain.tools(), SandboxLimits.usual()),
                new Sandbox.Stop());
        assertThat(refused.status()).isNotZero();
        assertThat(refused.output().text()).contains("main.tsx");
    }

    private static List<Path> downloads() throws Exception {
        Path home = Path.of(System.getProperty("user.home"));
        try (var files = Files.list(home)) {
            return files.sorted().toList();
        }
    }
}
