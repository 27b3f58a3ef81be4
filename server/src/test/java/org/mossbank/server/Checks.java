package org.mossbank.server;

import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Checks of prompts as a client sends them. */
public final class Checks {
    private Checks() {}

    /** By the shell, with one run that must end with 0. */
    public static Map<String, Object> shell(String run) {
        Map<String, Object> check = new HashMap<>();
        check.put("toolchain", "shell");
        check.put("files", List.of());
        check.put("build", "");
        check.put("run", run);
        check.put("runs", List.of(oneRun("whole", Map.of())));
        check.put("withoutCode", "FAILS");
        check.put("limits", Map.of("seconds", 10, "memoryMb", 256, "processes", 64, "outputKb", 64));
        return check;
    }

    /** One run, with what is asked of it beside its end. */
    public static Map<String, Object> oneRun(String name, Map<String, Object> more) {
        Map<String, Object> run = new HashMap<>(Map.of(
                "name",
                name,
                "arguments",
                List.of(),
                "input",
                "",
                "before",
                List.of(),
                "status",
                0,
                "after",
                List.of(),
                "elsewhere",
                "ALLOWED"));
        run.putAll(more);
        return run;
    }

    /** Output as it must be to the character. */
    public static Map<String, Object> exactly(String text) {
        return Map.of("match", "EXACT", "text", text, "tolerance", 0);
    }
}
