package org.mossbank.server.toolchain;

import java.util.List;
import org.mossbank.core.trial.LooseCode;
import org.springframework.stereotype.Component;

/** Python 3, where the machine has it. */
@Component
class PythonToolchain implements Toolchain {
    @Override
    public String key() {
        return "python";
    }

    @Override
    public String title() {
        return "Python";
    }

    @Override
    public String versionCommand() {
        return "/usr/bin/python3 --version";
    }

    @Override
    public String build() {
        return "find . -name '*.py' | while read -r f; do /usr/bin/python3 -W default -m py_compile \"$f\" || exit 1; done";
    }

    @Override
    public String run() {
        return "/usr/bin/python3 main.py";
    }

    @Override
    public LooseCode loose() {
        return new LooseCode("answer.py", "", "", false);
    }

    @Override
    public List<String> languages() {
        return List.of("python", "py");
    }
}
