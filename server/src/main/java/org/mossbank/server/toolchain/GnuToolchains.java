package org.mossbank.server.toolchain;

import java.util.List;
import org.mossbank.core.trial.LooseCode;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** C and C++, where the machine has their compilers; with the usual warnings. */
@Configuration(proxyBeanMethods = false)
class GnuToolchains {
    @Bean
    Toolchain cToolchain() {
        return new Gnu("c", "C", "gcc -std=c17", "c", List.of("c"));
    }

    @Bean
    Toolchain cppToolchain() {
        return new Gnu("cpp", "C++", "g++ -std=c++20", "cpp", List.of("cpp", "c++", "cc"));
    }

    /**
     * One language of the compilers.
     *
     * @param compiler with its standard
     * @param ending   of its files
     */
    record Gnu(String key, String title, String compiler, String ending, List<String> languages) implements Toolchain {
        @Override
        public String versionCommand() {
            return compiler + " --version";
        }

        @Override
        public String build() {
            return compiler + " -Wall -Wextra -O1 -o program $(find . -name '*." + ending + "' | grep -v ' ') -lm";
        }

        @Override
        public String run() {
            return "./program";
        }

        @Override
        public LooseCode loose() {
            return new LooseCode("answer." + ending, "", "", false);
        }
    }
}
