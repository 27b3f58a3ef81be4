package org.mossbank.server.trial;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.trial.LooseCode;
import org.mossbank.core.trial.TestRun;
import org.mossbank.server.toolchain.Toolchains;

/**
 * What this server offers for trials.
 *
 * @param missing why it offers nothing, in words; absent if it does
 */
record ToolchainsView(@Nullable String missing, List<ToolchainView> toolchains) {
    ToolchainsView {
        toolchains = List.copyOf(toolchains);
    }

    /**
     * A toolchain, and what a check by it begins with.
     *
     * @param version as it says itself
     * @param build   shell command; empty where nothing is built
     * @param run     shell command
     * @param test    shell command; empty where there is none to propose
     * @param reports where these leave their reports
     * @param loose   where loose code goes
     */
    record ToolchainView(
            String key,
            String title,
            String version,
            String build,
            String run,
            String test,
            TestRun reports,
            LooseCode loose) {}

    static ToolchainsView of(Toolchains toolchains) {
        return new ToolchainsView(
                toolchains.missing().orElse(null),
                toolchains.all().stream()
                        .map(t -> new ToolchainView(
                                t.key(), t.title(), t.version(), t.build(), t.run(), t.test(), t.reports(), t.loose()))
                        .toList());
    }
}
