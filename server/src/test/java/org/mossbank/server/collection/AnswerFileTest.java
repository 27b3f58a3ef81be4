package org.mossbank.server.collection;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mossbank.server.Bodies;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Answers from files of each form, taken whole or not at all. */
public class AnswerFileTest extends ServerTest {
    private static final String HEADER = "prompt,candidate,attempt,outcome,text,total_ms,cost,currency\n";
    private static final String GOOD_LINE =
            "{\"prompt\":\"First of review\",\"candidate\":\"Osierhold\",\"text\":\"a\"}\n";

    private StudyInTheMaking study;

    @BeforeClass(dependsOnMethods = "springTestContextPrepareTestInstance")
    public void begin() {
        study = bare();
    }

    private StudyInTheMaking bare() {
        StudyInTheMaking made = StudyInTheMaking.begunBy(as(LEAD));
        made.prompt("review", "First of review");
        made.prompt("debugging", "Of debugging");
        made.candidate("Osierhold");
        made.candidate("Teaselworth");
        return made;
    }

    private static ApiClient.Response send(StudyInTheMaking to, String tail, String name, byte[] file) {
        return to.lead.upload(to.path + "/answer-files" + tail, name, file);
    }

    private static JsonNode preview(StudyInTheMaking of, String name, String text) {
        return StudyInTheMaking.ok(send(of, "/preview", name, bytes(text)));
    }

    private static JsonNode take(StudyInTheMaking of, String name, byte[] file) {
        return StudyInTheMaking.ok(send(of, "", name, file));
    }

    private static byte[] zipped(Map<String, String> files) {
        Map<String, byte[]> bytes = new LinkedHashMap<>();
        files.forEach((name, text) -> bytes.put(name, bytes(text)));
        return zip(bytes);
    }

    private static List<String> texts(StudyInTheMaking of) {
        List<String> texts = new ArrayList<>();
        of.get("/prompts")
                .forEach(p -> of.get("/prompts/" + p.path("id").asString() + "/answers")
                        .forEach(a -> texts.add(a.path("attempt").asInt() + " "
                                + a.path("outcome").asString() + " "
                                + a.path("text").asString().strip())));
        return texts;
    }

    @Test
    public void linesOfJsonAreTakenByKeyOrByName() {
        StudyInTheMaking own = bare();
        String key = own.get("/prompts").get(0).path("key").asString();
        String file =
                "\uFEFF{\"prompt\":\"" + key + "\",\"candidate\":\"Osierhold\",\"text\":\"one\",\"total_ms\":5400,"
                        + "\"input_tokens\":9,\"output_tokens\":21,\"first_output_ms\":200,\"cost\":0.020000,\"currency\":\"EUR\"}\r\n"
                        + "\n{\"prompt\":\"First of review\",\"candidate\":\"teaselworth\",\"outcome\":\"timed-out\"}\n"
                        + "{\"prompt\":\"First of review\",\"candidate\":\"Osierhold\",\"text\":\"two\"}";
        JsonNode seen = preview(own, "some.jsonl", file);
        assertThat(seen.path("faults").values()).isEmpty();
        assertThat(seen.path("answers").values())
                .extracting(a -> a.path("line").asInt() + " "
                        + a.path("attempt").asInt() + " " + a.path("match").asString())
                .containsExactly("1 1 NEW", "3 1 NEW", "4 2 NEW");
        assertThat(texts(own)).as("looking takes nothing").isEmpty();
        assertThat(take(own, "some.ndjson", bytes(file)))
                .isEqualTo(tools.jackson.databind.json.JsonMapper.shared().readTree("{\"added\":3,\"there\":0}"));
        assertThat(texts(own)).containsExactlyInAnyOrder("1 COMPLETE one", "1 TIMED_OUT ", "2 COMPLETE two");
        JsonNode measures = own.get("/answers").values().stream()
                .filter(a -> a.at("/measures/cost").isNumber())
                .findFirst()
                .orElseThrow()
                .path("measures");
        assertThat(measures.path("cost").decimalValue()).isEqualByComparingTo("0.02");
        assertThat(measures.path("outputTokens").asInt()).isEqualTo(21);
    }

