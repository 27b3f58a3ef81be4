package org.mossbank.server.evidence;

import static org.mossbank.server.Checks.exactly;
import static org.mossbank.server.Checks.oneRun;
import static org.mossbank.server.Checks.shell;

import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import org.mossbank.server.ServerTest;
import tools.jackson.databind.json.JsonMapper;

/**
 * The hand-written study with a check of its first prompt and a trial of both answers to it: osier's prints what it must not, and names
 * itself; teasel's passes.
 */
final class TriedStudy {
    private static final JsonMapper JSON = JsonMapper.shared();
    private static final String OSIER = "read depth\necho \"Osier says $depth\"\n";
    private static final String TEASEL = "read depth\necho \"depth $depth\"\n";

    private TriedStudy() {}

    /** By the shell: a depth that is read must be written. */
    static Map<String, Object> check() {
        Map<String, Object> check = new HashMap<>(shell("sh ./answer.sh"));
        check.put("loose", Map.of("path", "answer.sh", "before", "", "after", "", "importsFirst", false));
        check.put("runs", List.of(oneRun("four fathoms", Map.of("input", "4\n", "output", exactly("depth 4\n")))));
        return check;
    }

    private static Map<String, Object> result(String outcome, int passed, String came) {
        Map<String, Object> item = Map.of(
                "sort",
                "RUN",
                "name",
                "four fathoms",
                "outcome",
                outcome,
                "expected",
                passed == 1 ? "" : "depth 4\n",
                "came",
                came,
                "why",
                passed == 1 ? "" : "line 1 is another");
        return Map.of(
                "summary",
                Map.of("outcome", outcome, "passed", passed, "asked", 1),
                "items",
                List.of(item),
                "messages",
                List.of(),
                "log",
                "== four fathoms (3 ms, ended with 0)\n" + came,
                "millis",
                3,
                "memoryKb",
                900);
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private static String answer(String program) {
        return "It reads a depth:\n\n```sh\n" + program + "```\n";
    }

    /** @param shown when raters see trials, as a file has it */
    static Consumer<Map<String, byte[]>> shown(String shown) {
        Consumer<Map<String, byte[]>> tables = ServerTest.withTable(
                        "checks",
                        "prompt,file,changed_at,changed_by\nmean-level,checks/mean-level.json,2026-03-01T09:00:00Z,Orla\n")
                .andThen(ServerTest.withTable(
                        "trials",
                        "answer,turn,repetition,ended_at,file\n"
                                + "mean-level-osier,0,1,2026-03-02T09:00:00Z,trials/osier.json\n"
                                + "mean-level-teasel,0,1,2026-03-02T09:00:01Z,trials/teasel.json\n"));
        return tables.andThen(files -> {
                    files.put("checks/mean-level.json", JSON.writeValueAsBytes(check()));
                    files.put("trials/osier.json", JSON.writeValueAsBytes(result("WRONG_OUTPUT", 0, "Osier says 4\n")));
                    files.put("trials/teasel.json", JSON.writeValueAsBytes(result("PASSED", 1, "")));
                    files.put("text/mean-level-osier.md", bytes(answer(OSIER)));
                    files.put("text/mean-level-teasel.md", bytes(answer(TEASEL)));
                })
                .andThen(edited("study.json", s -> s.replaceFirst("\\{", "{\n  \"trialsShown\": \"" + shown + "\",")));
    }

    static Consumer<Map<String, byte[]>> edited(String path, UnaryOperator<String> change) {
        return files -> files.put(path, bytes(change.apply(new String(files.get(path), StandardCharsets.UTF_8))));
    }
}
