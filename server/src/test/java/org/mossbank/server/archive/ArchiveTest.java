package org.mossbank.server.archive;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.mossbank.server.Bodies;
import org.mossbank.server.RubricDraft;
import org.mossbank.server.ServerTest;
import org.mossbank.server.SmallStudy;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

public class ArchiveTest extends ServerTest {

    @Test
    public void whatIsWrittenOutReadsBackAsTheSameStudy() {
        ApiClient lead = as(LEAD);
        byte[] first = export(lead, demoStudy());
        String again = lead.upload("/api/studies/archive?again=true", first)
                .json()
                .path("studyId")
                .asString();
        assertThat(unzip(export(lead, again))).isEqualTo(unzip(first));
        assertThat(export(lead, again)).as("to the byte").isEqualTo(first);
    }

    @Test
    public void aStudyReadBackGivesTheSameFigures() {
        ApiClient lead = as(LEAD);
        String study = copyOfTheDemo();
        String again = lead.upload("/api/studies/archive?again=true", export(lead, study))
                .json()
                .path("studyId")
                .asString();
        List<Double> before = intervals(lead, study);
        assertThat(before).hasSizeGreaterThan(20);
        List<Double> after = intervals(lead, again);
        for (int i = 0; i < before.size(); i++) {
            assertThat(after.get(i)).isCloseTo(before.get(i), org.assertj.core.api.Assertions.within(1e-9));
        }
    }

    private static List<Double> intervals(ApiClient lead, String study) {
        List<Double> numbers = new ArrayList<>();
        recommendation(lead, study).path("overall").forEach(s -> {
            numbers.add(s.at("/adjusted/low").asDouble());
            numbers.add(s.at("/adjusted/high").asDouble());
        });
        JsonNode agreement = lead.get("/api/studies/" + study + "/agreement").json();
        agreement.path("criteria").forEach(c -> {
            numbers.add(c.at("/overall/alpha/low").asDouble());
            c.path("byKind")
                    .forEach(k -> numbers.add(k.at("/figures/alpha/high").asDouble()));
        });
        agreement
                .path("severity")
                .forEach(s -> numbers.add(s.at("/severity/high").asDouble()));
        return numbers;
    }

    /** The demo's other study, which is being prepared: sources, runs, follow-ups and diffs. */
    @Test
    public void aStudyThatCollectsComesOutAsItWentIn() {
        Map<String, byte[]> folder = files(ROOT.resolve("demo-next"));
        String study = as(LEAD).upload("/api/studies/archive?again=true", zip(folder))
                .json()
                .path("studyId")
                .asString();
        Map<String, String> written = unzip(export(as(LEAD), study));
        for (String table : List.of(
                "sources", "source-headers", "answers", "turns", "runs", "run-cells", "follow-ups", "prompts")) {
            assertThat(withoutEmptyColumns(written.get(table + ".csv")))
                    .as(table)
                    .isEqualTo(withoutEmptyColumns(new String(folder.get(table + ".csv"), StandardCharsets.UTF_8)));
        }
        assertThat(json(written.get("study.json")).path("mostFollowUps").asInt())
                .isEqualTo(2);
    }