    @Test
    public void theSameFileAgainBringsNothing() {
        StudyInTheMaking own = bare();
        byte[] file = (GOOD_LINE + GOOD_LINE.replace("\"a\"", "\"b\"")).getBytes(StandardCharsets.UTF_8);
        assertThat(take(own, "a.jsonl", file).path("added").asInt()).isEqualTo(2);
        JsonNode again = take(own, "a.jsonl", file);
        assertThat(again.path("added").asInt()).isZero();
        assertThat(again.path("there").asInt()).isEqualTo(2);
        assertThat(texts(own)).hasSize(2);
    }

    @Test
    public void tablesMayHaveTextsOfSeveralLines() {
        StudyInTheMaking own = bare();
        String file = "candidate,prompt,text,attempt\nOsierhold,Of debugging,\"First,\nthen \"\"second\"\".\",3\n";
        take(own, "a.csv", bytes(file));
        assertThat(texts(own)).containsExactly("3 COMPLETE First,\nthen \"second\".");
    }

    @Test
    public void markdownHasItsMeasuresInFrontOfIt() {
        StudyInTheMaking own = bare();
        Map<String, String> files = new LinkedHashMap<>();
        files.put(
                "run/one.md",
                "---\nprompt: Of debugging\ncandidate: Osierhold\ntotal_ms: 12\n---\n\n# Cause\n\nIt is.\n");
        files.put(
                "run/two.md",
                "---\r\nprompt: Of debugging\r\ncandidate: Teaselworth\r\noutcome: refused\r\n---\r\nNo.\r\n");
        take(own, "a.zip", zipped(files));
        assertThat(texts(own)).containsExactlyInAnyOrder("1 COMPLETE # Cause\n\nIt is.", "1 REFUSED No.");
    }

    /** Over two files, one of which it does not fit: that is seen before it is taken, and is the candidate's fault. */
    @Test
    public void aDiffIsAnAnswerAndSaysWhereItDoesNotFit() {
        StudyInTheMaking own = bare();
        JsonNode prompt = own.get("/prompts").get(0);
        Map<String, Object> content = new java.util.HashMap<>(Bodies.prompt("First of review", "Mend it."));
        content.put(
                "startingFiles", List.of(Map.of("path", "src/Berth.java", "text", "class Berth {\n    int n;\n}\n")));
        own.put(
                "/prompts/" + prompt.path("id").asString(),
                Map.of(
                        "version", prompt.path("version").asLong(),
                        "kindId", prompt.at("/kind/id").asString(),
                        "content", content));
        String front = "---\nprompt: First of review\ncandidate: Osierhold\n---\n";
        String fits = "--- a/src/Berth.java\n+++ b/src/Berth.java\n@@ -2 +2 @@\n-    int n;\n+    final int n;\n";
        String adds = "--- /dev/null\n+++ b/src/Quay.java\n@@ -0,0 +1 @@\n+class Quay {}\n";
        byte[] good = zipped(Map.of("one.diff", front + fits + adds));
        byte[] misfit = zipped(Map.of("two.patch", front + fits.replace("int n", "int m")));

        assertThat(StudyInTheMaking.ok(send(own, "/preview", "a.zip", misfit))
                        .at("/answers/0/misfit")
                        .asString())
                .isEqualTo("src/Berth.java, line 2, reads otherwise in the starting code");
        assertThat(StudyInTheMaking.ok(send(own, "/preview", "a.zip", good))
                        .at("/answers/0/misfit")
                        .isMissingNode())
                .isTrue();
        take(own, "a.zip", good);

        JsonNode answer = own.get("/answers").get(0);
        assertThat(answer.path("changed").toString())
                .isEqualTo("{\"files\":2,\"linesAdded\":2,\"linesRemoved\":1,\"complete\":true}");
        JsonNode changes =
                own.get("/answers/" + answer.path("id").asString() + "/changes").path("changes");
        assertThat(changes.valueStream()
                        .map(c ->
                                c.path("path").asString() + " " + c.path("sort").asString()))
                .containsExactly("src/Berth.java CHANGED", "src/Quay.java ADDED");
        assertThat(changes.at("/0/hunks/0/lines/1/text").asString()).isEqualTo("    final int n;");
    }

