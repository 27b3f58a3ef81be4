package org.mossbank.server.toolchain;

import java.util.List;
import org.mossbank.core.trial.LooseCode;
import org.mossbank.core.trial.TestRun;
import org.mossbank.server.sandbox.SandboxTools;
import org.springframework.stereotype.Component;

/** Java by the JDK of the machine: single files and packages, with all warnings and without annotation processors. */
@Component
class JavaToolchain implements Toolchain {
    /** A small virtual machine begins in a tenth of a second, and fits beside its like. */
    private static final String SMALL = "-XX:+UseSerialGC -XX:TieredStopAtLevel=1 -XX:CompressedClassSpaceSize=64m"
            + " -XX:ReservedCodeCacheSize=32m -XX:-UsePerfData -Xshare:auto";

    private static final String LIBRARIES = "-cp '.build:/toolchain/*'";

    private final TrialLibraries libraries;

    JavaToolchain(TrialLibraries libraries) {
        this.libraries = libraries;
    }

    @Override
    public String key() {
        return "java";
    }

    @Override
    public String title() {
        return "Java";
    }

    @Override
    public String versionCommand() {
        return "javac -version 2>&1";
    }

    @Override
    public String prelude() {
        return """
                java() { command java -Xmx192m %s "$@"; }
                javac() { command javac -J-Xmx192m %s "$@"; }
                """.formatted(SMALL, SMALL.replaceAll("(^| )-", "$1-J-"));
    }

    /** A processor of annotations would be the answer's own program, run by the compiler. */
    @Override
    public String build() {
        return "find . -name '*.java' | sed 's/.*/\"&\"/' >/tmp/sources && mkdir -p .build"
                + " && javac -Xlint:all -proc:none -encoding UTF-8 -d .build " + LIBRARIES + " @/tmp/sources";
    }

    @Override
    public String run() {
        return "java " + LIBRARIES + " Main";
    }

    @Override
    public Tests tests() {
        return new Tests(
                "java " + LIBRARIES + " org.junit.platform.console.ConsoleLauncher execute --disable-banner"
                        + " --scan-classpath .build --reports-dir reports",
                new TestRun(TestRun.Format.JUNIT_XML, "reports"));
    }

    @Override
    public LooseCode loose() {
        return new LooseCode("*.java", "class Loose {\n", "}\n", true);
    }

    @Override
    public SandboxTools tools() {
        return libraries.of(key());
    }

    @Override
    public List<String> languages() {
        return List.of("java");
    }
}
