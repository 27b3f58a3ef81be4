package org.mossbank.server.page;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.mossbank.core.page.PageEnd;
import org.mossbank.core.trial.CheckItem;
import org.mossbank.core.trial.TrialOutcome;
import org.mossbank.server.sandbox.Sandbox;
import org.mossbank.server.sandbox.SandboxJob;
import org.mossbank.server.sandbox.SandboxLimits;
import org.mossbank.server.sandbox.SandboxResult;
import org.mossbank.server.sandbox.SandboxTools;
import org.mossbank.server.sandbox.WorkFiles;
import org.springframework.stereotype.Component;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Opens pages in a browser inside the sandbox, which has no network, and takes a picture after each step. The browser's own sandbox
 * cannot nest in it, as it has no namespaces left to give: the outer one holds alone. What comes out is judged and drawn anew here.
 */
@Component
public class Pages {
    private static final String FOLDER = ".page/";
    private static final List<String> PROGRAMS = List.of("chromium", "chromedriver", "node");
    /** Of the machine's settings, without which the browser does not begin or finds no letters. */
    private static final List<String> SETTINGS = List.of("/etc/fonts", "/etc/chromium.d");

    private static final SandboxLimits LIMITS = new SandboxLimits(Duration.ofSeconds(90), 1024, 256, 64 << 10, 64);
    private static final int MOST_RESULT_BYTES = 2 << 20;
    private static final int MOST_TEXT = 20_000;
    /** Of all pictures of one look. */
    private static final int MOST_PICTURE_BYTES = 6 << 20;

    private static final JsonMapper JSON = JsonMapper.shared();

    private final Sandbox sandbox;

    Pages(Sandbox sandbox) {
        this.sandbox = sandbox;
    }

    /**
     * What was seen.
     *
     * @param ends     one a size, in their order; fewer if the browser was ended
     * @param pictures after each step that was come to, size by size
     * @param run      of the browser as a program
     */
    public record Seen(List<PageEnd> ends, List<Picture> pictures, SandboxResult run) {
        public Seen {
            ends = List.copyOf(ends);
            pictures = List.copyOf(pictures);
        }

        /** One item a step at each size; of a browser that was ended, why. */
        public List<CheckItem> judged(PageContent page) {
            List<CheckItem> items = new ArrayList<>();
            for (int i = 0; i < page.sizes().size(); i++) {
                PageContent.PageSize size = page.sizes().get(i);
                PageEnd end = i < ends.size() ? ends.get(i) : new PageEnd(size.width(), size.height(), List.of());
                items.addAll(end.judge(page.asked(), page.errorsAllowed()));
            }
            fault().ifPresent(items::add);
            return items;
        }

        private Optional<CheckItem> fault() {
            return ends.isEmpty()
                    ? Optional.of(CheckItem.ended(
                            CheckItem.Sort.PAGE,
                            "page",
                            switch (run.ending()) {
                                case TIMED_OUT -> TrialOutcome.TIMED_OUT;
                                case OUT_OF_MEMORY -> TrialOutcome.OUT_OF_MEMORY;
                                case WROTE_TOO_MUCH, BY_ITSELF, BROKE_ITS_BOX, STOPPED -> TrialOutcome.CRASHED;
                            },
                            why()))
                    : Optional.empty();
        }

        private String why() {
            return switch (run.ending()) {
                case TIMED_OUT -> "the browser was ended, as it took too long";
                case OUT_OF_MEMORY -> "the browser was ended, as it took too much memory";
                case WROTE_TOO_MUCH -> "the browser was ended, as it wrote too much";
                case BY_ITSELF, BROKE_ITS_BOX, STOPPED -> "the browser ended before it had seen anything";
            };
        }
    }

    /** Why no page can be opened here, in words; empty if one can. */
    public Optional<String> missing() {
        return sandbox.missing()
                .or(() -> PROGRAMS.stream()
                        .filter(p -> !Files.isExecutable(Path.of("/usr/bin", p)))
                        .findFirst()
                        .map(p -> p + " is not installed"));
    }

