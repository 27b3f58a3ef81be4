package org.mossbank.server.study.people;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.mossbank.server.ServerTest;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Somebody who graded leaves: their grades stay under their name, or under a number where the study wants that. */
public class LeaversTest extends ServerTest {
    private static final String LEAVER = "zeffirine";
    private static final String NAME = "Zeffirine Quell";

    /** What was written down at the time, and by whom: it stays as it was. */
    private static final Set<String> WRITTEN_DOWN = Set.of("/acts", "/audit-events", "/audit-events/export", "/memos");

    private String study = "";
    private String leaver = "";

    @BeforeClass
    public void somebodyGradesInAStudy() {
        study = brought();
        leaver = as(LEAD).get(study + "/people").json().values().stream()
                .filter(p -> p.path("signInName").asString().equals(LEAVER))
                .findFirst()
                .orElseThrow()
                .path("accountId")
                .asString();
    }

    /** The study of the demo that has ended, in which Ines Calder is somebody else. */
    private String brought() {
        Map<String, byte[]> files = new HashMap<>(files(Path.of("..", "demo-past")));
        files.replaceAll((name, bytes) -> name.endsWith(".csv") && !name.startsWith("memo")
                ? bytes(new String(bytes, StandardCharsets.UTF_8)
                        .replaceAll("(?m)(^|,)ines(,|$)", "$1" + LEAVER + "$2")
                        .replace("Ines Calder", NAME))
                : bytes);
        files.keySet().removeIf(name -> name.startsWith("memo"));
        files.computeIfPresent("datapackage.json", (name, bytes) -> withoutMemos(bytes));
        JsonNode made =
                as(LEAD).upload("/api/studies/archive?again=true", zip(files)).json();
        assertThat(made.path("studyId").asString()).as(made.toString()).isNotEmpty();
        return "/api/studies/" + made.path("studyId").asString();
    }

    private static byte[] withoutMemos(byte[] dataPackage) {
        ObjectNode whole = (ObjectNode) JsonMapper.shared().readTree(dataPackage);
        List<JsonNode> kept = whole.path("resources").values().stream()
                .filter(r -> !r.path("name").asString().startsWith("memo"))
                .toList();
        whole.putArray("resources").addAll(kept);
        return bytes(whole.toString());
    }

    private void goes(boolean away) {
        as(LEAD).post("/api/accounts/" + leaver + (away ? "/deactivate" : "/reactivate"), Map.of());
    }

    private JsonNode shown(LeaversShown how) {
        return as(LEAD).put(study + "/leavers", Map.of("shown", how.name())).json();
    }

    /** Every page of the study that asks for nothing further, by its address. */
    private Map<String, String> pages() {
        JsonNode paths = JsonMapper.shared()
                .readTree(Path.of("..", "web", "openapi.json").toFile())
                .path("paths");
        Map<String, String> bodies = new TreeMap<>();
        for (String path : paths.propertyNames()) {
            String rest = path.replace("/api/studies/{studyId}", "");
            boolean asked = path.startsWith("/api/studies/{studyId}")
                    && !rest.contains("{")
                    && paths.path(path).has("get")
                    && !WRITTEN_DOWN.contains(rest);
            if (asked) {
                ApiClient.Response response = as(LEAD).get(study + rest);
                assertThat(response.status()).as(path).isNotEqualTo(500);
                bodies.put(rest, new String(response.raw().body(), StandardCharsets.ISO_8859_1));
            }
        }
        return bodies;
    }

    private List<String> naming() {
        return pages().entrySet().stream()
                .filter(e -> Stream.of(LEAVER, NAME).anyMatch(e.getValue()::contains))
                .map(Map.Entry::getKey)
                .toList();
    }

