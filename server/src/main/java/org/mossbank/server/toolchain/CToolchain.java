package org.mossbank.server.toolchain;

import java.util.List;
import org.mossbank.core.trial.LooseCode;
import org.springframework.stereotype.Component;

/** C, where the machine has its compiler; with the usual warnings. */
@Component
class CToolchain implements Toolchain {
    @Override
    public String key() {
        return "c";
    }

    @Override
    public String title() {
        return "C";
    }

    @Override
    public String versionCommand() {
        return "gcc --version";
    }

    @Override
    public String build() {
        return "gcc -std=c17 -Wall -Wextra -O1 -o program $(find . -name '*.c' | grep -v ' ') -lm";
    }

    @Override
    public String run() {
        return "./program";
    }

    @Override
    public Tests tests() {
        return Tests.none();
    }

    @Override
    public LooseCode loose() {
        return new LooseCode("answer.c", "", "", false);
    }

    @Override
    public List<String> languages() {
        return List.of("c");
    }
}
