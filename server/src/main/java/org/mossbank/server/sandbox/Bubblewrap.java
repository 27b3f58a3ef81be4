package org.mossbank.server.sandbox;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The command line that shuts a program in. */
final class Bubblewrap {
    /** Whose rights a program has where the server is root: nobody's. */
    static final int NOBODY = 65534;

    private static final String DRIVER = "inside.sh";
    private static final String FILTER = "calls.bpf";
    private static final int MOST_OPEN_FILES = 512;

    /** Grading goes first: of a processor that both want, a tenth is left. */
    private static final int NICE = 10;

    private static final long MB = 1 << 20;

    /** For what processes share by name: a small database needs some. */
    private static final long SHARED_MB = 8;

    /** Of the machine's settings only those without which its programs do not begin. */
    private static final List<String> SETTINGS =
            List.of("/etc/alternatives", "/etc/java-17-openjdk", "/etc/ssl/certs/java");

    private final Path home;
    private final boolean isRoot;
    private final boolean hasFilter;

    private Bubblewrap(Path home, boolean isRoot, boolean hasFilter) {
        this.home = home;
        this.isRoot = isRoot;
        this.hasFilter = hasFilter;
    }

    /**
     * Lays out what every program needs.
     *
     * @param home a folder of the server's own
     */
    static Bubblewrap in(Path home, boolean isRoot) throws IOException {
        Files.createDirectories(home);
        Files.setPosixFilePermissions(home, PosixFilePermissions.fromString("rwx--x--x"));
        try (InputStream driver = Bubblewrap.class.getResourceAsStream(DRIVER)) {
            Files.write(
                    home.resolve(DRIVER),
                    java.util.Objects.requireNonNull(driver).readAllBytes());
        }
        Files.setPosixFilePermissions(home.resolve(DRIVER), PosixFilePermissions.fromString("rw-r--r--"));
        Files.writeString(home.resolve("passwd"), "nobody:x:" + NOBODY + ":" + NOBODY + "::/w:/bin/sh\n");
        Files.setPosixFilePermissions(home.resolve("passwd"), PosixFilePermissions.fromString("rw-r--r--"));
        Optional<byte[]> filter = SeccompFilter.of(System.getProperty("os.arch"));
        if (filter.isPresent()) {
            Files.write(home.resolve(FILTER), filter.get());
        }
        return new Bubblewrap(home, isRoot, filter.isPresent());
    }

    Path home() {
        return home;
    }

    /** A folder with the program's files, command and input; readable by nobody but the program, whoever it runs as. */
    Path written(SandboxJob job) throws IOException {
        Path in = Files.createTempDirectory(home, "job");
        try (OutputStream tar = Files.newOutputStream(in.resolve("files.tar"))) {
            Tars.write(job.files(), tar);
        }
        Files.writeString(in.resolve("command"), job.command());
        Files.writeString(in.resolve("input"), job.input());
        if (isRoot) {
            for (Path file : List.of(in.resolve("files.tar"), in.resolve("command"), in.resolve("input"), in)) {
                Files.setAttribute(file, "unix:uid", NOBODY);
            }
        }
        return in;
    }

    /**
     * @param in     the folder with the program's files, command and input
     * @param doors  of control groups
     */
    List<String> command(Path in, SandboxJob job, List<String> doors) {
        SandboxLimits limits = job.limits();
        // A session of its own: no terminal is reached from it, and all of it can be ended at once.
        List<String> line = new ArrayList<>(List.of("setsid", "sh", "-c", first(), "sh"));
        line.addAll(doors);
        line.add("--");
        if (isRoot) {
            line.addAll(List.of(
                    "setpriv", "--reuid", "" + NOBODY, "--regid", "" + NOBODY, "--clear-groups", "--inh-caps=-all"));
        }
        line.addAll(List.of("nice", "-n", "" + NICE));
        line.addAll(List.of(
                "prlimit",
                "--core=0",
                "--nofile=" + MOST_OPEN_FILES,
                "--data=" + limits.memoryMb() * MB,
                "--fsize=" + limits.workMb() * MB,
                "--cpu=" + (limits.time().toSeconds() + 1) * 4));
        line.addAll(List.of("bwrap", "--unshare-user", "--unshare-all", "--disable-userns", "--die-with-parent"));
        line.addAll(List.of(
                "--uid", "" + NOBODY, "--gid", "" + NOBODY, "--hostname", "trial", "--cap-drop", "ALL", "--clearenv"));
        if (hasFilter) {
            line.addAll(List.of("--seccomp", "9"));
        }
        line.addAll(mounts(in, job.tools(), limits));
        environment(job.tools()).forEach((name, value) -> line.addAll(List.of("--setenv", name, value)));
        line.addAll(List.of("--chdir", "/w", "--remount-ro", "/"));
        // Set outside, it would be held against all that the same user runs elsewhere: other sandboxes, and the server
        // itself.
        line.addAll(List.of("prlimit", "--nproc=" + limits.processes()));
        line.addAll(List.of("sh", "/inside.sh", "" + limits.outputBytes()));
        line.add("%.3f".formatted(limits.time().toMillis() / 1000.0));
        return line;
    }

    /** Before all else the process goes through the doors, so that whatever it begins is bound. */
    private String first() {
        String filter = hasFilter ? " 9<'" + home.resolve(FILTER) + "'" : "";
        return "while [ \"$1\" != -- ]; do echo $$ >\"$1\" || :; shift; done; shift; exec \"$@\"" + filter;
    }

    private List<String> mounts(Path in, SandboxTools tools, SandboxLimits limits) {
        List<String> line = new ArrayList<>(List.of("--ro-bind", "/usr", "/usr"));
        for (String folder : List.of("bin", "lib", "lib64", "sbin")) {
            if (Files.exists(Path.of("/", folder))) {
                line.addAll(List.of("--symlink", "usr/" + folder, "/" + folder));
            }
        }
        SETTINGS.forEach(s -> line.addAll(List.of("--ro-bind-try", s, s)));
        line.addAll(List.of("--ro-bind", home.resolve("passwd").toString(), "/etc/passwd"));
        line.addAll(List.of("--proc", "/proc", "--dev", "/dev"));
        String bytes = "" + limits.workMb() * MB;
        line.addAll(List.of("--size", "" + SHARED_MB * MB, "--tmpfs", "/dev/shm", "--remount-ro", "/dev"));
        line.addAll(List.of("--size", "" + (4L * SandboxLimits.MOST_OUTPUT_BYTES), "--tmpfs", "/x"));
        line.addAll(List.of("--size", bytes, "--tmpfs", "/tmp", "--size", bytes, "--tmpfs", "/w"));
        line.addAll(List.of(
                "--ro-bind",
                in.toString(),
                "/in",
                "--ro-bind",
                home.resolve(DRIVER).toString(),
                "/inside.sh"));
        tools.mounts().forEach(m -> line.addAll(List.of("--ro-bind", m.outside().toString(), m.inside())));
        return line;
    }

    private static Map<String, String> environment(SandboxTools tools) {
        Map<String, String> all = new java.util.TreeMap<>(Map.of(
                "PATH",
                "/usr/bin:/bin",
                "HOME",
                "/w",
                "TMPDIR",
                "/tmp",
                "LANG",
                "C.UTF-8",
                "LC_ALL",
                "C.UTF-8",
                "TZ",
                "UTC"));
        all.putAll(tools.environment());
        return all;
    }
}