    @Test
    public void followUpsOfTheirOwnAreCountedAsUnequalAndTheStudysRuleHolds() {
        StudyInTheMaking own = bare();
        String file = "{\"prompt\":\"First of review\",\"candidate\":\"Osierhold\",\"text\":\"one\",\"estimated\":true,"
                + "\"tries\":2,\"follow_ups\":[{\"asked\":\"Why?\",\"reply\":\"So.\"},{\"asked\":\"And?\",\"reply\":\"\"}]}\n";
        own.put("/follow-up-rule", Map.of("version", -1, "most", 1));
        assertThat(preview(own, "a.jsonl", file).at("/faults/0/field").asString())
                .isEqualTo("follow_ups");
        own.put("/follow-up-rule", Map.of("version", 0, "most", 2));
        take(own, "a.jsonl", bytes(file));
        assertThat(take(own, "a.jsonl", bytes(file)).path("there").asInt()).isEqualTo(1);

        JsonNode answer = own.get("/answers").get(0);
        assertThat(answer.path("followUps").asInt()).isEqualTo(2);
        assertThat(answer.path("unequal").asInt()).isEqualTo(2);
        assertThat(answer.at("/measures/estimated").asBoolean()).isTrue();
        assertThat(answer.at("/measures/tries").asInt()).isEqualTo(2);
        assertThat(own.lead
                        .put(own.path + "/follow-up-rule", Map.of("version", 1, "most", 1))
                        .body())
                .contains("must not be less than what an answer already has");
        assertThat(own.lead
                        .put(own.path + "/follow-up-rule", Map.of("version", 0, "most", 5))
                        .status())
                .isEqualTo(409);
        own.put("/follow-up-rule", Map.of("version", 1));
        assertThat(own.get("/follow-up-rule").has("most")).isFalse();
    }

    @Test
    public void theExamplesInTheDescriptionAreAccepted() throws IOException {
        StudyInTheMaking own = StudyInTheMaking.begunBy(as(LEAD));
        own.prompt("debugging", "Lost berth");
        own.candidate("Osier");
        own.candidate("Teasel");
        String description = java.nio.file.Files.readString(ROOT.resolve("docs/formats/answers.md"));
        for (String[] form : new String[][] {{"json", "a.jsonl"}, {"csv", "a.csv"}}) {
            int start = description.indexOf("```" + form[0] + "\n") + form[0].length() + 4;
            String example = description
                    .substring(start, description.indexOf("```", start))
                    .replace("Why is berth 4 never free?", "Lost berth");
            assertThat(preview(own, form[1], example).path("faults").values()).isEmpty();
        }
        int start = description.indexOf("```\n---\n") + 4;
        String markdown = description.substring(start, description.indexOf("```", start));
        JsonNode seen = StudyInTheMaking.ok(send(own, "/preview", "a.zip", zipped(Map.of("a.md", markdown))));
        assertThat(seen.path("faults").values()).isEmpty();
        assertThat(seen.path("answers").values()).hasSize(1);
    }

    @Test
    public void afterTheRoundIsOpenNothingIsTaken() {
        StudyInTheMaking own = StudyInTheMaking.ready(as(LEAD));
        own.open(2, 0, false);
        assertThat(send(own, "", "a.jsonl", bytes(GOOD_LINE)).status()).isEqualTo(409);
    }

    @Test
    public void whatIsSetAsideGetsNoAnswers() {
        StudyInTheMaking own = bare();
        String prompt = own.get("/prompts").get(0).path("id").asString();
        own.put("/prompts/" + prompt + "/fault", Map.of("reason", "Two readings."));
        assertThat(preview(own, "a.jsonl", GOOD_LINE).at("/faults/0/field").asString())
                .isEqualTo("prompt");
    }

    /** Name of the case, name of the file, its bytes, and the file, line and field of the fault. */
    @DataProvider
    public static Iterator<Object[]> malformed() {
        List<Object[]> cases = new ArrayList<>();
        lines(cases);
        tables(cases);
        zips(cases);
        diffs(cases);
        followUps(cases);
        return cases.iterator();
    }

    private static void add(
            List<Object[]> cases, String name, String file, byte[] bytes, String inFile, int line, String field) {
        cases.add(new Object[] {name, file, bytes, inFile, line, field});
    }