    @Test
    public void haveANumberWhereTheStudyWantsIt() {
        String grades = as(LEAD).get(study + "/recommendation/grades").body();
        assertThat(shown(LeaversShown.BY_NUMBER).path("shown").asString()).isEqualTo("BY_NUMBER");
        assertThat(naming()).contains("/people", "/agreement", "/grading");

        goes(true);

        assertThat(naming()).isEmpty();
        JsonNode person = as(LEAD).get(study + "/people").json().values().stream()
                .filter(p -> p.path("accountId").asString().equals(leaver))
                .findFirst()
                .orElseThrow();
        assertThat(person.path("name").asString()).isEqualTo("Former rater 1");
        assertThat(person.path("left").asBoolean()).isTrue();
        assertThat(as(LEAD).get(study + "/agreement").body()).contains("Former rater 1");
        assertThat(as(LEAD).get(study + "/recommendation/grades").body())
                .hasLineCount((int) grades.lines().count());

        goes(false);
        assertThat(naming()).contains("/people", "/agreement", "/grading");
        goes(true);
        assertThat(shown(LeaversShown.BY_NAME).path("shown").asString()).isEqualTo("BY_NAME");
        assertThat(naming()).contains("/people", "/agreement", "/grading");
        goes(false);
    }

    /** Whoever works figures out again from what is handed out must come to the same. */
    @Test(dependsOnMethods = "haveANumberWhereTheStudyWantsIt")
    public void changeNoFigureOfWhatIsHandedOut() {
        JsonNode before = as(LEAD).get(study + "/recommendation").json();
        String agreement = as(LEAD).get(study + "/agreement").body();
        shown(LeaversShown.BY_NUMBER);
        goes(true);

        Map<String, String> files = unzip(export(as(LEAD), study.substring("/api/studies/".length())));
        files.forEach((name, text) -> {
            if (name.endsWith(".csv") && !name.equals("acts.csv")) {
                assertThat(text).as(name).doesNotContain(LEAVER, NAME);
            }
        });
        assertThat(files.get("raters.csv"))
                .contains("Former rater 1", "Bram Okkers")
                .doesNotContain("bram,");

        Map<String, byte[]> bytes = new HashMap<>();
        files.forEach((name, text) -> bytes.put(name, bytes(text)));
        String again = "/api/studies/"
                + as(LEAD).upload("/api/studies/archive?again=true", zip(bytes))
                        .json()
                        .path("studyId")
                        .asString();
        assertThat(figures(before)).hasSizeGreaterThan(9);
        assertThat(figures(as(LEAD).get(again + "/recommendation").json())).isEqualTo(figures(before));
        assertThat(figures(as(LEAD).get(study + "/recommendation").json())).isEqualTo(figures(before));
        assertThat(as(LEAD).get(study + "/agreement").body().replace("Former rater 1", NAME))
                .hasSameSizeAs(agreement);
        goes(false);
        shown(LeaversShown.BY_NAME);
    }

    /** All numbers of an answer in their order, without what differs from one study to the next. */
    private static List<Double> figures(JsonNode report) {
        return report.findValues("overall").stream()
                .flatMap(s -> Stream.of(s.toString().split("[^0-9.eE-]+")))
                .filter(t -> t.matches("-?\\d+\\.\\d+"))
                .map(Double::valueOf)
                .toList();
    }

    @Test
    public void areToldApartAndKeepTheirNumbers() {
        List<String> names = List.of("first-to-go", "second-to-go");
        String begun = "/api/studies/"
                + as(LEAD).post("/api/studies", Map.of("title", "Some leave"))
                        .json()
                        .path("id")
                        .asString();
        List<String> ids = names.stream()
                .map(n -> as(LEAD).post(begun + "/raters", Map.of("signInName", n, "name", n))
                        .json()
                        .path("accountId")
                        .asString())
                .toList();
        as(LEAD).put(begun + "/leavers", Map.of("shown", "BY_NUMBER"));
        ids.forEach(id -> as(LEAD).post("/api/accounts/" + id + "/deactivate", Map.of()));
        as(LEAD).post("/api/accounts/" + ids.get(0) + "/reactivate", Map.of());

        assertThat(people(begun)).containsExactlyInAnyOrder("Orla Fennick", "first-to-go", "Former rater 2");

        String title = as(LEAD).get(begun).json().path("title").asString();
        as(LEAD).post(begun + "/deletion", Map.of("title", title));
        as(LEAD).post(begun.replace("/studies/", "/deleted-studies/") + "/undo", Map.of());
        assertThat(people(begun)).containsExactlyInAnyOrder("Orla Fennick", "first-to-go", "Former rater 2");
    }

