package org.mossbank.server.toolchain;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.Map;
import org.mossbank.server.ServerTest;
import org.mossbank.server.sandbox.Sandbox;
import org.mossbank.server.sandbox.SandboxJob;
import org.mossbank.server.sandbox.SandboxLimits;
import org.mossbank.server.sandbox.SandboxResult;
import org.mossbank.server.sandbox.WorkFiles;
import org.springframework.beans.factory.annotation.Autowired;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Each toolchain builds and runs a small program inside the real sandbox. */
public class ToolchainTest extends ServerTest {
    @Autowired
    private Toolchains toolchains;

    @Autowired
    private Sandbox sandbox;

    private SandboxResult run(Toolchains.Offered toolchain, Map<String, String> files, String command) {
        return sandbox.run(
                new SandboxJob(
                        WorkFiles.of(files),
                        toolchain.prelude() + command,
                        "",
                        toolchain.tools(),
                        SandboxLimits.usual().within(Duration.ofSeconds(60))),
                new Sandbox.Stop());
    }

    private Toolchains.Offered offered(String key) {
        return toolchains
                .of(key)
                .orElseThrow(() -> new AssertionError("not offered: " + key + " of " + toolchains.all()));
    }

    @Test
    public void theOnesThatTheDemoNeedsAreThere() {
        assertThat(toolchains.missing()).isEmpty();
        assertThat(toolchains.all())
                .extracting(Toolchains.Offered::key)
                .contains("java", "typescript", "javascript", "sql", "shell");
        assertThat(offered("java").version()).startsWith("javac ");
        assertThat(toolchains.of("none")).isEmpty();
    }

    @DataProvider
    public Object[][] programs() {
        return new Object[][] {
            {
                "java",
                Map.of(
                        "Main.java",
                        "class Main { public static void main(String[] a) { System.out.println(\"high\"); } }")
            },
            {"typescript", Map.of("main.ts", "const tide: string = \"high\"; console.log(tide);\n")},
            {"javascript", Map.of("main.js", "console.log(\"high\");\n")},
            {"shell", Map.of("answer.sh", "echo high\n")},
            {"c", Map.of("answer.c", "#include <stdio.h>\nint main(void) { puts(\"high\"); return 0; }\n")},
            {"cpp", Map.of("answer.cpp", "#include <iostream>\nint main() { std::cout << \"high\\n\"; }\n")},
            {"python", Map.of("main.py", "print(\"high\")\n")},
        };
    }

    @Test(dataProvider = "programs")
    public void buildsAndRuns(String key, Map<String, String> files) {
        if (toolchains.of(key).isEmpty()) {
            assertThat(key).as("only these depend on the machine").isIn("c", "cpp", "python");
            return;
        }
        Toolchains.Offered toolchain = offered(key);
        SandboxResult built = run(toolchain, files, toolchain.build());
        assertThat(built.status())
                .as(built.errors().text() + built.output().text())
                .isZero();
        SandboxResult ran = sandbox.run(
                new SandboxJob(
                        built.files(),
                        toolchain.prelude() + toolchain.run(),
                        "",
                        toolchain.tools(),
                        SandboxLimits.usual()),
                new Sandbox.Stop());
        assertThat(ran.output().text()).as(ran.errors().text()).isEqualTo("high\n");
    }

    /** A processor of annotations would be a program of the answer's, run by the compiler. */
    @Test
    public void javaRunsNothingWhileItCompiles() {
        Toolchains.Offered java = offered("java");
        SandboxResult built = run(
                java,
                Map.of(
                        "Evil.java",
                        "@javax.annotation.processing.SupportedAnnotationTypes(\"*\") public class Evil extends javax.annotation.processing.AbstractProcessor {"
                                + " public boolean process(java.util.Set<? extends javax.lang.model.element.TypeElement> a, javax.annotation.processing.RoundEnvironment r) {"
                                + " System.out.println(\"ran\"); return false; } }",
                        "META-INF/services/javax.annotation.processing.Processor",
                        "Evil",
                        ".build/META-INF/services/javax.annotation.processing.Processor",
                        "Evil"),
                java.build());
        assertThat(built.output().text() + built.errors().text()).doesNotContain("ran\n");
    }

    @Test
    public void testsOfJavaLeaveReports() {
        Toolchains.Offered java = offered("java");
        SandboxResult built = run(
                java,
                Map.of(
                        "TideTest.java",
                        "import org.junit.jupiter.api.Test; class TideTest { @Test void high() {} @Test void low() { throw new AssertionError(\"no\"); } }"),
                java.build() + " && { " + java.test() + "; true; }");
        assertThat(built.files().paths())
                .as(built.errors().text())
                .anyMatch(p -> p.startsWith("reports/") && p.endsWith(".xml"));
    }

    @Test
    public void testsOfTypeScriptWriteTheirReport() {
        Toolchains.Offered typeScript = offered("typescript");
        SandboxResult built = run(
                typeScript,
                Map.of("tide.test.ts", "import { test } from \"node:test\";\ntest(\"high\", () => {});\n"),
                typeScript.build() + " && " + typeScript.test());
        assertThat(built.output().text()).as(built.errors().text()).contains("ok 1 - high");
    }

    @Test
    public void sqlRunsAsARoleThatReachesNothingElse() {
        Toolchains.Offered sql = offered("sql");
        SandboxResult ran = run(
                sql,
                Map.of(
                        "schema.sql",
                        "create table bird (id int, name text); insert into bird values (1, 'heron');",
                        "answer.sql",
                        "update bird set name = 'egret'; select name, current_user from bird;"),
                sql.run());
        assertThat(ran.output().text()).as(ran.errors().text()).isEqualTo("name,current_user\negret,trial\n");
    }

    @DataProvider
    public Object[][] attacksBySql() {
        return new Object[][] {
            {"a file of the machine", "select pg_read_file('/etc/passwd')"},
            {"a program", "copy (select 1) to program 'id'"},
            {"another role", "set role owner; select 1"},
            {"another database", "\\connect postgres owner"},
            {"a shell of the client", "\\! id"},
            {"a role above it", "create role more superuser"},
            {"a statement without end", "set statement_timeout = 0; set statement_timeout = '1s'; select pg_sleep(100)"
            },
        };
    }

    @Test(dataProvider = "attacksBySql")
    public void sqlIsRefused(String name, String attack) {
        Toolchains.Offered sql = offered("sql");
        SandboxResult ran = run(sql, Map.of("answer.sql", attack), sql.run());
        assertThat(ran.status()).as(name + ran.output().text()).isNotZero();
        assertThat(ran.output().text()).doesNotContain("uid=", "root:", "nobody:");
    }
}
