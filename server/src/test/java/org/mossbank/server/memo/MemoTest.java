package org.mossbank.server.memo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.mossbank.commands.recompute.Recompute;
import org.mossbank.server.ServerTest;
import org.mossbank.server.SmallStudy;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Sha256;
import org.mossbank.testkit.ApiClient;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** The memo from its first word to a note years later. */
public class MemoTest extends ServerTest {
    @Autowired
    private JdbcTemplate sql;

    @Autowired
    private MemoDrafts drafts;

    /** A closed study in which Teasel is recommended, and the address of its memos. */
    private String closed(Consumer<Map<String, byte[]>> change) {
        String study = bringIn(SmallStudy.graded(SmallStudy.osier(1, 3)).andThen(change));
        recommendation(as(LEAD), study);
        return "/api/studies/" + study + "/memos";
    }

    private String closed() {
        return closed(files -> {});
    }

    private JsonNode begun(String memos) {
        ApiClient.Response response = as(LEAD).post(memos, Map.of("change", ""));
        assertThat(response.status()).as(response.body()).isEqualTo(201);
        return response.json();
    }

    private static Map<String, Object> written(JsonNode memo, String names, String section, String words) {
        return Map.of(
                "version",
                memo.path("version").asLong(),
                "names",
                names,
                "change",
                "",
                "words",
                List.of(Map.of("section", section, "text", words)));
    }

    private JsonNode write(String memos, JsonNode memo, String names, String section, String words) {
        ApiClient.Response response =
                as(LEAD).put(memos + "/" + memo.at("/head/number").asInt(), written(memo, names, section, words));
        assertThat(response.status()).as(response.body()).isEqualTo(200);
        return as(LEAD).get(memos + "/" + memo.at("/head/number").asInt()).json();
    }

    private ApiClient.Response sign(String memos, JsonNode memo) {
        return as(LEAD).post(
                        memos + "/" + memo.at("/head/number").asInt() + "/signature",
                        Map.of(
                                "version",
                                memo.path("version").asLong(),
                                "revision",
                                memo.at("/document/revision").asLong()));
    }

    private JsonNode signed(String memos) {
        ApiClient.Response response = sign(memos, begun(memos));
        assertThat(response.status()).as(response.body()).isEqualTo(200);
        return response.json();
    }

    private static String point(JsonNode memo, String section, String label) {
        for (JsonNode part : memo.at("/document/parts")) {
            for (JsonNode point : part.path("points")) {
                if (part.path("section").asString().equals(section)
                        && point.path("label").asString().equals(label)) {
                    return point.path("text").asString();
                }
            }
        }
        throw new AssertionError("no " + label + " in " + section);
    }

    @Test
    public void theFirstPageSaysWhatIsRecommendedHowSureAtWhatCostAndWhatItHangsOn() {
        String memos = closed();
        JsonNode memo = begun(memos);
        assertThat(point(memo, "SUMMARY", "Recommended")).isEqualTo("We recommend Teasel.");
        // by hand: (2 · 1 + 1 · 3) / 3 / 4 of 100 below the highest level throughout
        assertThat(point(memo, "SUMMARY", "How sure"))
                .contains("58.3 points of 100 above Osier")
                .contains("at most 5 % of such studies");
        assertThat(point(memo, "SUMMARY", "At what cost")).contains("prompt");
        assertThat(point(memo, "SUMMARY", "What it hangs on")).isNotBlank();
        assertThat(point(memo, "SUMMARY", "What it rests on"))
                .startsWith("8 answers to 4 prompts, graded by 2 raters")
                .contains("on 8 of 8 sheets");
        assertThat(memo.at("/document/parts")).hasSize(16);
    }

