package org.mossbank.server.toolchain;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.time.Duration;
import java.util.Base64;
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
        return filled(project, Map.of());
    }

    private static Path filled(Map<String, String> project, Map<String, String> environment)
            throws IOException, InterruptedException {
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
        builder.environment().putAll(environment);
        Process process = builder.start();
        String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor()).as(output).isZero();
        assertThat(folder.resolve("project/target"))
                .as("the project itself is left alone")
                .doesNotExist();
        return folder.resolve("cache");
    }

    private SandboxResult built(Path cache, Map<String, String> project, String key, String command) {
        Toolchains.Offered toolchain = new Toolchains(known, sandbox, new TrialCache(sandbox, cache))
                .of(key)
                .orElseThrow();
        return sandbox.run(
                new SandboxJob(
                        WorkFiles.of(project),
                        toolchain.prelude() + command,
                        "",
                        toolchain.tools(),
                        SandboxLimits.usual().within(Duration.ofSeconds(90))),
                new Sandbox.Stop());
    }

    @Test
    public void whatWasFetchedBuildsAProjectWithoutANetwork() throws IOException, InterruptedException {
        Map<String, String> project = project();
        SandboxResult built = built(
                filled(project), project, "java", "mvn -q test && (touch /cache/maven/mine || echo it is only read)");
        assertThat(built.status())
                .as(built.output().text() + built.errors().text())
                .isZero();
        assertThat(built.files().paths()).contains("target/surefire-reports/TEST-quay.TideTest.xml");
        assertThat(built.output().text()).contains("it is only read");
    }

    /** A package, as a registry hands it out. */
    private static byte[] tarball() throws IOException, InterruptedException {
        Path folder = Files.createTempDirectory("mossbank-package");
        Files.createDirectories(folder.resolve("package"));
        Files.writeString(folder.resolve("package/package.json"), "{\"name\": \"tide\", \"version\": \"1.0.0\"}\n");
        Files.writeString(folder.resolve("package/index.js"), "exports.high = 4;\n");
        Process tar = new ProcessBuilder("tar", "czf", "tide.tgz", "package")
                .directory(folder.toFile())
                .start();
        assertThat(tar.waitFor()).isZero();
        return Files.readAllBytes(folder.resolve("tide.tgz"));
    }

    @Test
    public void whatNpmFetchedIsInstalledWithoutANetwork() throws Exception {
        byte[] tarball = tarball();
        HttpServer registry = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        registry.createContext("/tide/-/tide-1.0.0.tgz", exchange -> {
            exchange.sendResponseHeaders(200, tarball.length);
            exchange.getResponseBody().write(tarball);
            exchange.close();
        });
        registry.start();
        String address = "http://127.0.0.1:" + registry.getAddress().getPort() + "/";
        String integrity = "sha512-"
                + Base64.getEncoder()
                        .encodeToString(MessageDigest.getInstance("SHA-512").digest(tarball));
        Map<String, String> project = Map.of(
                "package.json",
                "{\"name\": \"quay\", \"version\": \"1.0.0\", \"dependencies\": {\"tide\": \"1.0.0\"}}",
                "package-lock.json",
                """
                {"name": "quay", "version": "1.0.0", "lockfileVersion": 3, "requires": true, "packages": {
                  "": {"name": "quay", "version": "1.0.0", "dependencies": {"tide": "1.0.0"}},
                  "node_modules/tide": {"version": "1.0.0", "resolved": "%stide/-/tide-1.0.0.tgz", "integrity": "%s"}}}
                """.formatted(address, integrity));
        Path cache;
        try {
            cache = filled(project, Map.of("npm_config_registry", address));
        } finally {
            registry.stop(0);
        }

        SandboxResult built = built(
                cache,
                project,
                "javascript",
                "npm ci --ignore-scripts --no-audit --no-fund && node -e \"console.log('high', require('tide').high)\""
                        + " && (touch /cache/npm/mine || echo it is only read)");

        assertThat(built.status())
                .as(built.output().text() + built.errors().text())
                .isZero();
        assertThat(built.output().text()).contains("high 4", "it is only read");
    }

    @Test
    public void withoutACacheNothingOfItIsThere() throws IOException {
        Path none = Files.createTempDirectory("mossbank-cache-test");
        assertThat(new TrialCache(sandbox, none).tools()).isEmpty();
    }
}
