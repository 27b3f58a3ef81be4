package org.mossbank.server.toolchain;

import java.util.List;
import org.mossbank.core.trial.LooseCode;
import org.mossbank.core.trial.TestRun;
import org.springframework.stereotype.Component;

/** JavaScript by Node; what is built is only looked at for whether it can be read. */
@Component
class JavaScriptToolchain implements Toolchain {
    @Override
    public String key() {
        return "javascript";
    }

    @Override
    public String title() {
        return "JavaScript";
    }

    @Override
    public String versionCommand() {
        return "node --version";
    }

    @Override
    public String build() {
        return "find . -name '*.js' -o -name '*.mjs' | while read -r f; do node --check \"$f\" || exit 1; done";
    }

    @Override
    public String run() {
        return "node --max-old-space-size=192 main.js";
    }

    @Override
    public Tests tests() {
        return new Tests(
                "node --max-old-space-size=192 --test --test-reporter=tap", new TestRun(TestRun.Format.TAP, ""));
    }

    @Override
    public LooseCode loose() {
        return new LooseCode("answer.js", "", "", false);
    }

    @Override
    public List<String> languages() {
        return List.of("javascript", "js", "mjs", "jsx");
    }
}
