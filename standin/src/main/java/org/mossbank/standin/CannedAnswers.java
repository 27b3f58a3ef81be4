package org.mossbank.standin;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** Answers to the demo's prompts, found by the request that a prompt begins with. */
final class CannedAnswers {
    private static final String UNKNOWN =
            "I do not know this code. Name the file and the line, and say what you expected and what came instead.\n";

    /** A prompt's text, and where its answers are. */
    private record Prompt(String key, String request, Path folder) {}

    private final List<Prompt> prompts = new ArrayList<>();

    /** @param studies folders of studies as open files, each with prompts and answers; what it says to a prompt that nobody was asked yet stands in canned/ */
    static CannedAnswers of(List<Path> studies) throws IOException {
        CannedAnswers canned = new CannedAnswers();
        for (Path study : studies) {
            try (Stream<Path> files = Files.list(study.resolve("prompts"))) {
                for (Path file : files.sorted().toList()) {
                    String key = file.getFileName().toString().replaceAll("\\.md$", "");
                    canned.prompts.add(new Prompt(key, Files.readString(file).strip(), study));
                }
            }
        }
        // A prompt's text may begin with another's.
        canned.prompts.sort(Comparator.comparing((Prompt p) -> -p.request().length()));
        return canned;
    }

    /**
     * What a service says to a text.
     *
     * @param service the name of a candidate
     * @param attempt from 1; later ones differ from the first
     */
    String to(String text, String service, int attempt) throws IOException {
        Optional<Prompt> prompt =
                prompts.stream().filter(p -> text.contains(p.request())).findFirst();
        if (prompt.isEmpty()) {
            return UNKNOWN;
        }
        for (String name : List.of(service + "-" + attempt, service)) {
            for (String folder : List.of("canned", "answers")) {
                Path file = prompt.get()
                        .folder()
                        .resolve(folder)
                        .resolve(prompt.get().key() + "-" + name + ".md");
                if (Files.exists(file)) {
                    return fresh(Files.readString(file), name.equals(service) ? attempt : 1);
                }
            }
        }
        return fresh("The code does what its names say. " + UNKNOWN, attempt);
    }

    /** Another attempt says the same in a little other way. */
    private static String fresh(String answer, int attempt) {
        if (attempt == 1) {
            return answer;
        }
        return (attempt % 2 == 0 ? "Looking at it again:\n\n" : "In short:\n\n") + answer;
    }
}
