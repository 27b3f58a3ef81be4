package org.mossbank.server.toolchain;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.mossbank.server.ServerTest;
import org.mossbank.server.sandbox.Sandbox;
import org.mossbank.server.sandbox.SandboxJob;
import org.mossbank.server.sandbox.SandboxLimits;
import org.mossbank.server.sandbox.SandboxResult;
import org.mossbank.server.sandbox.WorkFiles;
import org.springframework.beans.factory.annotation.Autowired;
import org.testng.annotations.Test;

/** What the administrator's command fetched is what a build in the real sandbox needs, which has no network. */
public class TrialCacheTest extends ServerTest {
    @Autowired
    private List<Toolchain> known;

    @Autowired
    private Sandbox sandbox;

    private static String of(String pom, String pattern) {
        Matcher found = Pattern.compile(pattern, Pattern.DOTALL).matcher(pom);
        assertThat(found.find()).as(pattern).isTrue();
        return found.group(1);
    }

    /** Built by the versions that this product is built by, which are on every machine that builds it. */
    private static Map<String, String> project() throws IOException {
        String pom = Files.readString(ROOT.resolve("pom.xml"));
        return Map.of(
                "pom.xml",
                """
                <project xmlns="http://maven.apache.org/POM/4.0.0"><modelVersion>4.0.0</modelVersion>
                <parent><groupId>org.springframework.boot</groupId><artifactId>spring-boot-starter-parent</artifactId>
                <version>%s</version><relativePath/></parent>
                <groupId>quay</groupId><artifactId>quay</artifactId><version>1</version>
                <properties><java.version>17</java.version><maven-surefire-plugin.version>%s</maven-surefire-plugin.version></properties>
                <dependencies><dependency><groupId>org.testng</groupId><artifactId>testng</artifactId>
                <version>%s</version><scope>test</scope></dependency></dependencies></project>
                """.formatted(
                                of(pom, "spring-boot-starter-parent</artifactId>\\s*<version>([^<]+)<"),
                                of(pom, "<surefire.version>([^<]+)<"),
                                of(pom, "<testng.version>([^<]+)<")),
                "src/main/java/quay/Tide.java",
                "package quay; public class Tide { public static int high() { return 4; } }\n",
                "src/test/java/quay/TideTest.java",
                "package quay; import org.testng.Assert; import org.testng.annotations.Test;\n"
                        + "public class TideTest { @Test public void high() { Assert.assertEquals(Tide.high(), 4); } }\n");
    }

    private static Path filled(Map<String, String> project) throws IOException, InterruptedException {
        Path folder = Files.createTempDirectory("mossbank-cache-test");
        for (Map.Entry<String, String> file : project.entrySet()) {
            Path path = folder.resolve("project").resolve(file.getKey());
            Files.createDirectories(path.getParent());
            Files.writeString(path, file.getValue());
        }
        Path settings = folder.resolve("settings.xml");
        String own = System.getProperty("maven.repo.local", System.getProperty("user.home") + "/.m2/repository");
        Files.writeString(
                settings,
                "<settings><mirrors><mirror><id>here</id><mirrorOf>*</mirrorOf><url>file://" + own
                        + "</url></mirror></mirrors></settings>");
        ProcessBuilder builder = new ProcessBuilder(
                        ROOT.resolve("mossbank").toString(),
                        "trial-cache",
                        folder.resolve("project").toString())
                .redirectErrorStream(true);
        builder.environment()
                .put("MOSSBANK_TRIAL_CACHE", folder.resolve("cache").toString());
        builder.environment().put("MOSSBANK_MAVEN_SETTINGS", settings.toString());
        Process process = builder.start();
        String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor()).as(output).isZero();
        assertThat(folder.resolve("project/target"))
                .as("the project itself is left alone")
                .doesNotExist();
        return folder.resolve("cache");
    }

    private SandboxResult built(Path cache, Map<String, String> project) {
        Toolchains.Offered java = new Toolchains(known, sandbox, new TrialCache(sandbox, cache))
                .of("java")
                .orElseThrow();
        return sandbox.run(
                new SandboxJob(
                        WorkFiles.of(project),
                        java.prelude() + "mvn -q test && (touch /cache/maven/mine || echo it is only read)",
                        "",
                        java.tools(),
                        SandboxLimits.usual().within(Duration.ofSeconds(90))),
                new Sandbox.Stop());
    }

    @Test
    public void whatWasFetchedBuildsAProjectWithoutANetwork() throws IOException, InterruptedException {
        Map<String, String> project = project();
        SandboxResult built = built(filled(project), project);
        assertThat(built.status())
                .as(built.output().text() + built.errors().text())
                .isZero();
        assertThat(built.files().paths()).contains("target/surefire-reports/TEST-quay.TideTest.xml");
        assertThat(built.output().text()).contains("it is only read");
    }

    @Test
    public void withoutACacheNothingOfItIsThere() throws IOException {
        Path none = Files.createTempDirectory("mossbank-cache-test");
        assertThat(new TrialCache(sandbox, none).tools()).isEmpty();
    }
}