    /**
     * Goes through a page at each size.
     *
     * @param files of the page, built
     */
    public Seen look(WorkFiles files, PageContent page, Sandbox.Stop stop) {
        // What a build left where the browser's findings are to be would be taken for them.
        List<String> forged =
                files.paths().stream().filter(p -> p.startsWith(FOLDER)).toList();
        WorkFiles all = files.without(forged)
                .with(Map.of(FOLDER + "page.mjs", driver(), FOLDER + "plan.json", JSON.writeValueAsString(page)));
        SandboxResult result =
                sandbox.run(new SandboxJob(all, "node " + FOLDER + "page.mjs", "", tools(), LIMITS), stop);
        return seen(result, page);
    }

    private static String driver() {
        try (InputStream in = Pages.class.getResourceAsStream("page.mjs")) {
            return new String(Objects.requireNonNull(in).readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static SandboxTools tools() {
        List<SandboxTools.Mount> mounts = SETTINGS.stream()
                .filter(s -> Files.isDirectory(Path.of(s)))
                .map(s -> new SandboxTools.Mount(Path.of(s), s))
                .toList();
        return new SandboxTools(mounts, Map.of("HOME", "/tmp"));
    }

    private static Seen seen(SandboxResult result, PageContent page) {
        Optional<JsonNode> came = result.files()
                .read(FOLDER + "result.json")
                .filter(b -> b.length <= MOST_RESULT_BYTES)
                .flatMap(Pages::parsed);
        if (came.isEmpty()) {
            return new Seen(List.of(), List.of(), result);
        }
        List<PageEnd> ends = new ArrayList<>();
        List<Picture> pictures = new ArrayList<>();
        for (int i = 0; i < page.sizes().size(); i++) {
            PageContent.PageSize size = page.sizes().get(i);
            List<PageEnd.StepEnd> steps = new ArrayList<>();
            for (JsonNode step : came.get().path("sizes").path(i).path("steps")) {
                int number = steps.size();
                if (number == page.steps().size()) {
                    break;
                }
                steps.add(step(step));
                String text = step.path("text").asString("");
                PictureOfPage about = new PictureOfPage(
                        size.width(),
                        size.height(),
                        number,
                        cut(text),
                        step.path("unread").asBoolean(true) || text.length() > MOST_TEXT);
                result.files()
                        .read(FOLDER + i + "-" + number + ".png")
                        .flatMap(file -> Picture.drawnAnew(about, file))
                        .filter(p -> p.bytes()
                                        + pictures.stream()
                                                .mapToInt(Picture::bytes)
                                                .sum()
                                <= MOST_PICTURE_BYTES)
                        .ifPresent(pictures::add);
            }
            ends.add(new PageEnd(size.width(), size.height(), steps));
        }
        return new Seen(ends, pictures, result);
    }

    private static Optional<JsonNode> parsed(byte[] json) {
        try {
            return Optional.of(JSON.readTree(json));
        } catch (JacksonException e) {
            return Optional.empty();
        }
    }

    private static PageEnd.StepEnd step(JsonNode step) {
        JsonNode focus = step.path("focus");
        return new PageEnd.StepEnd(
                cut(step.path("fault").asString("")),
                step.path("sights").valueStream().map(s -> s.asBoolean(false)).toList(),
                cut(focus.path("role").asString("") + " “" + focus.path("name").asString("") + "”"),
                step.path("errors").valueStream().map(e -> cut(e.asString(""))).toList());
    }

    /** Half a character becomes a mark: the database holds none. */
    private static String cut(String text) {
        String plain =
                new String(text.getBytes(StandardCharsets.UTF_8), StandardCharsets.UTF_8).replace('\0', '\uFFFD');
        return plain.length() <= MOST_TEXT ? plain : plain.substring(0, MOST_TEXT);
    }
}
