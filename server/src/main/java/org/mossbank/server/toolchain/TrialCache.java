package org.mossbank.server.toolchain;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.mossbank.server.sandbox.Sandbox;
import org.mossbank.server.sandbox.SandboxTools;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * What builds of repositories fetch, fetched beforehand: a local repository of Maven's and a cache of npm's, which the administrator
 * fills. To be read only, and without a network; where neither is there, nothing of it is.
 */
@Component
class TrialCache {
    private static final Logger LOG = LoggerFactory.getLogger(TrialCache.class);
    private static final String INSIDE = "/cache";
    private static final String MAVEN = "maven";
    private static final String NPM = "npm";

    private final Sandbox sandbox;
    private final Path folder;

    TrialCache(Sandbox sandbox, @Value("${mossbank.trials.cache}") Path folder) {
        this.sandbox = sandbox;
        this.folder = folder.toAbsolutePath();
    }

    /** What every toolchain's commands begin with, so that a build need not know where the cache is. */
    static final String PRELUDE = """
            mvn() { command mvn -o -B -Dmaven.repo.local=%s/%s "$@"; }
            """.formatted(INSIDE, MAVEN);

    /** Empty where the administrator filled none. */
    Optional<SandboxTools> tools() {
        if (!Files.isDirectory(folder.resolve(MAVEN)) && !Files.isDirectory(folder.resolve(NPM))) {
            return Optional.empty();
        }
        try {
            return sandbox.shown(folder, "cache").map(c -> new SandboxTools(mounts(c), environment()));
        } catch (IOException e) {
            LOG.warn("The cache for builds in trials cannot be read: {}", folder, e);
            return Optional.empty();
        }
    }

    private static List<SandboxTools.Mount> mounts(Path copy) {
        List<SandboxTools.Mount> mounts = new ArrayList<>(List.of(new SandboxTools.Mount(copy, INSIDE)));
        Path settings = Path.of("/etc/maven");
        if (Files.isDirectory(settings)) {
            // Of the machine's settings, without which Maven does not begin.
            mounts.add(new SandboxTools.Mount(settings, settings.toString()));
        }
        return mounts;
    }

    private static Map<String, String> environment() {
        return new TreeMap<>(Map.of(
                "MAVEN_OPTS",
                "-Xmx256m -XX:+UseSerialGC -XX:TieredStopAtLevel=1 -XX:CompressedClassSpaceSize=64m",
                "npm_config_cache",
                INSIDE + "/" + NPM,
                "npm_config_offline",
                "true",
                "npm_config_logs_max",
                "0",
                "npm_config_audit",
                "false",
                "npm_config_fund",
                "false",
                "npm_config_update_notifier",
                "false"));
    }
}