    @Test
    public void aWithheldOutcomeIsToldAsSuch() {
        String study = bringIn(SmallStudy.graded((rater, prompt, candidate, criterion) ->
                (rater.hashCode() + prompt.hashCode() + candidate.hashCode() + criterion.hashCode() & 7) % 5));
        recommendation(as(LEAD), study);
        JsonNode memo = begun("/api/studies/" + study + "/memos");
        assertThat(point(memo, "SUMMARY", "Not recommended yet")).startsWith("No recommendation yet");
        assertThat(point(memo, "SUMMARY", "How sure")).doesNotContain("such studies");
    }

    @Test
    public void whatTheLeadWritesStandsBetweenTheFiguresAndIsNotLostToAnotherWindow() {
        String memos = closed();
        JsonNode begun = begun(memos);
        JsonNode memo = write(memos, begun, "PSEUDONYM", "SUMMARY", "Take it from **May** on.");
        assertThat(memo.at("/document/parts/0/words").asString()).isEqualTo("Take it from **May** on.");
        ApiClient.Response late = as(LEAD).put(memos + "/1", written(begun, "BY_NAME", "SUMMARY", "Otherwise."));
        assertThat(late.problem()).isEqualTo("changed-elsewhere");
        assertThat(late.json().at("/current/words/0/text").asString()).isEqualTo("Take it from **May** on.");
        assertThat(as(LEAD).post(memos, Map.of("change", "More.")).problem())
                .as("one is written at a time")
                .isEqualTo("changed-elsewhere");
    }

    @Test
    public void aSignedMemoStaysAsItIsWhateverBecomesOfTheStudy() {
        String memos = closed();
        JsonNode signed = signed(memos);
        JsonNode document = signed.path("document");
        setAside(memos);
        assertThat(as(LEAD).get(memos + "/1").json().path("document")).isEqualTo(document);
        assertThat(as(LEAD).put(memos + "/1", written(signed, "BY_NAME", "RULE", "Other."))
                        .problem())
                .isEqualTo("memo-signed");
        assertThat(as(LEAD).delete(memos + "/1").problem()).isEqualTo("memo-signed");
        assertThat(sign(memos, signed).problem()).isEqualTo("memo-signed");
        for (String change : List.of(
                "update memo set words = '{}' where signed_at is not null",
                "delete from memo_frozen",
                "update memo_frozen set document = '{}'")) {
            assertThatThrownBy(() -> sql.execute(change)).hasMessageContaining("stays as it is");
        }
    }

    /** The first prompt counts nowhere from now on; that needs the round open. */
    private void setAside(String memos) {
        String study = memos.substring(0, memos.length() - "/memos".length());
        String prompt = as(LEAD).get(study + "/prompts").json().at("/0/id").asString();
        as(LEAD).post(study + "/round/reopen", Map.of("reason", "One prompt is wrong."));
        assertThat(as(LEAD).put(study + "/prompts/" + prompt + "/fault", Map.of("reason", "It cannot be answered."))
                        .status())
                .isEqualTo(200);
        as(LEAD).post(study + "/round/close", Map.of("reason", "Done."));
    }

    @Test
    public void whatChangedSinceItWasReadIsNotSigned() {
        String memos = closed();
        JsonNode read = begun(memos);
        setAside(memos);
        assertThat(sign(memos, read).problem()).as("other figures").isEqualTo("changed-elsewhere");
        JsonNode again = as(LEAD).get(memos + "/1").json();
        write(memos, again, "BY_NAME", "RULE", "By the book.");
        assertThat(sign(memos, again).problem()).as("other words").isEqualTo("changed-elsewhere");
        assertThat(sign(memos, as(LEAD).get(memos + "/1").json()).status()).isEqualTo(200);
    }

    /** A rater was told that it is kept: a memo that was put together before cannot be signed without it. */
    @Test
    public void whatARaterHoldsAgainstItWhileItIsSignedIsNotLeftOut() {
        String memos = closed();
        long version = begun(memos).path("version").asLong();
        StudyId study = StudyId.from(memos.split("/")[3]);
        as(RATER).put(memos + "/1/dissent", Map.of("words", "Idiom was read too kindly."));
        assertThatThrownBy(() -> drafts.sign(study, 1, version, List.of(), new FrozenMemo()))
                .hasMessageContaining("A rater has said in the meantime");
        assertThat(as(LEAD).get(memos + "/1").json().path("mayWrite").asBoolean())
                .isTrue();
    }

