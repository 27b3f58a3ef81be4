package org.mossbank.server.trial;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.mossbank.core.change.FileChange;
import org.mossbank.core.change.RepairedCode;
import org.mossbank.core.markdown.FencedBlock;
import org.mossbank.core.trial.TrialOutcome;
import org.mossbank.server.ServerTest;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.sandbox.Sandbox;
import org.springframework.beans.factory.annotation.Autowired;
import org.testng.annotations.Test;
import tools.jackson.databind.json.JsonMapper;

/**
 * The trials that ship with the demo, run anew: one answer a prompt, all with {@code -Dmossbank.long=true}. To write them:
 * {@code -Dmossbank.demo.trials.write=true}.
 */
public class DemoTrialsTest extends ServerTest {
    private static final boolean WRITES = Boolean.getBoolean("mossbank.demo.trials.write");
    private static final boolean ALL = WRITES || Boolean.getBoolean("mossbank.long");
    private static final Path DEMO = ROOT.resolve("demo");
    private static final JsonMapper JSON = JsonMapper.shared();

    /** What people change in the demo so that an answer can be tried: what a pattern finds, by what stands for it. */
    private record Change(String answer, String rater, String before, String after) {}

    private static final List<Change> CHANGES = List.of(
            new Change(
                    "debug-drift-alarm-marram",
                    "bram",
                    "import java.util.List;\n",
                    "import java.util.List;\nimport java.util.function.ToDoubleFunction;\n"),
            new Change(
                    "debug-visit-date-sana-own",
                    "juri",
                    "new Date\\(visit.day \\+ \"T00:00:00Z\"\\)",
                    "export const visitDay = (visit: { day: string }): string =>\n  new Date(visit.day.slice(0, 10) + \"T00:00:00Z\")"),
            new Change("refactor-alarm-rules-marram", "bram", "\\.equals\\(\"(\\w+)\"\\)", " == State.$1"));

    @Autowired
    private Trials trials;

    @Autowired
    private TrialRunner runner;

    @Autowired
    private Prompts prompts;

    @Autowired
    private Answers answers;

    /** An answer to a prompt that has a check. */
    private record Tried(PromptView prompt, CheckContent check, AnswerView answer) {
        Path file() {
            return DEMO.resolve("trials/%s-0-1.json".formatted(answer.key()));
        }
    }

    private List<Tried> tried() {
        StudyId study = StudyId.from(demoStudy());
        List<Tried> tried = new ArrayList<>();
        for (PromptView prompt : prompts.ofStudy(study)) {
            trials.check(prompt.id())
                    .ifPresent(check -> answers.ofStudy(study).stream()
                            .filter(a -> a.promptId().equals(prompt.id()))
                            .filter(a -> check.withoutCode() == CheckContent.WithoutCode.FAILS
                                    || FencedBlock.isCodeIn(a.textUpTo(0)))
                            .sorted(Comparator.comparing(AnswerView::key))
                            .forEach(a -> tried.add(new Tried(prompt, check, a))));
        }
        return tried;
    }

    private TrialResult run(Tried one) {
        try {
            return runner.tried(one.check, one.prompt.startingCode(), one.answer.textUpTo(0), new Sandbox.Stop())
                    .result();
        } catch (TrialRunner.Stopped e) {
            throw new AssertionError(e);
        }
    }

    private Map<Tried, TrialResult> run(List<Tried> some) throws InterruptedException, ExecutionException {
        ExecutorService two = Executors.newFixedThreadPool(2);
        try {
            Map<Tried, Future<TrialResult>> running = new java.util.LinkedHashMap<>();
            some.forEach(t -> running.put(t, two.submit(() -> run(t))));
            Map<Tried, TrialResult> results = new java.util.LinkedHashMap<>();
            for (Map.Entry<Tried, Future<TrialResult>> one : running.entrySet()) {
                results.put(one.getKey(), one.getValue().get());
            }
            return results;
        } finally {
            two.shutdownNow();
        }
    }

    @Test
    public void whatTheDemoShipsComesOutAgain() throws Exception {
        List<Tried> all = tried();
        assertThat(all.stream().map(t -> t.prompt.key()).distinct()).hasSizeGreaterThanOrEqualTo(10);
        Map<String, List<Tried>> byPrompt = new TreeMap<>();
        all.forEach(t ->
                byPrompt.computeIfAbsent(t.prompt.key(), k -> new ArrayList<>()).add(t));
        List<Tried> some = ALL
                ? all
                : byPrompt.values().stream().map(p -> p.get(p.size() / 2)).toList();
        Map<Tried, TrialResult> results = run(some);
        if (WRITES) {
            write(results);
        }
        results.forEach((one, result) -> {
            TrialResult shipped = read(one.file());
            assertThat(result.summary()).as(one.answer.key()).isEqualTo(shipped.summary());
            assertThat(result.items().stream().map(i -> i.name() + " " + i.outcome()))
                    .as(one.answer.key())
                    .containsExactlyElementsOf(shipped.items().stream()
                            .map(i -> i.name() + " " + i.outcome())
                            .toList());
        });
    }