    /** Rows as maps of what is not empty, so that a table may leave columns out. */
    private static List<Map<String, String>> withoutEmptyColumns(String csv) {
        try (var parser = org.apache.commons.csv.CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .get()
                .parse(new java.io.StringReader(csv))) {
            return parser.stream()
                    .map(r -> {
                        Map<String, String> cells = new TreeMap<>(r.toMap());
                        cells.values().removeIf(String::isEmpty);
                        return cells;
                    })
                    .toList();
        } catch (java.io.IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Test
    public void theDemoStudyComesOutAsItWentIn() {
        Map<String, String> written = unzip(export(as(LEAD), demoStudy()));
        for (String table : List.of(
                "kinds",
                "prompts",
                "key-points",
                "constraints",
                "starting-code",
                "follow-ups",
                "candidates",
                "settings",
                "considerations",
                "answers",
                "masking-words",
                "masks",
                "criteria",
                "levels",
                "traits",
                "raters",
                "expectations",
                "read-backs",
                "sheets",
                "positions",
                "judgements",
                "coverage",
                "remarks")) {
            assertThat(rows(written.get(table + ".csv")))
                    .as(table)
                    .isEqualTo(rows(text(ROOT.resolve("demo/" + table + ".csv"))));
        }
        assertThat(json(written.get("rubric-history.json")))
                .isEqualTo(json(text(ROOT.resolve("demo/rubric-history.json"))));
        files(ROOT.resolve("demo")).forEach((name, content) -> {
            if (name.endsWith(".md")) {
                assertThat(written.get(name)).isEqualTo(new String(content, StandardCharsets.UTF_8));
            }
        });
    }

    private static JsonNode json(String text) {
        return tools.jackson.databind.json.JsonMapper.shared().readTree(text);
    }

    private static String text(Path file) {
        try {
            return Files.readString(file);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Rows by what stands in them: a column in which nothing stands may be there or not. */
    private static List<Map<String, String>> rows(String csv) {
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .get();
        try (CSVParser parser = CSVParser.parse(new StringReader(csv), format)) {
            return parser.stream()
                    .map(CSVRecord::toMap)
                    .peek(row -> row.values().removeIf(String::isEmpty))
                    .toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Test
    public void aFolderAroundEverythingDoesNotMatter() {
        Map<String, byte[]> wrapped = new TreeMap<>();
        byHand().forEach((name, content) -> wrapped.put("my-study/" + name, content));
        assertThat(as(LEAD).upload("/api/studies/archive?again=true", zip(wrapped))
                        .status())
                .isEqualTo(200);
    }

    @Test
    public void aStudyWrittenByHandIsGradedAndRecommendedOn() {
        String study = bringIn();
        ApiClient lead = as(LEAD);
        assertThat(recommendation(lead, study).path("outcome").asString()).isEqualTo("WITHHELD");
        lead.post("/api/studies/" + study + "/round/reopen", Map.of("reason", "Nothing is graded yet."));
        for (String name : List.of(RATER, "juri")) {
            ApiClient rater = as(name);
            for (JsonNode sheet : sheets(rater, study)) {
                grade(rater, sheet.path("id").asString(), name.equals("juri") ? 1 : 0);
            }
        }
        JsonNode report = recommendation(lead, study);
        assertThat(report.path("outcome").asString()).as(report.toString()).isEqualTo("RECOMMENDED");
        assertThat(report.path("headline").asString()).isEqualTo("We recommend Osier.");
        JsonNode agreement = lead.get("/api/studies/" + study + "/agreement").json();
        // Juri is one level kinder on every answer that leaves room for it; by hand, half of that either way.
        assertThat(agreement.at("/severity/0/severity/value").asDouble()).isPositive();
    }

    /** Osier's answers say "one" and are better; the second rater is a level kinder where the scale allows. */
    private static void grade(ApiClient rater, String sheet, int kindness) {
        JsonNode view = rater.get("/api/sheets/" + sheet).json();
        int wobble = view.path("prompt").path("title").asString().length() % 2;
        for (JsonNode answer : view.path("answers")) {
            int level = answer.path("text").asString().contains("one") ? 3 : 1 - wobble;
            for (JsonNode grade : answer.path("grades")) {
                rater.put(gradePath(sheet, answer, grade), grade(0, level + (wobble == 1 ? kindness : 0)));
            }
        }
        view.path("answers").forEach(answer -> explain(rater, sheet, answer));
        assertThat(rater.post("/api/sheets/" + sheet + "/send", Map.of()).status())
                .isEqualTo(200);
    }

    /** The example in the format's description, taken out of it, is accepted as it stands. */
    @Test
    public void theExampleInTheDescriptionIsAccepted() {
        String description = text(ROOT.resolve("docs/formats/archive.md"));
        Matcher blocks = Pattern.compile("`([\\w./-]+)`:\\n\\n```\\w*\\n(.*?)```", Pattern.DOTALL)
                .matcher(description);
        Map<String, byte[]> files = new TreeMap<>();
        while (blocks.find()) {
            files.put(blocks.group(1), bytes(blocks.group(2)));
        }
        assertThat(files).containsKeys("datapackage.json", "study.json", "answers.csv");
        ApiClient.Response response = as(LEAD).upload("/api/studies/archive?again=true", zip(files));
        assertThat(response.status()).as(response.body()).isEqualTo(200);
    }

    @Test
    public void namesOfCandidatesInAnswersAreNoted() {
        Map<String, byte[]> files = byHand();
        files.put("text/lost-hour-osier.md", bytes("I am OSIER, and the hour is lost."));
        JsonNode notes = as(LEAD).upload("/api/studies/archive?again=true", zip(files))
                .json()
                .path("notes");
        assertThat(notes.size()).isEqualTo(1);
        assertThat(notes.get(0).asString()).contains("lost-hour-osier").contains("Osier");
    }

    private static Consumer<Map<String, byte[]>> put(String file, String text) {
        return files -> files.put(file, bytes(text));
    }

    private static Consumer<Map<String, byte[]>> replace(String file, String from, String to) {
        return files -> {
            String text = new String(files.get(file), StandardCharsets.UTF_8);
            if (!text.contains(from)) {
                throw new IllegalStateException(file + " does not contain " + from);
            }
            files.put(file, bytes(text.replace(from, to)));
        };
    }

    /** Takes out the lines that start so. */
    private static Consumer<Map<String, byte[]>> without(String file, String start) {
        return files -> files.put(
                file,
                bytes(new String(files.get(file), StandardCharsets.UTF_8)
                        .lines()
                        .filter(line -> !line.startsWith(start))
                        .collect(java.util.stream.Collectors.joining("\n"))));
    }

    /** How a test breaks the study. */
    private interface Change extends Consumer<Map<String, byte[]>> {}

    /** What is broken, and the fault that must be named: file, line (0 for none), field. */
    @DataProvider
    public static Iterator<Object[]> malformed() {
        String grades = "rater,answer,criterion,level,not_applicable\n";
        List<Object[]> cases = new ArrayList<>();
        add(cases, "no package file", f -> f.remove("datapackage.json"), "datapackage.json", 0, "");
        add(
                cases,
                "package file is no JSON",
                put("datapackage.json", "{ \"name\":\n oops }"),
                "datapackage.json",
                2,
                "");
        add(
                cases,
                "package file twice a name",
                put("datapackage.json", "{\"name\":\"a\",\"name\":\"b\"}"),
                "datapackage.json",
                1,
                "");
        add(
                cases,
                "package of another format",
                replace("datapackage.json", "\"format\": 1", "\"format\": 9"),
                "datapackage.json",
                3,
                "/mossbank/format");
        add(
                cases,
                "unknown resource",
                replace("datapackage.json", "\"name\": \"kinds\"", "\"name\": \"sorts\""),
                "datapackage.json",
                0,
                "/resources/1/name");
        add(cases, "resource without its file", f -> f.remove("kinds.csv"), "datapackage.json", 0, "/resources/1/path");
        add(
                cases,
                "study without a question",
                replace("study.json", "\"question\"", "\"query\""),
                "study.json",
                1,
                "/question");
        add(
                cases,
                "margin above 100",
                replace("study.json", "\"margin\": 5", "\"margin\": 500"),
                "study.json",
                6,
                "/decisionRule/margin");
        add(
                cases,
                "floor as text",
                replace("study.json", "0.5", "\"half\""),
                "study.json",
                6,
                "/decisionRule/agreementFloor");
        add(
                cases,
                "seed that is no whole number",
                replace("study.json", "\"seed\": 7", "\"seed\": 7.5"),
                "study.json",
                5,
                "/seed");
        add(
                cases,
                "closed at no time",
                replace("study.json", "\"seed\": 7", "\"round\": {\"closedAt\": \"soon\"}"),
                "study.json",
                5,
                "/round/closedAt");
        add(cases, "unknown column", replace("kinds.csv", "kind,name", "kind,name,colour"), "kinds.csv", 1, "colour");
        add(cases, "missing column", put("kinds.csv", "kind\nexplanation\ndebugging\n"), "kinds.csv", 1, "name");
        add(cases, "too few cells", put("kinds.csv", "kind,name\nexplanation\ndebugging,D\n"), "kinds.csv", 2, "");
        add(cases, "key with a blank", replace("kinds.csv", "debugging,", "de bugging,"), "kinds.csv", 3, "kind");
        add(
                cases,
                "key twice",
                put("kinds.csv", "kind,name\ndebugging,D\nexplanation,E\ndebugging,D\n"),
                "kinds.csv",
                4,
                "kind");
        add(
                cases,
                "quote left open",
                put("kinds.csv", "kind,name\nexplanation,\"E\ndebugging,D\n"),
                "kinds.csv",
                0,
                "");
        add(cases, "empty table", put("raters.csv", ""), "raters.csv", 1, "");
        add(cases, "table without rows", put("raters.csv", "rater,name\n"), "raters.csv", 0, "");
        add(cases, "no UTF-8", f -> f.put("raters.csv", new byte[] {'r', (byte) 0xff}), "raters.csv", 0, "");
        add(
                cases,
                "kind that is not there",
                replace("prompts.csv", "lost-hour,debugging", "lost-hour,review"),
                "prompts.csv",
                4,
                "kind");
        add(
                cases,
                "line number after a quoted cell",
                replace("prompts.csv", "flat-line,debugging", "flat-line,review"),
                "prompts.csv",
                5,
                "kind");
        add(cases, "prompt without its text", f -> f.remove("text/lost-hour.md"), "prompts.csv", 4, "file");
        add(cases, "empty prompt", put("text/lost-hour.md", " \n"), "prompts.csv", 4, "file");
        add(cases, "text with a NUL", put("text/lost-hour.md", "a\0b"), "text/lost-hour.md", 0, "");
        add(
                cases,
                "attempt of zero",
                replace("answers.csv", "mean-level,osier,1", "mean-level,osier,0"),
                "answers.csv",
                2,
                "attempt");
        add(
                cases,
                "unknown outcome",
                replace("answers.csv", "osier,1,complete,text/mean", "osier,1,done,text/mean"),
                "answers.csv",
                2,
                "outcome");
        add(
                cases,
                "complete without text",
                replace("answers.csv", ",complete,text/mean-level-osier.md", ",complete,"),
                "answers.csv",
                2,
                "file");
        add(
                cases,
                "same attempt twice",
                replace("answers.csv", "mean-level,teasel,1", "mean-level,osier,1"),
                "answers.csv",
                3,
                "prompt, candidate, attempt");
        add(cases, "prompt without answers", without("answers.csv", "flat-line"), "answers.csv", 0, "");
        add(
                cases,
                "cost without currency",
                put(
                        "answers.csv",
                        "answer,prompt,candidate,attempt,outcome,file,cost\na,mean-level,osier,1,complete,text/mean-level-osier.md,0.5\n"),
                "answers.csv",
                2,
                "currency");
        add(cases, "negative weight", replace("criteria.csv", ",2,4", ",-2,4"), "criteria.csv", 2, "weight");
        add(
                cases,
                "no weight at all",
                put("criteria.csv", "criterion,name,question,weight,highest_level\na,A,?,0,4\n"),
                "criteria.csv",
                0,
                "weight");
        add(cases, "lead as rater", put("raters.csv", "rater,name\norla,Orla\n"), "raters.csv", 0, "rater");
        add(
                cases,
                "level above the scale",
                withTable("levels", "criterion,level,name\nidiom,5,Beyond\n"),
                "levels.csv",
                2,
                "level");
        add(
                cases,
                "anchor for no kind",
                withTable("anchors", "criterion,kind,level,text\nidiom,review,1,x\n"),
                "anchors.csv",
                2,
                "kind");
        add(
                cases,
                "grade above the scale",
                withTable("grades", grades + "bram,mean-level-osier,idiom,7,\n"),
                "grades.csv",
                2,
                "level");
        add(
                cases,
                "grade by nobody",
                withTable("grades", grades + "sana,mean-level-osier,idiom,3,\n"),
                "grades.csv",
                2,
                "rater");
        add(
                cases,
                "grade that is none",
                withTable("grades", grades + "bram,mean-level-osier,idiom,,\n"),
                "grades.csv",
                2,
                "level");
        add(
                cases,
                "grade and not applicable",
                withTable("grades", grades + "bram,mean-level-osier,idiom,3,true\n"),
                "grades.csv",
                2,
                "level");
        add(
                cases,
                "not applicable maybe",
                withTable("grades", grades + "bram,mean-level-osier,idiom,,maybe\n"),
                "grades.csv",
                2,
                "not_applicable");
        add(
                cases,
                "sent in but not complete",
                withTable("sheets", "rater,prompt,place,sent_at\nbram,mean-level,1,2026-03-01T10:00:00Z\n"),
                "sheets.csv",
                2,
                "sent_at");
        add(
                cases,
                "sent in at no time",
                withTable("sheets", "rater,prompt,place,sent_at\nbram,mean-level,1,yesterday\n"),
                "sheets.csv",
                2,
                "sent_at");
        add(
                cases,
                "place twice",
                withTable("sheets", "rater,prompt,place\nbram,mean-level,1\nbram,lost-hour,1\n"),
                "sheets.csv",
                3,
                "rater, place");
        add(
                cases,
                "position left out",
                withTable("positions", "rater,answer,position\nbram,mean-level-osier,2\n"),
                "positions.csv",
                2,
                "position");
        addOfPreparation(cases);
        add(
                cases,
                "reason for no answer",
                withTable("reasons", "rater,answer,text\nbram,none,x\n"),
                "reasons.csv",
                2,
                "answer");
        addOfTheDesk(cases);
        nonsense(cases);
        return cases.iterator();
    }

    /** Faults in what raters say beside grades. */
    private static void addOfTheDesk(List<Object[]> cases) {
        String on = "bram,mean-level-osier,";
        add(
                cases,
                "confidence in no word",
                withTable("grades", "rater,answer,criterion,level,confidence\n" + on + "idiom,3,rather\n"),
                "grades.csv",
                2,
                "confidence");
        add(
                cases,
                "coverage of no key point",
                withTable("coverage", "rater,answer,point,verdict\n" + on + "1,covered\n"),
                "coverage.csv",
                2,
                "point");
        add(
                cases,
                "coverage in no word",
                withTable("coverage", "rater,answer,point,verdict\n" + on + "1,perhaps\n"),
                "coverage.csv",
                2,
                "verdict");
        add(
                cases,
                "guess of no candidate",
                withTable("judgements", "rater,answer,guess\n" + on + "sedge\n"),
                "judgements.csv",
                2,
                "guess");
        add(
                cases,
                "guess and no idea",
                withTable("judgements", "rater,answer,guess,no_idea\n" + on + "osier,true\n"),
                "judgements.csv",
                2,
                "no_idea");
        add(
                cases,
                "no place in the order",
                withTable("judgements", "rater,answer,preference\n" + on + "0\n"),
                "judgements.csv",
                2,
                "preference");
        add(
                cases,
                "remark that says nothing",
                withTable("remarks", "rater,answer,remark,stance\n" + on + "1,fault\n"),
                "remarks.csv",
                2,
                "remark");
        add(
                cases,
                "remark on lines without an end",
                withTable("remarks", "rater,answer,remark,stance,words,part,from_line\n" + on + "1,fault,x,text,4\n"),
                "remarks.csv",
                2,
                "remark");
        add(
                cases,
                "remark on an answer that is not on the sheet",
                files -> {
                    withTable("positions", "rater,answer,position\nbram,mean-level-teasel,1\n")
                            .accept(files);
                    withTable("remarks", "rater,answer,remark,stance,words\n" + on + "1,fault,x\n")
                            .accept(files);
                },
                "remarks.csv",
                2,
                "answer");
    }

    /** Faults in what a study holds before its round. */
    private static void addOfPreparation(List<Object[]> cases) {
        String prompts = "prompt,kind,title,file,variant_of,wording,author,repository,commit,fault\n";
        String row = "lost-hour,debugging,A lost hour,text/lost-hour.md,";
        String mean = "mean-level,explanation,Mean,text/mean-level.md,,,,,,\n"
                + "spring-tide,explanation,Spring,text/spring-tide.md,,,,,,\n"
                + "flat-line,debugging,Flat,text/flat-line.md,,,,,,\n";
        add(
                cases,
                "variant of itself",
                put("prompts.csv", prompts + mean + row + "lost-hour,exact,,,,\n"),
                "prompts.csv",
                5,
                "variant_of");
        add(
                cases,
                "variant of nothing",
                put("prompts.csv", prompts + mean + row + "none,exact,,,,\n"),
                "prompts.csv",
                5,
                "variant_of");
        add(
                cases,
                "variant without a wording",
                put("prompts.csv", prompts + mean + row + "mean-level,,,,,\n"),
                "prompts.csv",
                5,
                "wording");
        add(
                cases,
                "strange wording",
                put("prompts.csv", prompts + mean + row + "mean-level,odd,,,,\n"),
                "prompts.csv",
                5,
                "wording");
        add(
                cases,
                "author who does not grade",
                put("prompts.csv", prompts + mean + row + ",,wren,,,\n"),
                "prompts.csv",
                5,
                "author");
        add(
                cases,
                "repository without a commit",
                put("prompts.csv", prompts + mean + row + ",,,/srv/a,,\n"),
                "prompts.csv",
                5,
                "commit");
        add(
                cases,
                "fault found by nobody",
                put("prompts.csv", prompts + mean + row + ",,,,,ambiguous\n"),
                "prompts.csv",
                5,
                "fault_found_at");
        String code = "prompt,path,file\nlost-hour,";
        add(
                cases,
                "starting code upwards",
                withTable("starting-code", code + "../A.java,text/lost-hour.md\n"),
                "starting-code.csv",
                2,
                "path");
        add(
                cases,
                "starting code without its file",
                withTable("starting-code", code + "A.java,text/none\n"),
                "starting-code.csv",
                2,
                "file");
        add(
                cases,
                "constraint of no prompt",
                withTable("constraints", "prompt,text\nnone,x\n"),
                "constraints.csv",
                2,
                "prompt");
        add(
                cases,
                "follow-ups with a gap",
                withTable("follow-ups", "prompt,place,text\nlost-hour,2,x\n"),
                "follow-ups.csv",
                2,
                "place");
        String points = "prompt,stance,text,weight,file,from_line,to_line\nlost-hour,must-contain,x,";
        add(cases, "weight of 0", withTable("key-points", points + "0,,,\n"), "key-points.csv", 2, "weight");
        add(
                cases,
                "lines without a file",
                withTable("key-points", points + "1,,1,2\n"),
                "key-points.csv",
                2,
                "to_line");
        add(cases, "lines out of order", withTable("key-points", points + "1,A,3,2\n"), "key-points.csv", 2, "to_line");
        String candidates =
                "candidate,name,version,input_price,currency,as_of,baseline,person\nteasel,Teasel,1,,,,,\nosier,Osier,2,";
        add(
                cases,
                "price without a currency",
                put("candidates.csv", candidates + "3,,,,\n"),
                "candidates.csv",
                3,
                "currency");
        add(
                cases,
                "day that is none",
                put("candidates.csv", candidates + ",,2026-02-30,,\n"),
                "candidates.csv",
                3,
                "as_of");
        add(cases, "a person's model", put("candidates.csv", candidates + ",,,,bram\n"), "candidates.csv", 3, "person");
        add(
                cases,
                "setting twice",
                withTable("settings", "candidate,name,value\nosier,effort,1\nosier,effort,2\n"),
                "settings.csv",
                3,
                "candidate, name");
        add(
                cases,
                "strange sign",
                withTable("considerations", "candidate,sign,text\nosier,maybe,x\n"),
                "considerations.csv",
                2,
                "sign");
        add(
                cases,
                "expectation of nobody",
                withTable("expectations", "rater,expects,uses_today,declared_at\nwren,,,2026-03-01T10:00:00Z\n"),
                "expectations.csv",
                2,
                "rater");
        add(
                cases,
                "verdict on no answer",
                withTable(
                        "read-backs",
                        "prompt,reader,asked_at,answer,answered_at,verdict\nlost-hour,bram,2026-03-01T10:00:00Z,,,unclear\n"),
                "read-backs.csv",
                2,
                "verdict");
        add(
                cases,
                "lead among raters of an open round",
                put("raters.csv", "rater,name,lead\nbram,Bram Okkers,\njuri,Juri Halvard,true\n"),
                "raters.csv",
                3,
                "lead");
        add(
                cases,
                "strange gate",
                replace(
                        "study.json",
                        "\"margin\": 5",
                        "\"margin\": 5, \"gate\": {\"criterion\": \"speed\", \"level\": 1, \"cap\": 40}"),
                "study.json",
                0,
                "/decisionRule/gate/criterion");
        add(
                cases,
                "cap above 100",
                replace(
                        "study.json",
                        "\"margin\": 5",
                        "\"margin\": 5, \"gate\": {\"criterion\": \"speed\", \"level\": 1, \"cap\": 400}"),
                "study.json",
                6,
                "/decisionRule/gate/cap");
        add(
                cases,
                "margin beyond measure",
                replace("study.json", "\"margin\": 5", "\"margin\": 1e300"),
                "study.json",
                6,
                "/decisionRule/margin");
        add(
                cases,
                "reopened without a reason",
                replace("study.json", "\"seed\": 7", "\"brief\": {\"reopenings\": [{}]}"),
                "study.json",
                5,
                "/brief/reopenings/0/reason");
        String masks = "answer,from,to,found,sort,replacement,accepted,decided_at\n";
        String at = ",2026-03-09T10:00:00Z\n";
        add(
                cases,
                "mask of an answer that is not there",
                withTable("masks", masks + "mean-level-sedge,0,4,Text,name,x,true" + at),
                "masks.csv",
                2,
                "answer");
        add(
                cases,
                "mask beyond the answer",
                withTable("masks", masks + "mean-level-osier,0,90000,Text,name,x,true" + at),
                "masks.csv",
                2,
                "found");
        add(
                cases,
                "mask of something else",
                withTable("masks", masks + "mean-level-osier,1,5,Text,name,x,true" + at),
                "masks.csv",
                2,
                "found");
        add(
                cases,
                "masks that overlap",
                withTable(
                        "masks",
                        masks + "mean-level-osier,0,4,Text,name,x,true" + at + "mean-level-osier,2,6,xt o,name,,false"
                                + at),
                "masks.csv",
                3,
                "from");
        add(
                cases,
                "mask of a sort that there is not",
                withTable("masks", masks + "mean-level-osier,0,4,Text,brand,x,true" + at),
                "masks.csv",
                2,
                "sort");
        add(
                cases,
                "masking word twice",
                withTable("masking-words", "word\nMoor\nMoor\n"),
                "masking-words.csv",
                3,
                "word");
    }

    /** What would be dropped without a word, and what makes no sense. */
    private static void nonsense(List<Object[]> cases) {
        String on = "bram,mean-level-osier,1,fault,";
        String remarks = "rater,answer,remark,stance,trait,words,part,path,from_line,to_line,quote\n";
        String round = ", \"round\": ";
        Map<String, String[]> tables = new java.util.LinkedHashMap<>();
        tables.put("lines of nothing", new String[] {"remarks", remarks + on + ",x,,,1,2,\n", "part"});
        tables.put("a quote of nothing", new String[] {"remarks", remarks + on + ",x,,,,,so it says\n", "part"});
        tables.put("line 500 of 5", new String[] {"remarks", remarks + on + ",x,text,,500,500,\n", "to_line"});
        tables.put("nobody's trait", new String[] {"remarks", remarks + on + "ugly,x,,,,,\n", "trait"});
        tables.put("a reason for no withdrawal", new String[] {
            "sheets", "rater,prompt,place,withdrawn_reason\nbram,mean-level,1,Wrong prompt.\n", "withdrawn_at"
        });
        tables.forEach((name, c) -> add(cases, name, withTable(c[0], c[1]), c[0] + ".csv", 2, c[2]));
        add(
                cases,
                "who found no fault",
                replace(
                                "prompts.csv",
                                "prompt,kind,title,file\nmean-level,explanation,What is the mean level?,text/mean-level.md",
                                "prompt,kind,title,file,fault_found_by\nmean-level,explanation,What is the mean level?,text/mean-level.md,Bram")
                        .andThen(files -> files.put(
                                "prompts.csv",
                                bytes(new String(files.get("prompts.csv"), StandardCharsets.UTF_8)
                                        .replaceAll("(?m)(spring-tide|lost-hour|flat-line)\\.md$", "$0,")))),
                "prompts.csv",
                2,
                "fault");
        Map<String, String[]> heads = new java.util.LinkedHashMap<>();
        heads.put("closed before it was opened", new String[] {
            "\"seed\": 7" + round + "{\"openedAt\": \"2026-03-02T09:00:00Z\", \"closedAt\": \"2026-03-01T09:00:00Z\"}",
            "/round/closedAt"
        });
        heads.put("opened again before it was closed", new String[] {
            "\"seed\": 7, \"brief\": {\"closedAt\": \"2026-03-03T09:00:00Z\", \"reopenings\": [{\"closedAt\":"
                    + " \"2026-03-02T09:00:00Z\", \"reopenedAt\": \"2026-03-01T09:00:00Z\", \"by\": \"Orla\","
                    + " \"reason\": \"x\", \"terms\": \"x\"}]}",
            "/brief/reopenings/0/reopenedAt"
        });
        heads.forEach((name, c) -> add(cases, name, replace("study.json", "\"seed\": 7", c[0]), "study.json", 0, c[1]));
        add(
                cases,
                "gate above the scale",
                replace(
                        "study.json",
                        "\"minimumRaters\": 2",
                        "\"minimumRaters\": 2, \"gate\": {\"criterion\": \"correctness\", \"level\": 5, \"cap\": 20}"),
                "study.json",
                0,
                "/decisionRule/gate/level");
        // Whatever counts is of a candidate.
        add(
                cases,
                "a specimen graded in the round",
                specimen().andThen(withTable("grades", "rater,answer,criterion,level\nbram,kept,idiom,3\n")),
                "grades.csv",
                2,
                "answer");
        add(
                cases,
                "a specimen masked",
                specimen()
                        .andThen(withTable(
                                "masks",
                                "answer,from,to,found,sort,replacement,accepted,decided_at\n"
                                        + "kept,0,4,Kept,name,[masked],true,2026-03-10T08:00:00Z\n")),
                "masks.csv",
                2,
                "answer");
        add(
                cases,
                "a level of no specimen",
                withTable("specimen-levels", specimenLevel("mean-level-osier", 3)),
                "specimen-levels.csv",
                2,
                "answer");
        add(
                cases,
                "a specimen above its scale",
                specimen().andThen(withTable("specimen-levels", specimenLevel("kept", 5))),
                "specimen-levels.csv",
                2,
                "level");
        add(
                cases,
                "a specimen without a text",
                specimen().andThen(replace("answers.csv", "text/kept.md", "")),
                "answers.csv",
                10,
                "candidate");
        add(
                cases,
                "more turns than allowed",
                withTable(
                                "turns",
                                "answer,place,asked,reply\nmean-level-osier,1,Why?,So.\nmean-level-osier,2,And?,No.\n")
                        .andThen(replace("study.json", "\"seed\": 7", "\"seed\": 7, \"mostFollowUps\": 1")),
                "turns.csv",
                0,
                "");
    }

    /** An answer of no candidate to a prompt that counts. */
    private static Consumer<Map<String, byte[]>> specimen() {
        return files -> {
            files.put("answers.csv", bytes(text(files, "answers.csv") + "kept,mean-level,,1,complete,text/kept.md\n"));
            files.put("text/kept.md", bytes("Kept from another study."));
        };
    }

    private static String specimenLevel(String answer, int level) {
        return "answer,criterion,level,highest_level,reason,said_by,said_at\n%s,idiom,%d,4,Why not.,Ida,2026-03-10T08:00:00Z\n"
                .formatted(answer, level);
    }

    private static void add(
            List<Object[]> cases,
            String name,
            Consumer<Map<String, byte[]>> change,
            String file,
            int line,
            String field) {
        Change one = change::accept;
        cases.add(new Object[] {name, one, file, line, field});
    }

    @Test(dataProvider = "malformed")
    public void isRefusedWithTheFaultNamed(String name, Object change, String file, int line, String field) {
        Map<String, byte[]> files = byHand();
        ((Change) change).accept(files);
        ApiClient lead = as(LEAD);
        int before = studiesOf(lead);
        ApiClient.Response response = lead.upload("/api/studies/archive?again=true", zip(files));
        assertThat(response.status()).as(response.body()).isEqualTo(400);
        assertThat(response.problem()).isEqualTo("archive-refused");
        assertThat(response.json().path("faults").values()).as(response.body()).anySatisfy(fault -> {
            assertThat(fault.path("file").asString()).isEqualTo(file);
            assertThat(fault.path("line").asInt(0)).isEqualTo(line);
            assertThat(fault.path("field").asString("")).isEqualTo(field);
            assertThat(fault.path("expected").asString()).isNotBlank();
        });
        assertThat(studiesOf(lead)).as("nothing is written").isEqualTo(before);
    }

    private static int studiesOf(ApiClient lead) {
        return lead.get("/api/my-studies").json().path("total").asInt();
    }

    /** What points at a row that is refused is no fault of its own. */
    @Test
    public void oneBadRowIsOneFault() {
        Map<String, byte[]> files = byHand();
        SmallStudy.graded(SmallStudy.osier(1, 3)).accept(files);
        String criteria = text(files, "criteria.csv");
        files.put("criteria.csv", bytes(criteria.replaceFirst("(?m)^(correctness,.*?),2,", "$1,heavy,")));
        assertThat(text(files, "criteria.csv")).isNotEqualTo(criteria);
        JsonNode faults = as(LEAD).upload("/api/studies/archive?again=true", zip(files))
                .json()
                .path("faults");
        assertThat(faults.size()).as(faults.toString()).isEqualTo(1);
        assertThat(faults.at("/0/field").asString()).isEqualTo("weight");
    }

    private static String text(Map<String, byte[]> files, String name) {
        return new String(files.get(name), StandardCharsets.UTF_8);
    }

    @DataProvider
    public static Object[][] beyondTheDatabase() {
        return new Object[][] {
            {"sheets", "rater,prompt,place\nbram,mean-level,3000000000\n", "place"},
            {"sheets", "rater,prompt,place,sent_at\nbram,mean-level,1,+20000-01-01T00:00:00Z\n", "sent_at"},
            {"sheets", "rater,prompt,place,sent_at\nbram,mean-level,1,-0004-01-01T00:00:00Z\n", "sent_at"},
        };
    }

    @Test(dataProvider = "beyondTheDatabase")
    public void whatTheDatabaseDoesNotHoldIsAFaultWithItsLimit(String table, String rows, String field) {
        Map<String, byte[]> files = byHand();
        withTable(table, rows).accept(files);
        ApiClient.Response refused = as(LEAD).upload("/api/studies/archive?again=true", zip(files));
        assertThat(refused.problem()).isEqualTo("archive-refused");
        assertThat(refused.json().at("/faults/0/field").asString()).isEqualTo(field);
        assertThat(refused.json().at("/faults/0/expected").asString()).containsAnyOf("2147483647", "9999", "to");
    }

    @Test
    public void everyFaultIsListedAtOnce() {
        Map<String, byte[]> files = byHand();
        replace("kinds.csv", "debugging,", "de bugging,").accept(files);
        replace("answers.csv", "osier,1,complete,text/mean", "osier,0,done,text/mean")
                .accept(files);
        JsonNode faults = as(LEAD).upload("/api/studies/archive?again=true", zip(files))
                .json()
                .path("faults");
        assertThat(faults.size()).isGreaterThanOrEqualTo(3);
    }

    @Test
    public void aFileThatIsNoZipIsRefusedToo() {
        ApiClient.Response response = as(LEAD).upload("/api/studies/archive?again=true", bytes("not a zip"));
        assertThat(response.problem()).isEqualTo("archive-refused");
    }

    private byte[] again(ApiClient lead, byte[] archive) {
        ApiClient.Response response = lead.upload("/api/studies/archive?again=true", archive);
        assertThat(response.status()).as(response.body()).isEqualTo(200);
        return export(lead, response.json().path("studyId").asString());
    }

    /** Everything that can be prepared, written out before the round and read back: the same bytes. */
    @Test
    public void aStudyInPreparationComesBackAsItWas() {
        StudyInTheMaking study = StudyInTheMaking.ready(as(LEAD));
        String bram = study.get("/people").values().stream()
                .filter(p -> p.path("signInName").asString().equals("bram"))
                .findFirst()
                .orElseThrow()
                .path("accountId")
                .asString();
        String prompt = study.prompt("explanation", "Half written");
        Map<String, Object> content = new java.util.HashMap<>(Bodies.prompt("Half written", ""));
        content.put("startingFiles", List.of(Map.of("path", "src/A.java", "text", "class A {}\n")));
        content.put("constraints", List.of("Short, please", "No \"quotes\""));
        content.put("followUps", List.of("And now?", "Really?"));
        content.put("referenceAnswer", "Because.");
        study.put(
                "/prompts/" + prompt,
                Map.of("version", 0, "kindId", study.kind("explanation"), "authorId", bram, "content", content));
        study.post("/prompts/" + prompt + "/variants", Map.of("wording", "VAGUE"));
        study.post("/prompts/" + prompt + "/read-backs", Map.of("readerId", bram));
        study.baseline("B. O.", bram);
        study.post("/kinds", Map.of("name", "Advice"));
        study.put("/prompts/" + prompt + "/fault", Map.of("reason", "Not done."));
        RubricDraft draft = RubricDraft.of(study);
        draft.first().put("question", "Is it right?");
        StudyInTheMaking.ok(draft.write(study));
        study.post("/brief/reopen", Map.of("reason", "Not done either."));
        as(RATER).put(study.path + "/expectation", Map.of("expects", "Teaselworth", "usesToday", ""));
        byte[] first = export(study.lead, study.id());
        assertThat(unzip(first).get("study.json")).contains("\"preparing\"");
        assertThat(unzip(first).get("rubric-history.json")).contains("\"as it comes\"");
        byte[] second = again(study.lead, first);
        assertThat(unzip(second)).isEqualTo(unzip(first));
    }

    @Test
    public void aClosedStudyWhoseLeadGradedComesBackWithTheLeadAsRater() {
        StudyInTheMaking study = StudyInTheMaking.ready(as(LEAD)).ofOthersPrompts();
        study.open(2, 0.5, true);
        for (String name : List.of("bram", "juri", "sana", LEAD)) {
            ApiClient rater = as(name);
            for (JsonNode sheet : sheets(rater, study.id())) {
                gradeAndSend(rater, sheet.path("id").asString(), 2);
            }
        }
        study.post("/round/close", Map.of("reason", "Enough is graded."));
        byte[] first = export(study.lead, study.id());
        assertThat(unzip(first).get("raters.csv")).contains("orla,Orla Fennick,true");
        byte[] second = again(study.lead, first);
        assertThat(unzip(second)).isEqualTo(unzip(first));
    }

    @Test
    public void aStudyInPreparationMayHaveGapsButNoSheets() {
        Map<String, byte[]> files = new java.util.TreeMap<>();
        files.put(
                "datapackage.json",
                bytes(
                        "{\"name\":\"bare\",\"mossbank\":{\"format\":1},\"resources\":["
                                + "{\"name\":\"study\",\"path\":\"study.json\"},{\"name\":\"kinds\",\"path\":\"kinds.csv\"}]}"));
        files.put("study.json", bytes("{\"title\":\"Bare\",\"stage\":\"preparing\"}"));
        files.put("kinds.csv", bytes("kind,name\nreview,Review\n"));
        ApiClient lead = as(LEAD);
        ApiClient.Response bare = lead.upload("/api/studies/archive?again=true", zip(files));
        assertThat(bare.status()).as(bare.body()).isEqualTo(200);
        String path = "/api/studies/" + bare.json().path("studyId").asString();
        assertThat(lead.get(path).json().path("stage").asString()).isEqualTo("PREPARING");
        assertThat(lead.get(path + "/brief").json().has("closedAt")).isFalse();
        Map<String, byte[]> withSheets = byHand();
        replace("study.json", "\"seed\": 7", "\"stage\": \"preparing\"").accept(withSheets);
        withTable("sheets", "rater,prompt,place\nbram,mean-level,1\n").accept(withSheets);
        JsonNode faults = lead.upload("/api/studies/archive?again=true", zip(withSheets))
                .json()
                .path("faults");
        assertThat(faults.at("/0/file").asString()).isEqualTo("sheets.csv");
    }
}
