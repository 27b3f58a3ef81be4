package org.mossbank.server.prompt;

import jakarta.validation.Valid;
import jakarta.validation.constraints.AssertTrue;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * All that a prompt says; what a lead writes, the bank keeps and an archive holds.
 *
 * @param language        programming language and version; may be empty
 * @param request         Markdown
 * @param areas           such as back end, front end, database
 * @param size            how much of the code the task is about
 * @param constraints     what an answer must keep to, one thing each
 * @param startingFiles   the code that the prompt is about
 * @param origin          where that code came from
 * @param keyPoints       what a right answer contains, or does not
 * @param referenceAnswer for the lead's eyes, Markdown; may be empty
 * @param followUps       what every candidate is told next if the first answer does not do, in order
 */
public record PromptContent(
        @NotNull @Size(max = 200) String title,
        @NotNull @Size(max = 80) String language,
        @NotNull @Size(max = LONGEST_TEXT) String request,
        @NotNull @Size(max = MOST_AREAS) List<@NotBlank @Size(max = LONGEST_AREA) String> areas,
        @Nullable TaskSize size,
        @NotNull @Size(max = 40) List<@NotBlank @Size(max = 1000) String> constraints,
        @NotNull @Size(max = 400) List<@Valid @NotNull StartingFile> startingFiles,
        @Nullable @Valid Origin origin,
        @NotNull @Size(max = 60) List<@Valid @NotNull KeyPoint> keyPoints,
        @NotNull @Size(max = LONGEST_TEXT) String referenceAnswer,
        @NotNull @Size(max = 20) List<@NotBlank @Size(max = 20000) String> followUps) {
    static final int LONGEST_TEXT = 1 << 20;
    static final int MOST_AREAS = 20;
    static final int LONGEST_AREA = 60;

    public PromptContent {
        areas = List.copyOf(areas);
        constraints = List.copyOf(constraints);
        startingFiles = List.copyOf(startingFiles);
        keyPoints = List.copyOf(keyPoints);
        followUps = List.copyOf(followUps);
    }

    /** What candidates get of it. */
    public Asked asked() {
        return new Asked(request, constraints, startingFiles);
    }

    /** Text by path. */
    public Map<String, String> startingCode() {
        return asked().startingCode();
    }

    @AssertTrue(message = "starting files must have different paths")
    boolean isEachPathOnce() {
        return startingFiles.stream().map(StartingFile::path).distinct().count() == startingFiles.size();
    }

    /** How much of the code a task is about. */
    public enum TaskSize {
        /** One place. */
        SMALL,
        /** One file, or a few places. */
        MEDIUM,
        /** Several files. */
        LARGE
    }

    /**
     * What candidates get of a prompt.
     *
     * @param constraints   what an answer must keep to
     * @param startingFiles the code that it is about
     */
    public record Asked(String request, List<String> constraints, List<StartingFile> startingFiles) {
        /** Text by path. */
        public Map<String, String> startingCode() {
            Map<String, String> code = new LinkedHashMap<>();
            startingFiles.forEach(f -> code.put(f.path(), f.text()));
            return code;
        }
    }

    /** A git repository and a commit in it. */
    public record Origin(
            @NotBlank @Size(max = 1000) String repository,
            @NotBlank @Size(max = 64) String commit) {}

    static PromptContent blank(String title) {
        return new PromptContent(title, "", "", List.of(), null, List.of(), List.of(), null, List.of(), "", List.of());
    }
}