    @Test
    public void countsAreOfWhatCounts() {
        String memos = closed();
        setAside(memos);
        JsonNode memo = begun(memos);
        assertThat(point(memo, "SUMMARY", "What it rests on"))
                .startsWith("6 answers to 3 prompts, graded by 2 raters")
                .contains("on 6 of 6 sheets")
                .contains("1 prompt was found faulty and counts nowhere.");
    }

    @Test
    public void aNewVersionSaysWhatItChangesAndBeginsWithWhatWasSaid() {
        String memos = closed();
        JsonNode begun = write(memos, begun(memos), "BY_NAME", "SUMMARY", "As we read it.");
        assertThat(sign(memos, begun).status()).isEqualTo(200);
        assertThat(as(LEAD).post(memos, Map.of("change", " ")).problem()).isEqualTo("invalid-request");
        JsonNode next =
                as(LEAD).post(memos, Map.of("change", "The price fell.")).json();
        assertThat(next.at("/head/number").asInt()).isEqualTo(2);
        assertThat(next.at("/head/change").asString()).isEqualTo("The price fell.");
        assertThat(next.at("/words/0/text").asString()).isEqualTo("As we read it.");
        assertThat(next.path("names").asString()).isEqualTo("BY_NAME");
        assertThat(as(LEAD).delete(memos + "/2").status()).isEqualTo(204);
        assertThat(as(LEAD).get(memos).json().path("versions")).hasSize(1);
        assertThat(as(LEAD).get(memos).json().path("mayBegin").asBoolean()).isTrue();
    }

    @Test
    public void namesAreToldAsTheLeadChooses() {
        String memos = closed();
        JsonNode memo = begun(memos);
        for (String names : List.of("PSEUDONYM", "NOT_AT_ALL")) {
            memo = write(memos, memo, names, "RULE", "By the book.");
            List<String> forms = new ArrayList<>(List.of(memo.path("document").toString()));
            for (String form : List.of("/1/page", "/1/markdown", "/1/appendix")) {
                forms.add(as(LEAD).get(memos + form).body());
            }
            assertThat(forms)
                    .allSatisfy(f -> assertThat(f).doesNotContain("Bram").doesNotContain("Juri"));
            assertThat(forms.get(1).contains("Rater A")).isEqualTo(names.equals("PSEUDONYM"));
        }
        memo = write(memos, memo, "BY_NAME", "RULE", "By the book.");
        assertThat(as(LEAD).get(memos + "/1/page").body())
                .contains("Bram Okkers")
                .contains("Juri Halvard");
    }

    @Test
    public void aRaterWhoSeesItOtherwiseIsReadInTheMemo() {
        String memos = closed();
        JsonNode begun = begun(memos);
        assertThat(as(RATER)
                        .put(memos + "/1/dissent", Map.of("words", "Idiom was read too kindly."))
                        .status())
                .isEqualTo(204);
        assertThat(as(LEAD).put(memos + "/1/dissent", Map.of("words", "I did not grade."))
                        .problem())
                .isEqualTo("not-allowed");
        JsonNode own = as(RATER).get(memos + "/1").json();
        assertThat(own.path("dissent").asString()).isEqualTo("Idiom was read too kindly.");
        assertThat(own.path("mayWrite").asBoolean()).isFalse();
        JsonNode memo = as(LEAD).get(memos + "/1").json();
        assertThat(memo.path("document").toString()).contains("Idiom was read too kindly.");
        assertThat(point(memo, "SUMMARY", "What speaks against it")).contains("1 rater sees it otherwise");
        as(RATER).put(memos + "/1/dissent", Map.of("words", ""));
        assertThat(as(LEAD).get(memos + "/1").json().path("document").toString())
                .doesNotContain("Idiom was read too kindly.");
        assertThat(sign(memos, begun).status()).isEqualTo(200);
        assertThat(as(RATER)
                        .put(memos + "/1/dissent", Map.of("words", "Too late."))
                        .problem())
                .isEqualTo("memo-signed");
    }

