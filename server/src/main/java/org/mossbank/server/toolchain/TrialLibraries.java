package org.mossbank.server.toolchain;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.mossbank.server.sandbox.Sandbox;
import org.mossbank.server.sandbox.SandboxTools;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/** Libraries that trials find beside the machine's programs: a folder that the start command fills, or an administrator. */
@Component
class TrialLibraries {
    private static final Logger LOG = LoggerFactory.getLogger(TrialLibraries.class);
    private static final String INSIDE = "/toolchain";

    private final Sandbox sandbox;
    private final Path folder;
    private final Map<String, SandboxTools> shown = new ConcurrentHashMap<>();

    TrialLibraries(Sandbox sandbox, @Value("${mossbank.trials.libraries}") Path folder) {
        this.sandbox = sandbox;
        this.folder = folder.toAbsolutePath();
    }

    /** Those of one toolchain, to be read only; none where the folder has none. */
    SandboxTools of(String toolchain) {
        return shown.computeIfAbsent(toolchain, this::show);
    }

    private SandboxTools show(String toolchain) {
        Path own = folder.resolve(toolchain);
        if (!Files.isDirectory(own)) {
            return SandboxTools.none();
        }
        try {
            Optional<Path> copy = sandbox.shown(own, "libraries-" + toolchain);
            return copy.map(c -> new SandboxTools(List.of(new SandboxTools.Mount(c, INSIDE)), Map.of()))
                    .orElseGet(SandboxTools::none);
        } catch (IOException e) {
            LOG.warn("Libraries for trials cannot be read: {}", own, e);
            return SandboxTools.none();
        }
    }
}