    private static void lines(List<Object[]> cases) {
        Map<String, String[]> wrong = new LinkedHashMap<>();
        String start = "{\"prompt\":\"First of review\",\"candidate\":\"Osierhold\"";
        wrong.put("no JSON", new String[] {"oops", ""});
        wrong.put("cut short", new String[] {start, ""});
        wrong.put("a list", new String[] {"[]", ""});
        wrong.put("a number", new String[] {"7", ""});
        wrong.put("two documents", new String[] {start + ",\"text\":\"a\"} {}", ""});
        wrong.put("twice a name", new String[] {start + ",\"text\":\"a\",\"text\":\"b\"}", ""});
        wrong.put("no prompt", new String[] {"{\"candidate\":\"Osierhold\",\"text\":\"a\"}", "/prompt"});
        wrong.put("no candidate", new String[] {"{\"prompt\":\"First of review\",\"text\":\"a\"}", "/candidate"});
        wrong.put("strange property", new String[] {start + ",\"text\":\"a\",\"mood\":\"x\"}", "/mood"});
        wrong.put(
                "prompt a number",
                new String[] {"{\"prompt\":1,\"candidate\":\"Osierhold\",\"text\":\"a\"}", "/prompt"});
        wrong.put(
                "empty prompt",
                new String[] {"{\"prompt\":\"\",\"candidate\":\"Osierhold\",\"text\":\"a\"}", "/prompt"});
        wrong.put("strange outcome", new String[] {start + ",\"text\":\"a\",\"outcome\":\"done\"}", "/outcome"});
        wrong.put("attempt 0", new String[] {start + ",\"text\":\"a\",\"attempt\":0}", "/attempt"});
        wrong.put("half an attempt", new String[] {start + ",\"text\":\"a\",\"attempt\":1.5}", "/attempt"});
        wrong.put("time below 0", new String[] {start + ",\"text\":\"a\",\"total_ms\":-1}", "/total_ms"});
        wrong.put("time in words", new String[] {start + ",\"text\":\"a\",\"total_ms\":\"5 s\"}", "/total_ms"});
        wrong.put(
                "tokens beyond measure",
                new String[] {start + ",\"text\":\"a\",\"output_tokens\":1e30}", "/output_tokens"});
        wrong.put("cost below 0", new String[] {start + ",\"text\":\"a\",\"cost\":-1,\"currency\":\"EUR\"}", "/cost"});
        wrong.put("cost without currency", new String[] {start + ",\"text\":\"a\",\"cost\":1}", "currency"});
        wrong.put("currency without cost", new String[] {start + ",\"text\":\"a\",\"currency\":\"EUR\"}", "currency"});
        wrong.put(
                "strange currency",
                new String[] {start + ",\"text\":\"a\",\"cost\":1,\"currency\":\"euro\"}", "/currency"});
        wrong.put(
                "cost too fine",
                new String[] {start + ",\"text\":\"a\",\"cost\":0.1234567,\"currency\":\"EUR\"}", "cost"});
        wrong.put("complete without text", new String[] {start + "}", "text"});
        wrong.put("text a list", new String[] {start + ",\"text\":[]}", "/text"});
        wrong.put("text with U+0000", new String[] {start + ",\"text\":\"a\\u0000\"}", "text"});
        wrong.put(
                "unknown prompt",
                new String[] {"{\"prompt\":\"x\",\"candidate\":\"Osierhold\",\"text\":\"a\"}", "prompt"});
        wrong.put(
                "unknown candidate",
                new String[] {"{\"prompt\":\"First of review\",\"candidate\":\"x\",\"text\":\"a\"}", "candidate"});
        wrong.put("attempt twice", new String[] {start + ",\"text\":\"other\",\"attempt\":1}", "attempt"});
        wrong.forEach((name, c) -> add(
                cases,
                "line: " + name,
                "a.jsonl",
                (GOOD_LINE + c[0] + "\n").getBytes(StandardCharsets.UTF_8),
                "a.jsonl",
                2,
                c[1]));
        add(cases, "line: not UTF-8", "a.jsonl", new byte[] {'{', (byte) 0xff, '}'}, "a.jsonl", 0, "");
        add(cases, "line: nothing", "a.jsonl", "\n \n".getBytes(StandardCharsets.UTF_8), "a.jsonl", 0, "");
        add(cases, "strange ending", "a.txt", bytes(GOOD_LINE), "a.txt", 0, "");
    }

