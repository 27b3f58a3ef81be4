package org.mossbank.server.toolchain;

import java.util.List;
import org.mossbank.core.trial.LooseCode;
import org.mossbank.server.sandbox.SandboxTools;
import org.springframework.stereotype.Component;

/**
 * Pages: HTML with its scripts as it is, or TypeScript and React from {@code main.tsx}, checked strictly and bundled into
 * {@code main.js} without a network.
 */
@Component
class PageToolchain implements Toolchain {
    private static final String MODULES = "/toolchain/node_modules";
    private static final String BUNDLER = "node " + MODULES + "/rolldown/bin/cli.mjs";

    private final TrialLibraries libraries;

    PageToolchain(TrialLibraries libraries) {
        this.libraries = libraries;
    }

    @Override
    public String key() {
        return "page";
    }

    @Override
    public String title() {
        return "Page (HTML, TypeScript, React)";
    }

    @Override
    public String versionCommand() {
        return BUNDLER + " --version";
    }

    /** The link to the libraries is taken away again: what is handed on is plain files. */
    @Override
    public String build() {
        return "[ ! -e main.tsx ] || { ln -s " + MODULES + " node_modules && " + TypeScriptToolchain.COMPILER
                + " --strict --noEmit --jsx react-jsx --target es2022 --lib es2023,dom,dom.iterable --module esnext"
                + " --moduleResolution bundler --types react,react-dom --pretty false main.tsx && " + BUNDLER
                + " main.tsx --file main.js --format esm --platform browser --log-level warn"
                + " --transform.define 'process.env.NODE_ENV:\"production\"' && rm node_modules; }";
    }

    /** A page is opened, not run. */
    @Override
    public String run() {
        return "";
    }

    @Override
    public LooseCode loose() {
        return new LooseCode("index.html", "", "", false);
    }

    @Override
    public SandboxTools tools() {
        return libraries.of("node");
    }

    @Override
    public List<String> languages() {
        return List.of("html", "css", "svg", "javascript", "js", "mjs", "jsx", "typescript", "ts", "tsx");
    }
}
