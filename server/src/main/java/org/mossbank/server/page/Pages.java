package org.mossbank.server.page;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import org.mossbank.core.page.PageEnd;
import org.mossbank.core.page.PageSight;
import org.mossbank.core.page.PageStep;
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
    private static final int MOST_RESULT_BYTES = 1 << 20;
    private static final int MOST_PICTURE_BYTES = 4 << 20;
    private static final int MOST_PIXELS_A_SIDE = 4_000;
    private static final int MOST_TEXT = 4_000;
    private static final JsonMapper JSON = JsonMapper.shared();

    private final Sandbox sandbox;

    Pages(Sandbox sandbox) {
        this.sandbox = sandbox;
    }

    /** @param width in CSS pixels, which are those of its pictures */
    public record Size(int width, int height) {}

    /**
     * What was seen.
     *
     * @param ends     one a size, in their order; fewer if the browser was ended
     * @param pictures after each step that was come to
     * @param fault    why nothing more was seen, in words; empty if all was
     */
    public record Seen(List<PageEnd> ends, List<Picture> pictures, String fault) {
        public Seen {
            ends = List.copyOf(ends);
            pictures = List.copyOf(pictures);
        }
    }

    /** A picture as it was drawn anew, so that nothing but pixels comes out of the sandbox. */
    public static final class Picture {
        private final Size size;
        private final int step;
        private final String text;
        private final byte[] png;

        Picture(Size size, int step, String text, byte[] png) {
            this.size = size;
            this.step = step;
            this.text = text;
            this.png = png;
        }

        public Size size() {
            return size;
        }

        /** From 0. */
        public int step() {
            return step;
        }

        /** What stood on the page, so that it can be told whether it names somebody. */
        public String text() {
            return text;
        }

        public byte[] png() {
            return png.clone();
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

    /** @param files of the page, built */
    public Seen look(WorkFiles files, List<Size> sizes, List<PageStep> steps, Sandbox.Stop stop) {
        WorkFiles all = files.with(Map.of(FOLDER + "page.mjs", driver(), FOLDER + "plan.json", plan(sizes, steps)));
        SandboxResult result =
                sandbox.run(new SandboxJob(all, "node " + FOLDER + "page.mjs", "", tools(), LIMITS), stop);
        return seen(result, sizes);
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

    private static String plan(List<Size> sizes, List<PageStep> steps) {
        List<Map<String, Object>> all = new ArrayList<>();
        for (PageStep step : steps) {
            Map<String, Object> one = new LinkedHashMap<>();
            one.put("action", step.action());
            one.put("role", step.role());
            one.put("name", step.name());
            one.put("text", step.text());
            one.put("sights", step.sights().stream().map(Pages::sight).toList());
            all.add(one);
        }
        return JSON.writeValueAsString(Map.of("sizes", sizes, "steps", all));
    }

    private static Map<String, Object> sight(PageSight sight) {
        return Map.of(
                "how", sight.how(),
                "role", sight.role(),
                "name", sight.name(),
                "text", sight.text(),
                "absent", sight.absent());
    }

    private static Seen seen(SandboxResult result, List<Size> sizes) {
        Optional<JsonNode> came = result.files()
                .read(FOLDER + "result.json")
                .filter(b -> b.length <= MOST_RESULT_BYTES)
                .flatMap(Pages::parsed);
        if (came.isEmpty()) {
            return new Seen(List.of(), List.of(), fault(result));
        }
        List<PageEnd> ends = new ArrayList<>();
        List<Picture> pictures = new ArrayList<>();
        for (int i = 0; i < sizes.size(); i++) {
            Size size = sizes.get(i);
            List<PageEnd.StepEnd> steps = new ArrayList<>();
            for (JsonNode step : came.get().path("sizes").path(i).path("steps")) {
                int number = steps.size();
                steps.add(step(step));
                result.files()
                        .read(FOLDER + i + "-" + number + ".png")
                        .flatMap(Pages::drawnAnew)
                        .ifPresent(png -> pictures.add(
                                new Picture(size, number, cut(step.path("text").asString("")), png)));
            }
            ends.add(new PageEnd(size.width(), size.height(), steps));
        }
        return new Seen(ends, pictures, "");
    }

    private static String fault(SandboxResult result) {
        return switch (result.ending()) {
            case TIMED_OUT -> "the browser was ended, as it took too long";
            case OUT_OF_MEMORY -> "the browser was ended, as it took too much memory";
            case WROTE_TOO_MUCH -> "the browser was ended, as it wrote too much";
            case STOPPED -> "somebody stopped it";
            case BY_ITSELF, BROKE_ITS_BOX -> "the browser ended before it had seen anything";
        };
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

    private static String cut(String text) {
        String plain = text.replace('\0', '\uFFFD');
        return plain.length() <= MOST_TEXT ? plain : plain.substring(0, MOST_TEXT);
    }

    /** Its size is read before its pixels are: a few bytes may claim to be gigabytes. */
    private static Optional<byte[]> drawnAnew(byte[] file) {
        if (file.length > MOST_PICTURE_BYTES) {
            return Optional.empty();
        }
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(file))) {
            Iterator<ImageReader> readers = ImageIO.getImageReadersByFormatName("png");
            ImageReader reader = readers.next();
            try {
                reader.setInput(in, true, true);
                if (reader.getWidth(0) > MOST_PIXELS_A_SIDE || reader.getHeight(0) > MOST_PIXELS_A_SIDE) {
                    return Optional.empty();
                }
                BufferedImage image = reader.read(0);
                ByteArrayOutputStream out = new ByteArrayOutputStream();
                ImageIO.write(image, "png", out);
                return Optional.of(out.toByteArray());
            } finally {
                reader.dispose();
            }
        } catch (IOException | RuntimeException e) {
            return Optional.empty();
        }
    }
}