    private static void tables(List<Object[]> cases) {
        Map<String, String[]> wrong = new LinkedHashMap<>();
        wrong.put("no prompt", new String[] {",Osierhold,,,a,,,", "prompt"});
        wrong.put("no candidate", new String[] {"First of review,,,,a,,,", "candidate"});
        wrong.put("too few cells", new String[] {"First of review,Osierhold", ""});
        wrong.put("too many cells", new String[] {"First of review,Osierhold,,,a,,,,", ""});
        wrong.put("attempt 0", new String[] {"First of review,Osierhold,0,,a,,,", "attempt"});
        wrong.put("attempt in words", new String[] {"First of review,Osierhold,one,,a,,,", "attempt"});
        wrong.put("attempt beyond measure", new String[] {"First of review,Osierhold,99999999999,,a,,,", "attempt"});
        wrong.put("strange outcome", new String[] {"First of review,Osierhold,,Complete,a,,,", "outcome"});
        wrong.put("complete without text", new String[] {"First of review,Osierhold,,,,,,", "text"});
        wrong.put("blank text", new String[] {"First of review,Osierhold,,,\"  \",,,", "text"});
        wrong.put("time below 0", new String[] {"First of review,Osierhold,,,a,-5,,", "total_ms"});
        wrong.put("time with a comma", new String[] {"First of review,Osierhold,,,a,\"5,5\",,", "total_ms"});
        wrong.put("half a millisecond", new String[] {"First of review,Osierhold,,,a,5.5,,", "total_ms"});
        wrong.put("cost in words", new String[] {"First of review,Osierhold,,,a,,free,EUR", "cost"});
        wrong.put("cost below 0", new String[] {"First of review,Osierhold,,,a,,-1,EUR", "cost"});
        wrong.put("cost without currency", new String[] {"First of review,Osierhold,,,a,,1,", "currency"});
        wrong.put("currency without cost", new String[] {"First of review,Osierhold,,,a,,,EUR", "currency"});
        wrong.put("strange currency", new String[] {"First of review,Osierhold,,,a,,1,Euro", "currency"});
        wrong.put("cost too fine", new String[] {"First of review,Osierhold,,,a,,0.1234567,EUR", "cost"});
        wrong.put("unknown prompt", new String[] {"x,Osierhold,,,a,,,", "prompt"});
        wrong.put("unknown candidate", new String[] {"First of review,x,,,a,,,", "candidate"});
        wrong.forEach((name, c) -> add(
                cases,
                "table: " + name,
                "a.csv",
                (HEADER + c[0] + "\n").getBytes(StandardCharsets.UTF_8),
                "a.csv",
                2,
                c[1]));
        Map<String, String[]> heads = new LinkedHashMap<>();
        heads.put("strange column", new String[] {"prompt,candidate,mood\n", "mood"});
        heads.put("column left out", new String[] {"prompt,text\nx,a\n", "candidate"});
        heads.put("column twice", new String[] {"prompt,candidate,text,text\n", ""});
        heads.forEach((name, c) -> add(cases, "table: " + name, "a.csv", bytes(c[0]), "a.csv", 1, c[1]));
        add(
                cases,
                "table: open quote",
                "a.csv",
                (HEADER + "\"x,Osierhold").getBytes(StandardCharsets.UTF_8),
                "a.csv",
                0,
                "");
        add(cases, "table: no rows", "a.csv", bytes(HEADER), "a.csv", 0, "");
        add(cases, "table: with U+0000", "a.csv", "prompt\0".getBytes(StandardCharsets.UTF_8), "a.csv", 0, "");
    }

