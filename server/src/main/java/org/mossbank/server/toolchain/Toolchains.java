package org.mossbank.server.toolchain;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.trial.LooseCode;
import org.mossbank.core.trial.TestRun;
import org.mossbank.server.sandbox.Sandbox;
import org.mossbank.server.sandbox.SandboxJob;
import org.mossbank.server.sandbox.SandboxLimits;
import org.mossbank.server.sandbox.SandboxResult;
import org.mossbank.server.sandbox.SandboxTools;
import org.mossbank.server.sandbox.WorkFiles;
import org.springframework.stereotype.Component;

/** The toolchains that were found on this machine, inside the sandbox: what is not there is not offered. */
@Component
public class Toolchains {
    private final List<Toolchain> known;
    private final Sandbox sandbox;
    private final TrialCache cache;
    private volatile @Nullable Map<String, Offered> found;
    private final AtomicBoolean looking = new AtomicBoolean();

    Toolchains(List<Toolchain> known, Sandbox sandbox, TrialCache cache) {
        this.cache = cache;
        this.known = known;
        this.sandbox = sandbox;
    }

    /**
     * A toolchain that is there.
     *
     * @param key       by which checks name it
     * @param version   as it says itself
     * @param prelude   shell lines before each command
     * @param build     what builds a work folder; empty where nothing is built
     * @param run       what runs a program
     * @param test      what runs tests; empty where there is none to propose
     * @param reports   where these leave their reports
     * @param languages of blocks of code that are meant for it
     */
    public record Offered(
            String key,
            String title,
            String version,
            String prelude,
            String build,
            String run,
            String test,
            TestRun reports,
            LooseCode loose,
            List<String> languages,
            SandboxTools tools) {}

    /** Why there are no trials, in words; empty if there are. */
    public Optional<String> missing() {
        return sandbox.missing();
    }

    /**
     * Looks for them beside, where somebody may want to try something soon: it takes seconds the first time. Returns at once.
     */
    public void lookAhead() {
        if (found == null && looking.compareAndSet(false, true)) {
            Thread beside = new Thread(this::found, "toolchains-ahead");
            beside.setDaemon(true);
            beside.start();
        }
    }

    /** In the order of their keys. */
    public List<Offered> all() {
        return List.copyOf(found().values());
    }

    public Optional<Offered> of(String key) {
        return Optional.ofNullable(found().get(key));
    }

    private Map<String, Offered> found() {
        Map<String, Offered> known = found;
        return known == null ? lookedFor() : known;
    }

    /** Whoever else asks meanwhile waits, and is told the same. */
    private synchronized Map<String, Offered> lookedFor() {
        Map<String, Offered> already = found;
        if (already != null) {
            return already;
        }
        Map<String, Offered> looked = new LinkedHashMap<>();
        if (missing().isEmpty()) {
            Optional<SandboxTools> cached = cache.tools();
            known.stream()
                    .sorted(java.util.Comparator.comparing(Toolchain::key))
                    .forEach(t -> version(t).ifPresent(v -> looked.put(t.key(), offered(t, v, cached))));
        }
        found = looked;
        return looked;
    }

    private Optional<String> version(Toolchain toolchain) {
        SandboxResult said = sandbox.run(
                new SandboxJob(
                        WorkFiles.none(),
                        toolchain.prelude() + toolchain.versionCommand(),
                        "",
                        toolchain.tools(),
                        SandboxLimits.usual()),
                new Sandbox.Stop());
        return said.ending() == SandboxResult.Ending.BY_ITSELF && said.status() == 0
                ? said.output().text().lines().findFirst().map(String::strip).filter(l -> !l.isEmpty())
                : Optional.empty();
    }

    private static Offered offered(Toolchain t, String version, Optional<SandboxTools> cached) {
        return new Offered(
                t.key(),
                t.title(),
                version,
                cached.map(c -> TrialCache.PRELUDE).orElse("") + t.prelude(),
                t.build(),
                t.run(),
                t.tests().command(),
                t.tests().expected(),
                t.loose(),
                t.languages(),
                cached.map(t.tools()::with).orElseGet(t::tools));
    }
}
