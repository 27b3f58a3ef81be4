package org.mossbank.server.trial;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mossbank.server.Checks.shell;
import static org.mossbank.server.StudyInTheMaking.ok;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import javax.imageio.ImageIO;
import org.mossbank.server.Bodies;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Answers that make a page: opened step by step, with pictures that go with the study. */
public class PageTrialTest extends ServerTest {
    private static final String PAGE = """
            <!doctype html>
            <title>Leave</title>
            <button id="open">Leave the study …</button>
            <dialog id="ask" aria-label="Leave the study"><p>Your grades stay.</p>
            <button id="yes">Leave</button> <button id="no">Stay</button></dialog>
            <script>
              const at = (id) => document.getElementById(id);
              at("open").onclick = () => { at("ask").showModal(); at("%s").focus(); };
            </script>
            """;

    private static Map<String, Object> step(String action, String name, String text, Map<?, ?>... sights) {
        return Map.of(
                "action",
                action,
                "role",
                name.isEmpty() ? "" : "button",
                "name",
                name,
                "text",
                text,
                "sights",
                List.of(sights));
    }

    private static Map<String, Object> sight(String how, String role, String name, String text) {
        return Map.of("how", how, "role", role, "name", name, "text", text, "absent", false);
    }

    private static final List<Map<String, Object>> STEPS = List.of(
            step("OPEN", "", "index.html"),
            step(
                    "CLICK",
                    "Leave the study …",
                    "",
                    sight("TEXT", "", "", "Your grades stay."),
                    sight("FOCUS", "button", "Stay", "")));

    private static Map<String, Object> page(List<Map<String, Object>> steps) {
        return Map.of(
                "sizes",
                List.of(Map.of("width", 800, "height", 600), Map.of("width", 390, "height", 700)),
                "steps",
                steps,
                "errorsAllowed",
                false);
    }

    private static Map<String, Object> check() {
        Map<String, Object> check = new HashMap<>(shell(""));
        check.put("toolchain", "page");
        check.put("runs", List.of());
        check.put("loose", Map.of("path", "index.html", "before", "", "after", "", "importsFirst", false));
        check.put("page", page(STEPS));
        return check;
    }

    private static String answer(String focus) {
        return "Here:\n\n```html\n" + PAGE.formatted(focus) + "```\n";
    }

    private static String prompt(StudyInTheMaking own) {
        return own.post(
                        "/prompts",
                        Map.of("kindId", own.kind("debugging"), "content", Bodies.prompt("Leave", "Ask first.")))
                .path("id")
                .asString();
    }

    private StudyInTheMaking study(Map<String, Object> check) {
        StudyInTheMaking own = StudyInTheMaking.begunBy(as(LEAD));
        String prompt = prompt(own);
        own.post("/answers", Bodies.answer(prompt, own.candidate("Model 0"), answer("no")));
        own.post("/answers", Bodies.answer(prompt, own.candidate("Model 1"), answer("yes")));
        own.put("/prompts/" + prompt + "/check", Map.of("revision", 0, "content", check));
        return own;
    }

    private static List<String> outcomes(JsonNode result) {
        return result.path("items")
                .valueStream()
                .map(i -> i.path("outcome").asString())
                .toList();
    }

    /** Size by size, step by step. */
    private static final List<String> ASKED = List.of(
            "800 × 600, step 1: open index.html",
            "800 × 600, step 2: click button “Leave the study …”",
            "390 × 700, step 1: open index.html",
            "390 × 700, step 2: click button “Leave the study …”");

