package org.mossbank.server.trial;

import com.fasterxml.jackson.annotation.JsonInclude;
import jakarta.validation.Valid;
import jakarta.validation.constraints.AssertTrue;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.trial.CheckRun;
import org.mossbank.core.trial.CheckRun.Elsewhere;
import org.mossbank.core.trial.ExpectedRows.Order;
import org.mossbank.core.trial.ExpectedText;
import org.mossbank.core.trial.ExpectedText.Match;
import org.mossbank.core.trial.LooseCode;
import org.mossbank.core.trial.SafePath;
import org.mossbank.core.trial.TestRun;
import org.mossbank.core.trial.TestRun.Format;
import org.mossbank.server.page.PageContent;
import org.mossbank.server.sandbox.SandboxLimits;

/**
 * What a prompt asks of an answer's code.
 *
 * @param toolchain by its key
 * @param loose     where code goes that belongs to no file; absent if there is no place for it
 * @param files     tests, data, a driver: answers and candidates never see them
 * @param build     shell command; empty if nothing is built
 * @param run       shell command that each run begins with
 * @param runs      what is run, in order
 * @param tests     a test command; absent if there is none
 * @param limits    what each step may use
 * @param withoutCode what becomes of an answer that shows no code
 * @param repository  that answers change; absent where the starting code is all there is
 * @param page        what is done and seen on a page that is built; absent where there is none
 */
