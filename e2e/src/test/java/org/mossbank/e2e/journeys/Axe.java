package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.mossbank.e2e.Browser;

/** Looks with axe-core for what keeps somebody from using a page; no violation is let pass. */
final class Axe {
    private Axe() {}

    /** In both themes; the browser is left in the dark one. */
    static void scan(Browser browser, Path root, String view) {
        browser.awaitPage();
        inLight(browser, root, view);
        // What is not a matter of colours is the same in both themes.
        scan(browser, root, view, "dark", ", {runOnly: ['color-contrast', 'link-in-text-block']}");
    }

    static void inLight(Browser browser, Path root, String view) {
        scan(browser, root, view, "light", "");
    }

    private static void scan(Browser browser, Path root, String view, String theme, String options) {
        browser.setTheme(theme);
        // A colour on its way from one theme to the other is neither.
        browser.driver()
                .executeAsyncScript(
                        "Promise.all(document.getAnimations().map(a => a.finished)).then(arguments[arguments.length - 1])");
        browser.driver().executeScript(script(root));
        Object result = browser.driver().executeAsyncScript("""
                        const done = arguments[arguments.length - 1];
                        // Behind a dialog nothing is read, and the scanner loses its way in what is scrolled there.
                        axe.run(document.querySelector('[role=dialog]') ?? document%s).then(
                            r => done({
                                passes: r.passes.flatMap(p => p.nodes).length,
                                violations: r.violations.map(v => v.id + ": " + v.nodes.slice(0, 3).map(n => n.html).join("\\n")),
                            }),
                            e => done({passes: 0, violations: [String(e)]}),
                        );
                        """.formatted(options));
        Map<?, ?> found = (Map<?, ?>) result;
        assertThat((List<?>) found.get("violations")).as(view + " in " + theme).isEmpty();
        assertThat((Long) found.get("passes")).isGreaterThan(5);
    }

    private static String script(Path root) {
        try {
            return Files.readString(root.resolve("web/node_modules/axe-core/axe.min.js"));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