    private static void zips(List<Object[]> cases) {
        String front = "prompt: First of review\ncandidate: Osierhold\n";
        Map<String, Object[]> wrong = new LinkedHashMap<>();
        wrong.put("no front matter", new Object[] {"Just text.\n", 1, ""});
        wrong.put("front matter not closed", new Object[] {"---\n" + front + "text\n", 1, ""});
        wrong.put("front matter later", new Object[] {"\n---\n" + front + "---\ntext\n", 1, ""});
        wrong.put("no YAML", new Object[] {"---\n\tprompt: a\n---\ntext\n", 2, ""});
        wrong.put("twice a name", new Object[] {"---\n" + front + "prompt: b\n---\ntext\n", 4, ""});
        wrong.put("a list", new Object[] {"---\n- a\n---\ntext\n", 2, ""});
        wrong.put("a word", new Object[] {"---\nprompt\n---\ntext\n", 2, ""});
        wrong.put("nothing in front", new Object[] {"---\n\n---\ntext\n", 2, ""});
        wrong.put(
                "a type of a language",
                new Object[] {"---\n" + front + "outcome: !!java.net.URL [\"http://127.0.0.1/\"]\n---\ntext\n", 4, ""});
        wrong.put("an alias", new Object[] {"---\n" + front + "attempt: &a [1]\ntotal_ms: *a\n---\ntext\n", 1, ""});
        wrong.put("strange name", new Object[] {"---\n" + front + "mood: x\n---\ntext\n", 1, "/mood"});
        wrong.put("text in front", new Object[] {"---\n" + front + "text: a\n---\ntext\n", 1, "/text"});
        wrong.put("no prompt", new Object[] {"---\ncandidate: Osierhold\n---\ntext\n", 1, "/prompt"});
        wrong.put("no candidate", new Object[] {"---\nprompt: First of review\n---\ntext\n", 1, "/candidate"});
        wrong.put("strange outcome", new Object[] {"---\n" + front + "outcome: fine\n---\ntext\n", 1, "/outcome"});
        wrong.put("attempt in words", new Object[] {"---\n" + front + "attempt: two\n---\ntext\n", 1, "/attempt"});
        wrong.put("time below 0", new Object[] {"---\n" + front + "total_ms: -1\n---\ntext\n", 1, "/total_ms"});
        wrong.put("cost without currency", new Object[] {"---\n" + front + "cost: 1.5\n---\ntext\n", 1, "currency"});
        wrong.put("complete without text", new Object[] {"---\n" + front + "---\n\n", 1, "text"});
        wrong.put("unknown prompt", new Object[] {"---\nprompt: x\ncandidate: Osierhold\n---\ntext\n", 1, "prompt"});
        wrong.put(
                "unknown candidate",
                new Object[] {"---\nprompt: First of review\ncandidate: x\n---\ntext\n", 1, "candidate"});
        wrong.forEach((name, c) -> add(
                cases, "zip: " + name, "a.zip", zipped(Map.of("b.md", (String) c[0])), "b.md", (Integer) c[1], (String)
                        c[2]));
        add(cases, "zip: other file", "a.zip", zipped(Map.of("b.html", "<p>")), "b.html", 0, "");
        add(cases, "zip: no zip", "a.zip", "PK but no zip".getBytes(StandardCharsets.UTF_8), "a.zip", 0, "");
        add(
                cases,
                "zip: cut short",
                "a.zip",
                java.util.Arrays.copyOf(zipped(Map.of("b.md", "---\n" + front + "---\ntext of some length\n")), 60),
                "a.zip",
                0,
                "");
    }