public record CheckContent(
        @NotBlank @Size(max = 40) String toolchain,
        @Nullable @Valid LooseRule loose,
        @NotNull @Size(max = 100) List<@Valid @NotNull CheckFile> files,
        @NotNull @Size(max = LONGEST_COMMAND) String build,
        @NotNull @Size(max = LONGEST_COMMAND) String run,
        @NotNull @Size(max = 40) List<@Valid @NotNull RunOfCheck> runs,
        @Nullable @Valid TestsOfCheck tests,
        @NotNull @Valid CheckLimits limits,
        @NotNull WithoutCode withoutCode,

        @JsonInclude(JsonInclude.Include.NON_NULL) @Nullable @Valid
        RepositoryOfCheck repository,

        @JsonInclude(JsonInclude.Include.NON_NULL) @Nullable @Valid
        PageContent page) {
    static final int LONGEST_COMMAND = 2_000;
    static final int LONGEST_TEXT = 200_000;
    static final int LONGEST_PATH = 300;

    public CheckContent {
        files = List.copyOf(files);
        runs = List.copyOf(runs);
        // Checks that were written before it could be chosen.
        withoutCode = Objects.requireNonNullElse(withoutCode, WithoutCode.FAILS);
    }

    /**
     * A whole repository that answers change; its tests are run before an answer and after it.
     *
     * @param repository path below a folder that the administrator allows, or absolute
     * @param commit     full id
     * @param wanted     names of tests that must pass afterwards; none for all of them
     */
    public record RepositoryOfCheck(
            @NotBlank @Size(max = 1000) String repository,

            @NotBlank
            @Pattern(regexp = "[0-9a-f]{40}([0-9a-f]{24})?", message = "must be the full id of a commit")
            @Size(max = 64)
            String commit,

            @NotNull @Size(max = 400) List<@NotBlank @Size(max = 500) String> wanted) {
        public RepositoryOfCheck {
            wanted = List.copyOf(wanted);
        }
    }

    /** What becomes of an answer without any block of code. */
    public enum WithoutCode {
        /** It was to bring some. */
        FAILS,
        /** It is not tried, as the prompt asks for words. */
        LEFT_OUT
    }

    /**
     * Where loose code goes.
     *
     * @param path         of the file; a star in it stands for the first type that the code declares
     * @param before       what stands above code that declares no type
     * @param after        what stands below it
     * @param importsFirst whether lines that import are lifted to the top
     */
    public record LooseRule(
            @NotBlank @Size(max = LONGEST_PATH) String path,
            @NotNull @Size(max = LONGEST_TEXT) String before,
            @NotNull @Size(max = LONGEST_TEXT) String after,
            boolean importsFirst) {
        @AssertTrue(message = "path must stay below its folder, with at most one star in it")
        boolean isPathBelow() {
            return path == null || SafePath.is(path.replaceFirst("\\*", "x"));
        }

        LooseCode rule() {
            return new LooseCode(path, before, after, importsFirst);
        }
    }

    /** @param path below the work folder */
    public record CheckFile(
            @NotBlank @Size(max = LONGEST_PATH) String path,
            @NotNull @Size(max = LONGEST_TEXT) String text) {
        @AssertTrue(message = "path must stay below its folder")
        boolean isPathBelow() {
            return path == null || SafePath.is(path);
        }
    }

    /**
     * A text that must come.
     *
     * @param match     how alike it must be
     * @param tolerance by how much a number may be off
     */
    public record TextAfter(
            @NotNull Match match,
            @NotNull @Size(max = LONGEST_TEXT) String text,
            @DecimalMin("0") @DecimalMax("1000000") double tolerance) {
        @AssertTrue(message = "text must be a regular expression")
        boolean isPattern() {
            if (match == null || text == null) {
                return true;
            }
            try {
                return expected() != null;
            } catch (IllegalArgumentException e) {
                return false;
            }
        }

        ExpectedText expected() {
            return new ExpectedText(match, text, tolerance);
        }
    }

    /** @param text what must stand in it; absent if the file must not be there */
    public record FileAfter(
            @NotBlank @Size(max = LONGEST_PATH) String path,
            @Nullable @Valid TextAfter text) {}

    /**
     * Rows that must be there afterwards.
     *
     * @param query in SQL
     * @param rows  comma-separated values with a line of names above
     * @param order whether they must come in this order
     */
    public record RowsAfter(
            @NotBlank @Size(max = LONGEST_TEXT) String query,
            @NotNull @Size(max = LONGEST_TEXT) String rows,
            @NotNull Order order) {}

    /**
     * One run of the program.
     *
     * @param name      for people
     * @param arguments after the command, each as it is
     * @param input     standard input
     * @param before    files that are laid there first
     * @param status    that it must end with
     * @param output    what it must write; absent if that does not matter
     * @param after     files as they must be afterwards
     * @param elsewhere whether it may write other files
     * @param rows      rows as they must be afterwards; absent if it has no database
     */
    public record RunOfCheck(
            @NotBlank @Size(max = 200) String name,
            @NotNull @Size(max = 40) List<@NotNull @Size(max = LONGEST_COMMAND) String> arguments,
            @NotNull @Size(max = LONGEST_TEXT) String input,
            @NotNull @Size(max = 40) List<@Valid @NotNull CheckFile> before,
            @Min(0) @Max(255) int status,
            @Nullable @Valid TextAfter output,
            @NotNull @Size(max = 40) List<@Valid @NotNull FileAfter> after,
            @NotNull Elsewhere elsewhere,
            @Nullable @Valid RowsAfter rows) {
        public RunOfCheck {
            arguments = List.copyOf(arguments);
            before = List.copyOf(before);
            after = List.copyOf(after);
        }

        CheckRun expected() {
            Map<String, ExpectedText> there = new LinkedHashMap<>();
            after.forEach(f -> Optional.ofNullable(f.text()).ifPresent(t -> there.put(f.path(), t.expected())));
            return new CheckRun(
                    name,
                    status,
                    Optional.ofNullable(output).map(TextAfter::expected),
                    there,
                    after.stream()
                            .filter(f -> f.text() == null)
                            .map(FileAfter::path)
                            .toList(),
                    elsewhere);
        }
    }

    /**
     * A test command, and where its reports are.
     *
     * @param reports the file, or the folder of such files; empty if the command writes the report itself
     */
    public record TestsOfCheck(
            @NotBlank @Size(max = LONGEST_COMMAND) String command,
            @NotNull Format format,
            @NotNull @Size(max = LONGEST_PATH) String reports) {
        TestRun expected() {
            return new TestRun(format, reports);
        }
    }

    /**
     * What each step may use.
     *
     * @param seconds  by the clock
     * @param memoryMb that all its processes hold together
     * @param outputKb of each of its outputs
     */
    public record CheckLimits(
            @Min(1) @Max(SandboxLimits.MOST_SECONDS) int seconds,
            @Min(64) @Max(SandboxLimits.MOST_MEMORY_MB) int memoryMb,
            @Min(8) @Max(SandboxLimits.MOST_PROCESSES) int processes,

            @Min(1) @Max(SandboxLimits.MOST_OUTPUT_BYTES / 1024)
            int outputKb) {
        SandboxLimits limits() {
            return new SandboxLimits(Duration.ofSeconds(seconds), memoryMb, processes, outputKb << 10, 64);
        }
    }

    // What is missing is refused by its own rule; a rule about more than one thing passes it over.

    @AssertTrue(message = "files must have different paths")
    boolean isEachPathOnce() {
        return files.stream().map(CheckFile::path).distinct().count() == files.size();
    }

    @AssertTrue(message = "only SQL has rows afterwards")
    boolean isWithRowsOnlyWhereThereAreAny() {
        return "sql".equals(toolchain) || runs.stream().allMatch(r -> r == null || r.rows() == null);
    }

    @AssertTrue(message = "of a repository its tests are run: say by which command")
    boolean isWithTestsOfItsRepository() {
        return repository == null || tests != null;
    }

    @AssertTrue(message = "a check must build, run, test or open something")
    boolean isAskingSomething() {
        return build == null
                || Stream.of(!build.isBlank(), !runs.isEmpty(), tests != null, page != null)
                        .anyMatch(asked -> asked);
    }

    static Map<String, String> texts(List<CheckFile> files) {
        Map<String, String> texts = new LinkedHashMap<>();
        files.forEach(f -> texts.put(f.path(), f.text()));
        return texts;
    }
}