    @Test
    public void aSecondPersonCountersignsAndWhatCameOfItIsAdded() {
        String memos = closed();
        begun(memos);
        Map<String, String> signature = Map.of("sort", "COUNTERSIGNED", "words", "", "decidedBy", "");
        assertThat(as(RATER).post(memos + "/1/entries", signature).problem()).isEqualTo("not-ready");
        assertThat(sign(memos, as(LEAD).get(memos + "/1").json()).status()).isEqualTo(200);
        assertThat(as(LEAD).post(memos + "/1/entries", signature).problem())
                .as("nobody is their own second")
                .isEqualTo("changed-elsewhere");
        assertThat(as(RATER).post(memos + "/1/entries", signature).status()).isEqualTo(201);
        assertThat(as(RATER).post(memos + "/1/entries", signature).problem()).isEqualTo("changed-elsewhere");
        Map<String, String> decision =
                Map.of("sort", "DECIDED", "words", "Teasel for a year.", "decidedBy", "The board");
        assertThat(as(RATER).post(memos + "/1/entries", decision).problem()).isEqualTo("not-allowed");
        assertThat(as(LEAD).post(memos + "/1/entries", decision).status()).isEqualTo(201);
        assertThat(as(LEAD).post(memos + "/1/entries", Map.of("sort", "NOTE", "words", " ", "decidedBy", ""))
                        .problem())
                .isEqualTo("invalid-request");
        assertThat(as(LEAD).get(memos + "/1").json().path("entries")).hasSize(2);
        assertThat(as(LEAD).get(memos + "/1/page").body())
                .contains("Countersigned.")
                .contains("Decided by The board: Teasel for a year.");
    }

    @Test
    public void aSignedMemoIsHandedOutWithTheArchiveItRestsOn() throws Exception {
        String memos = closed();
        begun(memos);
        assertThat(as(LEAD).get(memos + "/1/package").problem()).isEqualTo("not-ready");
        assertThat(sign(memos, as(LEAD).get(memos + "/1").json()).status()).isEqualTo(200);
        JsonNode signed = as(LEAD).get(memos + "/1").json();
        Map<String, byte[]> files =
                unpacked(as(LEAD).get(memos + "/1/package").raw().body());
        assertThat(files).containsOnlyKeys("memo.html", "memo.json", "memo.md", "study.zip");
        assertThat(writtenDown(as(LEAD), memos.replace("/memos", "/audit-events")))
                .startsWith("MEMO_EXPORTED", "MEMO_SIGNED");
        assertThat(HexFormat.of().formatHex(Sha256.of(files.get("study.zip"))))
                .isEqualTo(signed.path("checksum").asString());
        assertThat(as(LEAD).upload("/api/studies/archive?again=true", files.get("study.zip"))
                        .status())
                .as("it can be brought in")
                .isEqualTo(200);
        assertThat(as(RATER).get(memos + "/1/package").problem())
                .as("an archive names who gave what")
                .isEqualTo("not-allowed");
    }

    @Test
    public void theAppendixHasEveryAnswersGrades() {
        String memos = closed();
        begun(memos);
        JsonNode appendix = as(LEAD).get(memos + "/1/appendix").json();
        assertThat(appendix.path("rows").asInt()).isEqualTo(8);
        JsonNode osier = appendix.at("/table/rows")
                .valueStream()
                .filter(r -> r.get(1).asString().equals("Osier"))
                .findFirst()
                .orElseThrow();
        assertThat(osier.get(2).asString()).isEqualTo("41.7");
        assertThat(osier.get(3).asString()).matches("Correctness: Rater [AB] 1, Rater [AB] 1; Idiom: .* 3, .* 3");
        assertThat(as(LEAD).get(memos + "/1/appendix?from=5").json().at("/table/rows"))
                .hasSize(3);
        assertThat(as(LEAD).get(memos + "/1/page").body()).contains("41.7");
    }

