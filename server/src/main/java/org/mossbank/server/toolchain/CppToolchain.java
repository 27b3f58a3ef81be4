package org.mossbank.server.toolchain;

import java.util.List;
import org.mossbank.core.trial.LooseCode;
import org.springframework.stereotype.Component;

/** C++, where the machine has its compiler; with the usual warnings. */
@Component
class CppToolchain implements Toolchain {
    @Override
    public String key() {
        return "cpp";
    }

    @Override
    public String title() {
        return "C++";
    }

    @Override
    public String versionCommand() {
        return "g++ --version";
    }

    @Override
    public String build() {
        return "g++ -std=c++20 -Wall -Wextra -O1 -o program $(find . -name '*.cpp' | grep -v ' ') -lm";
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
        return new LooseCode("answer.cpp", "", "", false);
    }

    @Override
    public List<String> languages() {
        return List.of("cpp", "c++", "cc");
    }
}