    /** Front matter of three lines above each; the fault's line is the file's. */
    private static void diffs(List<Object[]> cases) {
        String head = "--- a/F.java\n+++ b/F.java\n";
        Map<String, Object[]> wrong = new LinkedHashMap<>();
        wrong.put("prose", new Object[] {"I changed it.\n", 1});
        wrong.put("nothing", new Object[] {"", 1});
        wrong.put("no names", new Object[] {"@@ -1 +1 @@\n-x\n+y\n", 1});
        wrong.put("no new name", new Object[] {"diff --git a/F b/F\n--- a/F\n@@ -1 +1 @@\n-x\n+y\n", 3});
        wrong.put("no hunk", new Object[] {head, 3});
        wrong.put("a head without numbers", new Object[] {head + "@@ here @@\n-x\n+y\n", 3});
        wrong.put("a head without its end", new Object[] {head + "@@ -1 +1\n-x\n+y\n", 3});
        wrong.put("a head with letters", new Object[] {head + "@@ -a +1 @@\n-x\n+y\n", 3});
        wrong.put("a number beyond measure", new Object[] {head + "@@ -99999999999 +1 @@\n-x\n+y\n", 3});
        wrong.put("too few lines", new Object[] {head + "@@ -1,3 +1,3 @@\n-x\n+y\n", 5});
        wrong.put("too many removed", new Object[] {head + "@@ -1 +1 @@\n-x\n-z\n+y\n", 5});
        wrong.put("too many added", new Object[] {head + "@@ -1 +1 @@\n-x\n+y\n+z\n", 6});
        wrong.put("too many kept", new Object[] {head + "@@ -1,2 +1,2 @@\n-x\n+y\n k\n l\n", 7});
        wrong.put("no sign", new Object[] {head + "@@ -1,2 +1,2 @@\n-x\n+y\nk\n", 6});
        wrong.put("backwards", new Object[] {head + "@@ -9 +9 @@\n-x\n+y\n@@ -3 +3 @@\n-x\n+y\n", 6});
        wrong.put("overlapping", new Object[] {head + "@@ -1,2 +1,2 @@\n x\n x\n@@ -2 +2 @@\n-x\n+y\n", 6});
        wrong.put("an absolute path", new Object[] {"--- /F\n+++ /F\n@@ -1 +1 @@\n-x\n+y\n", 1});
        wrong.put("a path that climbs", new Object[] {"--- a/../F\n+++ b/../F\n@@ -1 +1 @@\n-x\n+y\n", 1});
        wrong.put("a backslash", new Object[] {"--- a\\F\n+++ b\\F\n@@ -1 +1 @@\n-x\n+y\n", 1});
        wrong.put("no name", new Object[] {"--- \n+++ \n@@ -1 +1 @@\n-x\n+y\n", 1});
        wrong.put("nowhere", new Object[] {"--- /dev/null\n+++ /dev/null\n@@ -1 +1 @@\n-x\n+y\n", 2});
        wrong.put("binary", new Object[] {"diff --git a/x b/x\nBinary files a/x and b/x differ\n", 2});
        wrong.put("words between", new Object[] {head + "@@ -1 +1 @@\n-x\n+y\nand then\n", 6});
        String front = "---\nprompt: First of review\ncandidate: Osierhold\n---\n";
        wrong.forEach((name, c) -> add(
                cases,
                "diff: " + name,
                "a.zip",
                zipped(Map.of("b.diff", front + c[0])),
                "b.diff",
                4 + (Integer) c[1],
                ""));
        add(cases, "diff: no front matter", "a.zip", zipped(Map.of("b.patch", head)), "b.patch", 1, "");
        String line =
                "{\"prompt\":\"First of review\",\"candidate\":\"Osierhold\",\"form\":\"diff\",\"text\":\"no diff\"}\n";
        add(cases, "diff: in a line", "a.jsonl", bytes(GOOD_LINE + line), "a.jsonl", 2, "text");
        String row = "prompt,candidate,form,text\nFirst of review,Osierhold,diff,no diff\n";
        add(cases, "diff: in a table", "a.csv", bytes(row), "a.csv", 2, "text");
    }

    private static void followUps(List<Object[]> cases) {
        Map<String, String[]> wrong = new LinkedHashMap<>();
        wrong.put("no list", new String[] {"\"why?\"", "/follow_ups"});
        wrong.put("words in the list", new String[] {"[\"why?\"]", "/follow_ups/0"});
        wrong.put("no reply", new String[] {"[{\"asked\":\"why?\"}]", "/follow_ups/0/reply"});
        wrong.put("nothing asked", new String[] {"[{\"reply\":\"so\"}]", "/follow_ups/0/asked"});
        wrong.put("blank", new String[] {"[{\"asked\":\" \",\"reply\":\"so\"}]", "follow_ups"});
        wrong.put("U+0000", new String[] {"[{\"asked\":\"why?\",\"reply\":\"\\u0000\"}]", "text"});
        wrong.forEach((name, c) -> add(
                cases,
                "follow-ups: " + name,
                "a.jsonl",
                bytes("{\"prompt\":\"First of review\",\"candidate\":\"Osierhold\",\"text\":\"a\",\"follow_ups\":"
                        + c[0] + "}\n"),
                "a.jsonl",
                1,
                c[1]));
    }

    @Test(dataProvider = "malformed")
    public void isRefusedWithTheFaultNamed(
            String name, String file, byte[] bytes, String inFile, int line, String field) {
        for (boolean look : new boolean[] {true, false}) {
            ApiClient.Response response = send(study, look ? "/preview" : "", file, bytes);
            assertThat(response.status()).as(response.body()).isEqualTo(look ? 200 : 400);
            assertThat(response.json().path("faults").values())
                    .as(response.body())
                    .anySatisfy(fault -> {
                        assertThat(fault.path("file").asString()).isEqualTo(inFile);
                        assertThat(fault.path("line").asInt(0)).isEqualTo(line);
                        assertThat(fault.path("field").asString("")).isEqualTo(field);
                        assertThat(fault.path("expected").asString()).isNotBlank();
                    });
        }
        assertThat(study.get("/answers").size()).as("nothing is written").isZero();
    }
}
