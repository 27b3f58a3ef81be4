package org.mossbank.server.toolchain;

import java.util.List;
import org.mossbank.core.trial.LooseCode;
import org.mossbank.core.trial.TestRun;
import org.mossbank.server.sandbox.SandboxTools;
import org.springframework.stereotype.Component;

/** TypeScript: types checked strictly by its compiler, then run by Node. */
@Component
class TypeScriptToolchain implements Toolchain {
    /** A program of the machine's own kind, in the package that is for it: several times as fast as what runs in Node. */
    static final String COMPILER = "$(echo /toolchain/node_modules/@typescript/typescript-*/lib/tsc)";

    private final TrialLibraries libraries;

    TypeScriptToolchain(TrialLibraries libraries) {
        this.libraries = libraries;
    }

    @Override
    public String key() {
        return "typescript";
    }

    @Override
    public String title() {
        return "TypeScript";
    }

    @Override
    public String versionCommand() {
        return COMPILER + " --version";
    }

    @Override
    public String build() {
        return COMPILER + " --strict --noUnusedLocals --target es2022 --module nodenext --moduleResolution nodenext"
                + " --typeRoots /toolchain/node_modules/@types --types node --pretty false --outDir .build"
                + " $(find . -name '*.ts' -not -path './.build/*' | grep -v ' ')";
    }

    @Override
    public String run() {
        return "node --max-old-space-size=192 .build/main.js";
    }

    @Override
    public Tests tests() {
        return new Tests(
                "node --max-old-space-size=192 --test --test-reporter=tap $(find .build -name '*.test.js')",
                new TestRun(TestRun.Format.TAP, ""));
    }

    @Override
    public LooseCode loose() {
        return new LooseCode("answer.ts", "", "", false);
    }

    @Override
    public SandboxTools tools() {
        return libraries.of("node");
    }

    @Override
    public List<String> languages() {
        return List.of("typescript", "ts", "tsx");
    }
}