    @Test
    public void eachStepIsJudgedAndHasAPictureThatGoesWithTheStudy() throws Exception {
        StudyInTheMaking own = study(check());
        List<JsonNode> results = RepositoryTrialTest.tried(own);

        assertThat(results.get(0)
                        .path("items")
                        .valueStream()
                        .map(i -> i.path("name").asString()))
                .containsExactlyElementsOf(ASKED);
        assertThat(outcomes(results.get(0))).containsOnly("PASSED");
        assertThat(outcomes(results.get(1))).containsExactly("PASSED", "WRONG_OUTPUT", "PASSED", "WRONG_OUTPUT");
        assertThat(results.get(1).at("/items/1/why").asString())
                .isEqualTo("the focus is on button “Leave”, not on button “Stay”");
        assertThat(results.get(1).at("/pictures/1/text").asString()).contains("Your grades stay.");

        List<byte[]> pictures = pictures(own);
        assertThat(pictures).hasSize(8);
        assertThat(ImageIO.read(new ByteArrayInputStream(pictures.get(2))).getWidth())
                .isEqualTo(390);

        byte[] ofRepair = own.lead.get(own.path + repairOf(own) + "1").raw().body();
        ApiClient lead = as(LEAD);
        byte[] zip = export(lead, own.id());
        StudyInTheMaking again = StudyInTheMaking.of(
                lead,
                ok(lead.upload("/api/studies/archive?again=true", zip))
                        .path("studyId")
                        .asString());
        assertThat(pictures(again))
                .usingRecursiveFieldByFieldElementComparator()
                .containsExactlyInAnyOrderElementsOf(pictures);
        String repairs = again.get("/answers")
                .valueStream()
                .map(a -> "/answers/" + a.path("id").asString() + "/repairs")
                .filter(r -> !again.get(r).isEmpty())
                .findFirst()
                .orElseThrow();
        String kept = repairs + "/" + again.get(repairs).at("/0/id").asString() + "/pictures/1";
        assertThat(lead.get(again.path + kept).raw().body()).isEqualTo(ofRepair);
        assertThat(unzipped(export(lead, again.id())).keySet().stream().filter(f -> f.endsWith(".png")))
                .hasSize(12);
    }

    /** Repairs the answer that preselects the wrong button, and says where its pictures are. */
    private static String repairOf(StudyInTheMaking own) {
        String second = own.get("/candidates").get(1).path("id").asString();
        JsonNode answer = own.get("/answers")
                .valueStream()
                .filter(a -> a.path("candidateId").asString().equals(second))
                .findFirst()
                .orElseThrow();
        String path = "/answers/" + answer.path("id").asString();
        JsonNode made = own.post(
                path + "/repairs",
                Map.of("files", List.of(Map.of("path", "index.html", "text", PAGE.formatted("no")))));

        assertThat(outcomes(made.path("result"))).containsOnly("PASSED");
        return path + "/repairs/" + made.at("/repair/id").asString() + "/pictures/";
    }

    private static List<byte[]> pictures(StudyInTheMaking own) {
        List<byte[]> pictures = new ArrayList<>();
        for (JsonNode trial : own.get("/trials").path("trials")) {
            String path = "/trials/" + trial.path("id").asString();
            for (int i = 0; i < own.get(path).path("pictures").size(); i++) {
                var response = own.lead.get(own.path + (path + "/pictures/" + i));
                assertThat(response.raw().headers().firstValue("Content-Type")).contains("image/png");
                assertThat(response.raw().headers().firstValue("X-Content-Type-Options"))
                        .contains("nosniff");
                pictures.add(response.raw().body());
            }
            assertThat(own.lead.get(own.path + (path + "/pictures/4")).status()).isEqualTo(404);
        }
        return pictures;
    }

    /** Nothing of it is kept, so it comes with what came of it. */
    @Test
    public void aCheckThatIsTriedShowsItsPictures() throws Exception {
        StudyInTheMaking own = study(check());
        JsonNode answer = own.get("/answers").get(0);
        JsonNode tried = own.post(
                "/prompts/" + answer.path("promptId").asString() + "/check/try",
                Map.of("subject", "ANSWER", "answerId", answer.path("id").asString(), "content", check()));

        assertThat(tried.path("pictures")).hasSize(4);
        byte[] first = Base64.getDecoder().decode(tried.at("/pictures/0").asString());
        assertThat(ImageIO.read(new ByteArrayInputStream(first)).getHeight()).isEqualTo(600);
    }

    @Test
    public void aRepairedPageHasPicturesOfItsOwn() throws Exception {
        StudyInTheMaking own = study(check());
        String pictures = repairOf(own);
        byte[] png = own.lead.get(own.path + (pictures + "1")).raw().body();
        assertThat(ImageIO.read(new ByteArrayInputStream(png)).getWidth()).isEqualTo(800);
        assertThat(own.lead.get(own.path + (pictures + "9")).status()).isEqualTo(404);
    }