    @Test
    public void nothingInItRunsOrIsLoadedFromElsewhere() {
        String memos = closed(files -> files.replaceAll((name, content) -> name.equals("candidates.csv")
                ? bytes(new String(content, StandardCharsets.UTF_8).replace("Osier", "<script>alert(1)</script>"))
                : content));
        JsonNode memo = begun(memos);
        write(
                memos,
                memo,
                "BY_NAME",
                "SUMMARY",
                "<img src=x onerror=alert(1)> [here](javascript:alert(1)) ![seen](https://elsewhere.example/dot.png)");
        String page = as(LEAD).get(memos + "/1/page").body();
        assertThat(page)
                .contains("&lt;script&gt;")
                .doesNotContain("<script")
                .doesNotContain("<img")
                .doesNotContain("href=\"javascript")
                .contains("seen (https://elsewhere.example/dot.png)");
        assertThat(as(LEAD).get(memos + "/1/markdown").body()).doesNotContain("<script>");
    }

    private static String recomputed(byte[] memo, int apart) throws Exception {
        Path file = Files.createTempFile("memo", ".zip");
        try {
            Files.write(file, memo);
            ByteArrayOutputStream printed = new ByteArrayOutputStream();
            int found = Recompute.of(file, new PrintStream(printed, false, StandardCharsets.UTF_8));
            String text = printed.toString(StandardCharsets.UTF_8);
            assertThat(found).as(text).isEqualTo(apart);
            return text;
        } finally {
            Files.delete(file);
        }
    }

    /** With a gate, an answer that left nothing, and a prompt that was set aside. */
    @Test
    public void everyFigureIsWorkedOutAgainFromTheArchive() throws Exception {
        String memos = closed(files -> {
            files.put(
                    "study.json",
                    bytes(
                            text(files, "study.json")
                                    .replace(
                                            "\"minimumRaters\": 2",
                                            "\"minimumRaters\": 2, \"gate\": {\"criterion\": \"correctness\", \"level\": 1, \"cap\": 40}")));
            files.put(
                    "answers.csv",
                    bytes(text(files, "answers.csv")
                            .replace("flat-line,osier,1,complete", "flat-line,osier,1,timed-out")));
            files.put("text/flat-line-osier.md", bytes(""));
        });
        setAside(memos);
        signed(memos);
        String printed = recomputed(as(LEAD).get(memos + "/1/package").raw().body(), 0);
        assertThat(printed)
                .contains("standing/osier ")
                .contains("difference/teasel/osier ")
                .contains("standing-on/idiom/osier ")
                .contains("none apart");
    }

    @Test
    public void theSameHoldsOfTheDemo() throws Exception {
        String study = copyOfTheDemo();
        recommendation(as(LEAD), study);
        String memos = "/api/studies/" + study + "/memos";
        signed(memos);
        assertThat(recomputed(as(LEAD).get(memos + "/1/package").raw().body(), 0))
                .contains("agreement/correctness/low ")
                .contains("standing/marram/high ")
                .contains("cost-a-prompt/marram ");
    }

    @Test
    public void aFigureThatWasChangedAfterwardsIsFound() throws Exception {
        String memos = closed();
        signed(memos);
        Map<String, byte[]> files =
                unpacked(as(LEAD).get(memos + "/1/package").raw().body());
        byte[] whole = files.get("memo.json");
        files.put(
                "memo.json",
                bytes(text(files, "memo.json")
                        .replaceFirst("(?s)(standing/osier\".{1,40}?value\"\\D+)[\\d.]+", "$199.9")));
        assertThat(recomputed(zip(files), 1)).contains("APART");
        files.put("memo.json", whole);
        Map<String, byte[]> study = unpacked(files.get("study.zip"));
        study.put("README.txt", bytes("One file more."));
        files.put("study.zip", zip(study));
        assertThat(recomputed(zip(files), 1)).contains("ANOTHER");
    }