    /** What is worth a look, in the demo's own trials. */
    @Test(dependsOnMethods = "whatTheDemoShipsComesOutAgain")
    public void outcomesTeach() {
        Map<String, TrialOutcome> outcomes = new TreeMap<>();
        tried().forEach(t ->
                outcomes.put(t.answer.key(), read(t.file()).summary().outcome()));
        assertThat(outcomes)
                .as("reads right and fails a test")
                .containsEntry("refactor-light-label-exact-brindle", TrialOutcome.FAILED_TESTS)
                .as("passes and is ugly")
                .containsEntry("refactor-light-label-brindle", TrialOutcome.PASSED)
                .as("leaves wrong rows")
                .containsEntry("explain-battery-report-tansy", TrialOutcome.WRONG_OUTPUT)
                .as("does not compile for a missing import")
                .containsEntry("debug-drift-alarm-marram", TrialOutcome.DID_NOT_COMPILE)
                .as("shows no code")
                .containsEntry("debug-command-retry-tansy", TrialOutcome.DID_NOT_APPLY);
    }

    /** A repair of one line, and others of few. */
    private record Repaired(SortedMap<String, String> files, List<FileChange> changes, TrialResult result) {}

    @Test(dependsOnMethods = "whatTheDemoShipsComesOutAgain")
    public void repairsOfTheDemoPass() throws Exception {
        StringBuilder table = new StringBuilder("answer,number,rater,lines,made_at,file\n");
        for (Tried one : tried()) {
            for (Change change : CHANGES) {
                if (change.answer.equals(one.answer.key())) {
                    Repaired repaired = repaired(one, change);
                    assertThat(repaired.result.summary().outcome())
                            .as(change.answer + "\n" + repaired.result.log())
                            .isEqualTo(TrialOutcome.PASSED);
                    String path = "repairs/" + change.answer + "-1.json";
                    table.append("%s,1,%s,%d,2026-03-10T15:20:00Z,%s\n"
                            .formatted(change.answer, change.rater, RepairedCode.lines(repaired.changes), path));
                    writeIf(path, JSON.writerWithDefaultPrettyPrinter().writeValueAsString(repaired) + "\n");
                }
            }
        }
        writeIf("repairs.csv", table.toString());
        assertThat(Files.readString(DEMO.resolve("repairs.csv"))).isEqualTo(table.toString());
    }

    private Repaired repaired(Tried one, Change change) throws TrialRunner.Stopped {
        Map<String, String> before = runner.repairable(one.check, one.prompt.startingCode(), one.answer.textUpTo(0));
        SortedMap<String, String> files = new TreeMap<>();
        before.forEach((path, text) -> {
            String after = text.replaceAll(change.before, change.after);
            if (!after.equals(text)) {
                files.put(path, after);
            }
        });
        RepairedCode repaired = RepairedCode.of(before, t -> t, files);
        TrialResult result = runner.repaired(
                        one.check,
                        one.prompt.startingCode(),
                        one.answer.textUpTo(0),
                        repaired.files(),
                        new Sandbox.Stop())
                .result();
        return new Repaired(repaired.files(), repaired.changes(before), result);
    }

    private static TrialResult read(Path file) {
        try {
            return JSON.readValue(Files.readString(file), TrialResult.class);
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    private static void writeIf(String path, String text) throws IOException {
        if (WRITES) {
            Files.createDirectories(DEMO.resolve(path).getParent());
            Files.writeString(DEMO.resolve(path), text);
        }
    }

    private static void write(Map<Tried, TrialResult> results) throws IOException {
        StringBuilder table = new StringBuilder("answer,turn,repetition,ended_at,file\n");
        int minute = 0;
        List<Map.Entry<Tried, TrialResult>> sorted = results.entrySet().stream()
                .sorted(Comparator.comparing(e -> e.getKey().answer.key()))
                .toList();
        for (Map.Entry<Tried, TrialResult> one : sorted) {
            String path = DEMO.relativize(one.getKey().file()).toString();
            table.append("%s,0,1,2026-03-05T09:%02d:00Z,%s\n"
                    .formatted(one.getKey().answer.key(), minute++, path));
            writeIf(path, JSON.writerWithDefaultPrettyPrinter().writeValueAsString(one.getValue()) + "\n");
        }
        writeIf("trials.csv", table.toString());
    }
}