    /** A study that is full of pictures keeps what came of a trial without them, and says so. */
    @Test
    public void whereThereIsNoRoomForPicturesTheyAreLeftOut() throws Exception {
        StudyInTheMaking own = study(check());
        RepositoryTrialTest.tried(own);
        JsonNode trial = own.get("/trials").at("/trials/0");
        try (Connection connection = DriverManager.getConnection(DATABASE.url(), DATABASE.user(), DATABASE.password());
                PreparedStatement full = connection.prepareStatement(
                        "insert into page_picture (id, study_id, trial_id, place, bytes, png)"
                                + " values (gen_random_uuid(), ?::uuid, ?::uuid, 23, 16 << 20, decode(repeat('00', 16 << 20), 'hex'))")) {
            full.setString(1, own.id());
            full.setString(2, trial.path("id").asString());
            full.executeUpdate();
        }
        JsonNode made = own.post(
                "/answers/" + trial.path("answerId").asString() + "/repairs",
                Map.of("files", List.of(Map.of("path", "index.html", "text", PAGE.formatted("no") + "\n"))));
        assertThat(outcomes(made.path("result"))).containsOnly("PASSED");
        assertThat(made.at("/result/pictures")).isEmpty();
        assertThat(made.at("/result/log").asString()).contains("a study keeps at most 16 MB of pictures of pages");
    }

    @DataProvider
    public Object[][] refused() {
        return new Object[][] {
            {"nothing is opened first", List.of(step("PRESS", "", "Tab")), "must open a page"},
            {"a way out of the folder", List.of(step("OPEN", "", "../secret.html")), "a path below"},
            {"an address", List.of(step("OPEN", "", "http://example.com/")), "a path below"},
            {"a click on nothing", List.of(STEPS.get(0), step("CLICK", "", "")), "role must say"},
            {"nothing to wait for", List.of(STEPS.get(0), step("WAIT_FOR", "", " ")), "text must say"},
            {
                "a sight of nothing",
                List.of(step("OPEN", "", "index.html", sight("ROLE", "", "Leave", ""))),
                "a sight must say"
            },
            {
                "too many pictures",
                java.util.stream.Stream.generate(() -> STEPS.get(0)).limit(13).toList(),
                "at most 24"
            },
        };
    }

    @Test(dataProvider = "refused")
    public void whatCannotBeAskedIsRefused(String name, List<Map<String, Object>> steps, String message) {
        StudyInTheMaking own = StudyInTheMaking.begunBy(as(LEAD));
        String prompt = prompt(own);
        Map<String, Object> check = check();
        check.put("page", page(steps));
        ApiClient.Response response =
                own.lead.put(own.path + ("/prompts/" + prompt + "/check"), Map.of("revision", 0, "content", check));
        assertThat(response.status()).as(name).isEqualTo(400);
        assertThat(response.body()).contains(message);
    }

    @DataProvider
    public Object[][] broken() {
        UnaryOperator<byte[]> script = png -> "<script>alert(1)</script>".getBytes(StandardCharsets.UTF_8);
        UnaryOperator<byte[]> huge = png -> {
            byte[] claims = png.clone();
            // Its width, in the first chunk.
            claims[16] = 0x7f;
            return claims;
        };
        return new Object[][] {{"a script", script}, {"a picture that claims to be huge", huge}};
    }

    /** What an archive brings is drawn anew as well: it may come from anywhere. */
    @Test(dataProvider = "broken")
    public void anArchiveWithWhatIsNoPictureIsRefused(String name, UnaryOperator<byte[]> change) throws Exception {
        StudyInTheMaking own = study(check());
        RepositoryTrialTest.tried(own);
        ApiClient lead = as(LEAD);
        Map<String, byte[]> files = unzipped(export(lead, own.id()));
        String picture = files.keySet().stream()
                .filter(f -> f.endsWith("-01.png"))
                .findFirst()
                .orElseThrow();
        files.put(picture, change.apply(files.get(picture)));
        assertThat(lead.upload("/api/studies/archive?again=true", zip(files)).body())
                .as(name)
                .contains("a PNG picture of a page");
    }

    /** A picture that is missing, and one of nothing. */
    @Test
    public void anArchiveMustHaveThePicturesThatItTellsOf() throws Exception {
        StudyInTheMaking own = study(check());
        RepositoryTrialTest.tried(own);
        ApiClient lead = as(LEAD);
        Map<String, byte[]> files = unzipped(export(lead, own.id()));
        String table = new String(files.get("page-pictures.csv"), StandardCharsets.UTF_8);
        files.put(
                "page-pictures.csv",
                table.substring(0, table.lastIndexOf("\n", table.length() - 3) + 1)
                        .getBytes(StandardCharsets.UTF_8));
        assertThat(lead.upload("/api/studies/archive?again=true", zip(files)).body())
                .contains("4 pictures of trials/");
    }
}