    private static String text(Map<String, byte[]> files, String name) {
        return new String(files.get(name), StandardCharsets.UTF_8);
    }

    private static Map<String, byte[]> unpacked(byte[] zip) throws Exception {
        Map<String, byte[]> files = new TreeMap<>();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip))) {
            for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                files.put(entry.getName(), in.readAllBytes());
            }
        }
        return files;
    }

    /** As it was signed, with what raters held against it and what came later; only links stay behind. */
    @Test
    public void itGoesWithTheStudyAndComesBack() throws Exception {
        String memos = closed();
        begun(memos);
        as(RATER).put(memos + "/1/dissent", Map.of("words", "Idiom was read too kindly."));
        assertThat(sign(memos, as(LEAD).get(memos + "/1").json()).status()).isEqualTo(200);
        as(RATER).post(memos + "/1/entries", Map.of("sort", "COUNTERSIGNED", "words", "", "decidedBy", ""));
        as(LEAD).post(memos + "/1/links", Map.of("days", 7));
        as(LEAD).post(memos, Map.of("change", "The price fell."));
        String study = memos.substring("/api/studies/".length(), memos.length() - "/memos".length());
        byte[] out = export(as(LEAD), study);
        String again = as(LEAD).upload("/api/studies/archive?again=true", out)
                .json()
                .path("studyId")
                .asString();
        assertThat(unpacked(export(as(LEAD), again))).containsAllEntriesOf(unpacked(out));
        String brought = "/api/studies/" + again + "/memos";
        JsonNode before = as(LEAD).get(memos + "/1").json();
        JsonNode after = as(LEAD).get(brought + "/1").json();
        assertThat(after.path("document")).isEqualTo(before.path("document"));
        assertThat(after.path("checksum")).isEqualTo(before.path("checksum"));
        assertThat(after.at("/entries/0/by").asString()).isEqualTo("Bram Okkers");
        assertThat(after.path("links")).isEmpty();
        assertThat(as(LEAD).get(brought + "/2").json().at("/head/change").asString())
                .isEqualTo("The price fell.");
        recomputed(as(LEAD).get(brought + "/1/package").raw().body(), 0);
        assertThat(unpacked(unpacked(as(LEAD).get(memos + "/1/package").raw().body())
                        .get("study.zip")))
                .as("what it rests on holds no memo")
                .doesNotContainKey("memos/1.json");
    }

    @Test
    public void aMemoThatCouldNotBeOneIsNotBroughtIn() throws Exception {
        String memos = closed();
        signed(memos);
        String study = memos.substring("/api/studies/".length(), memos.length() - "/memos".length());
        Map<String, byte[]> files = unpacked(export(as(LEAD), study));
        String document = text(files, "memos/1.json");
        Map<String, String> wrong = Map.of(
                "no JSON",
                "no",
                "a row without its cells",
                document.replaceFirst("\\\"rows\\\":\\[\\[", "\"rows\":[[],["),
                "a part twice",
                document.replace("\"RULE\"", "\"QUESTION\""),
                "no title",
                document.replaceFirst("\"title\":\"[^\"]*\",", ""),
                "something more",
                document.replaceFirst("\\{", "{\"more\":1,"));
        wrong.forEach((what, text) -> {
            assertThat(text).as(what).isNotEqualTo(document);
            files.put("memos/1.json", bytes(text));
            assertThat(as(LEAD).upload("/api/studies/archive?again=true", zip(files))
                            .problem())
                    .as(what)
                    .isEqualTo("archive-refused");
        });
        files.put("memos/1.json", bytes(document));
        files.put("memos.csv", bytes(text(files, "memos.csv").replaceFirst("\n1,", "\n2,")));
        assertThat(as(LEAD).upload("/api/studies/archive?again=true", zip(files))
                        .problem())
                .as("a gap")
                .isEqualTo("archive-refused");
    }
}
