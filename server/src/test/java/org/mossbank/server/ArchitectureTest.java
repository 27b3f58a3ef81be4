package org.mossbank.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.modulith.core.ApplicationModules;
import org.testng.annotations.Test;

/** The drawings in {@code docs/architecture.md} are made from what really depends on what. */
public class ArchitectureTest {
    private static final Path PAGE = ServerTest.ROOT.resolve("docs/architecture.md");
    private static final Path FEATURES = ServerTest.ROOT.resolve("web/src/features");
    private static final Pattern IMPORT = Pattern.compile("from \"(?:\\.\\./)+(\\w+)(?:/index)?\"");

    private static SortedMap<String, SortedSet<String>> modules() {
        SortedMap<String, SortedSet<String>> uses = new TreeMap<>();
        ApplicationModules all = ApplicationModules.of(MossbankApplication.class);
        all.stream()
                .forEach(m -> uses.put(
                        m.getIdentifier().toString(),
                        m.getDirectDependencies(all)
                                .uniqueModules()
                                .map(d -> d.getIdentifier().toString())
                                .collect(Collectors.toCollection(TreeSet::new))));
        return uses;
    }

    private static SortedMap<String, SortedSet<String>> features() throws IOException {
        SortedMap<String, SortedSet<String>> uses = new TreeMap<>();
        try (Stream<Path> folders = Files.list(FEATURES)) {
            for (Path folder : folders.toList()) {
                uses.put(folder.getFileName().toString(), new TreeSet<>());
            }
        }
        for (Map.Entry<String, SortedSet<String>> feature : uses.entrySet()) {
            try (Stream<Path> files = Files.walk(FEATURES.resolve(feature.getKey()))) {
                for (Path file : files.filter(Files::isRegularFile).toList()) {
                    IMPORT.matcher(Files.readString(file))
                            .results()
                            .map(m -> m.group(1))
                            .filter(name -> uses.containsKey(name) && !name.equals(feature.getKey()))
                            .forEach(feature.getValue()::add);
                }
            }
        }
        return uses;
    }

    /** What uses nothing stands at the bottom; everything else one floor above the highest that it uses. */
    private static int floor(String name, Map<String, SortedSet<String>> uses, List<String> above) {
        assertThat(above).as("a circle").doesNotContain(name);
        List<String> path = Stream.concat(above.stream(), Stream.of(name)).toList();
        return 1
                + uses.get(name).stream()
                        .mapToInt(used -> floor(used, uses, path))
                        .max()
                        .orElse(0);
    }

    /** Floor by floor from the top, each thing with what it uses. */
    private static String inFloors(SortedMap<String, SortedSet<String>> uses) {
        SortedMap<Integer, List<String>> floors = uses.keySet().stream()
                .collect(Collectors.groupingBy(
                        name -> -floor(name, uses, List.of()), TreeMap::new, Collectors.toList()));
        StringBuilder drawing = new StringBuilder();
        floors.forEach((floor, names) -> names.forEach(name -> drawing.append("%2d  %-15s %s%n"
                        .formatted(-floor, name, String.join(" ", uses.get(name)))
                        .stripTrailing())
                .append('\n')));
        return drawing.toString();
    }

    private static String renewed(String page, String drawing, String now) {
        String begin = "<!-- drawn: " + drawing + " -->\n```\n";
        int from = page.indexOf(begin) + begin.length();
        return page.substring(0, from) + now + page.substring(page.indexOf("```", from));
    }

    /** To renew the page: {@code -Dmossbank.architecture.write=true}. */
    @Test
    public void thePageShowsWhatIs() throws IOException {
        String page = Files.readString(PAGE);
        String now = renewed(renewed(page, "modules", inFloors(modules())), "features", inFloors(features()));
        if (Boolean.getBoolean("mossbank.architecture.write")) {
            Files.writeString(PAGE, now);
        }
        assertThat(Files.readString(PAGE)).isEqualTo(now);
    }
}