    private List<String> people(String of) {
        return as(LEAD).get(of + "/people").json().values().stream()
                .map(p -> p.path("name").asString())
                .toList();
    }

    /** Figures that were kept while it stood deleted are not shown again. */
    @Test(dependsOnMethods = "changeNoFigureOfWhatIsHandedOut")
    public void whoLeftWhileAStudyStoodDeletedIsNotNamedWhenItIsBack() {
        shown(LeaversShown.BY_NUMBER);
        assertThat(naming()).contains("/agreement");
        String title = as(LEAD).get(study).json().path("title").asString();
        as(LEAD).post(study + "/deletion", Map.of("title", title));
        goes(true);
        as(LEAD).post(study.replace("/studies/", "/deleted-studies/") + "/undo", Map.of());

        assertThat(naming()).isEmpty();
        goes(false);
        shown(LeaversShown.BY_NAME);
    }

    /** A study that follows asks only those who stayed, shows leavers alike, and remembers nobody whom it does not name. */
    @Test(dependsOnMethods = "whoLeftWhileAStudyStoodDeletedIsNotNamedWhenItIsBack")
    public void areNeitherAskedNorNamedByTheStudyThatFollows() {
        shown(LeaversShown.BY_NUMBER);
        List<String> candidates = as(LEAD).get(study + "/candidates").json().values().stream()
                .map(c -> c.path("id").asString())
                .limit(2)
                .toList();
        Map<String, Object> again = Map.of("title", "Again", "candidateIds", candidates, "share", 0, "raters", true);
        String before = next(again);
        goes(true);
        String after = next(again);

        assertThat(as(LEAD).get(after + "/leavers").json().path("shown").asString())
                .isEqualTo("BY_NUMBER");
        assertThat(people(after)).contains("Bram Okkers").noneMatch(n -> n.startsWith("Former"));
        for (String following : List.of(before, after)) {
            assertThat(unzip(export(as(LEAD), following.substring("/api/studies/".length()))).entrySet().stream()
                            .filter(f -> f.getValue().contains(LEAVER)
                                    || f.getValue().contains(NAME))
                            .map(Map.Entry::getKey))
                    .isEmpty();
        }
        goes(false);
        shown(LeaversShown.BY_NAME);
    }

    private String next(Map<String, Object> request) {
        return "/api/studies/"
                + as(LEAD).post(study + "/next", request).json().path("studyId").asString();
    }

    @Test
    public void doNotComeToLead() {
        String begun = "/api/studies/"
                + as(LEAD).post("/api/studies", Map.of("title", "Nobody leads from afar"))
                        .json()
                        .path("id")
                        .asString();
        Map<String, String> reader = Map.of("signInName", "gone-reader", "name", "Gone", "role", "READER");
        String id = as(LEAD).post(begun + "/raters", reader)
                .json()
                .path("accountId")
                .asString();
        as(LEAD).post("/api/accounts/" + id + "/deactivate", Map.of());
        assertThat(as(LEAD).post(begun + "/leads/" + id, Map.of()).problem()).isEqualTo("account-deactivated");
    }

    @Test
    public void areShownAsItsLeadSaysAndThatIsWrittenDown() {
        String begun = "/api/studies/"
                + as(LEAD).post("/api/studies", Map.of("title", "Written down"))
                        .json()
                        .path("id")
                        .asString();
        as(LEAD).put(begun + "/leavers", Map.of("shown", "BY_NUMBER"));
        assertThat(as(LEAD).get(begun + "/audit-events").json().path("events").values().stream()
                        .map(e -> e.path("sort").asString()))
                .contains("LEAVERS_SHOWN");
        assertThat(as(RATER).get(study + "/leavers").status()).isIn(403, 404);
        assertThat(as(LEAD).put(study + "/leavers", Map.of("shown", "OTHERWISE"))
                        .status())
                .isEqualTo(400);
    }
}
