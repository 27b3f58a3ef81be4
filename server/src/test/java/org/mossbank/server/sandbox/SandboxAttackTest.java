package org.mossbank.server.sandbox;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Programs that mean harm, in the real sandbox: each is contained, and ends with an outcome that says how. */
public class SandboxAttackTest {
    private final Boxed boxed = new Boxed();

    private SandboxResult attack(String command) {
        return boxed.run(Map.of(), command, "", Boxed.brief());
    }

    private static String perl(String script) {
        return "perl -e '" + script + "'";
    }

    @Test
    public void noPortOfTheMachineAnswers() throws IOException {
        try (ServerSocket server = new ServerSocket(0, 5, InetAddress.getLoopbackAddress())) {
            SandboxResult result =
                    attack(perl("use Socket; socket(S, PF_INET, SOCK_STREAM, 0) or die \"no socket\\n\"; "
                            + "print connect(S, sockaddr_in(" + server.getLocalPort()
                            + ", inet_aton(\"127.0.0.1\"))) ? \"in\" : \"$!\";"));

            // There is a loopback, and nothing but the program itself on it.
            assertThat(result.output().text()).isIn("Connection refused", "Network is unreachable");
        }
    }

    @DataProvider
    public Object[][] refused() {
        return new Object[][] {
            {"names of hosts", "getent hosts example.org || echo contained"},
            {
                "addresses elsewhere",
                "perl -e 'use Socket; socket(S, PF_INET, SOCK_DGRAM, 0); "
                        + "print send(S, \"x\", 0, sockaddr_in(53, inet_aton(\"192.0.2.1\"))) ? \"out\" : \"contained\"'"
            },
            {"sockets that no namespace hides", "perl -e 'print socket(S, 40, 1, 0) ? \"open\" : \"contained\"'"},
            {"raw packets", "perl -e 'print socket(S, 17, 3, 0) ? \"open\" : \"contained\"'"},
            {"passwords of the machine", "cat /etc/shadow || echo contained"},
            {
                "settings of the machine",
                "ls /etc/ssh /etc/hosts /root /home /var /opt /srv /mnt /sys && echo seen || echo contained"
            },
            {"a link to what is outside", "ln -s /etc/shadow s; cat s || echo contained"},
            {"another name for what is outside", "ln /usr/bin/perl p && echo linked || echo contained"},
            {"writing among the machine's programs", "touch /usr/bin/x || echo contained"},
            {
                "writing at the root",
                "touch /y || touch /in/y || touch /dev/y || touch /proc/sys/kernel/core_pattern || echo contained"
            },
            {"changing what runs it", "echo true >/inside.sh || echo contained"},
            {"becoming root", "setpriv --reuid 0 id || echo contained"},
            {"a program with its owner's rights", "su -c id </dev/null || echo contained"},
            {"namespaces of its own", "unshare -Ur id || echo contained"},
            {"mounting", "mount -t tmpfs tmpfs /tmp || echo contained"},
            {"looking into a process", perl("print syscall(101, 16, 1, 0, 0) == -1 ? \"contained\" : \"traced\"")},
            {"processes of the machine", "ls -d /proc/[0-9]* | wc -l | { read n; [ \"$n\" -lt 20 ] && echo contained; }"
            },
            {"settings of the server", "cat /proc/*/environ | tr '\\0' '\\n' | grep -c MOSSBANK || echo contained"},
            {"changing the machine's name", "hostname x || echo contained"},
            {"setting the clock", "date -s 2001-01-01 || echo contained"},
        };
    }

    @Test(dataProvider = "refused")
    public void isRefused(String name, String command) {
        SandboxResult result = attack(command);

        assertThat(result.output().text().strip()).as(name).endsWith("contained");
        assertThat(result.output().text()).as(name).doesNotContain("root:", "uid=0");
    }

    @Test
    public void nothingOfTheServerOrOfOthersIsSeen() throws IOException {
        Path secret = Files.createTempFile("mossbank", ".secret");
        try {
            Files.writeString(secret, "heron");
            CompletableFuture<SandboxResult> other = CompletableFuture.supplyAsync(
                    () -> attack("echo egret >/w/mine; echo egret >/tmp/mine; sleep 1.5"));
            SandboxResult result =
                    attack("sleep 0.5; cat " + secret + "; cat /w/* /tmp/*; find / -xdev -name 'mine*'; ls "
                            + Path.of("").toAbsolutePath());

            assertThat(result.output().text()).isEmpty();
            assertThat(other.join().files().text("mine")).hasValue("egret\n");
        } finally {
            Files.delete(secret);
        }
    }

    @DataProvider
    public Object[][] ended() {
        String tooMuch = "WROTE_TOO_MUCH";
        return new Object[][] {
            {"sleeping for ever", "sleep 1000000", "TIMED_OUT"},
            {"deaf to what asks it to end", "trap '' TERM INT HUP; while :; do :; done", "TIMED_OUT"},
            {"endless output", "yes", tooMuch},
            {"a gigabyte on one line", "head -c 1000000000 /dev/zero", tooMuch},
            {"endless complaints", "yes >&2", tooMuch},
            {
                "a file without end in another",
                "printf '#include \"/dev/zero\"' >a.c; gcc a.c || exit 3",
                "TIMED_OUT|OUT_OF_MEMORY|BY_ITSELF"
            },
            {
                "holding memory",
                perl("$x = \"a\" x (1 << 20); push @a, $x . $_ for 1 .. 100000;"),
                "OUT_OF_MEMORY|BY_ITSELF"
            },
            {
                "ending what it runs in",
                "kill -9 -1; kill -9 1; kill -9 $PPID; sleep 100",
                "BROKE_ITS_BOX|TIMED_OUT|BY_ITSELF"
            },
        };
    }

    @Test(dataProvider = "ended")
    public void isEnded(String name, String command, String endings) {
        SandboxResult result = attack(command);

        assertThat(result.ending().name()).as(name).matches(endings);
        if (result.ending() == SandboxResult.Ending.BY_ITSELF) {
            assertThat(result.status()).as(name).isNotZero();
        }
        assertThat(result.millis()).as(name).isLessThan(60_000);
    }

    /** Memory that is shared between processes is no one's own, and counts all the same. */
    @Test
    public void sharedMemoryCounts() {
        SandboxResult result = attack(
                perl(
                        "$a = syscall(9, 0, 3 << 30, 3, 0x21, -1, 0); die if $a == -1; "
                                + "for (my $i = 0; $i < 3 << 30; $i += 4096) { syscall(0, 3, $a + $i, 1) if 0; } "
                                + "open(Z, \"<\", \"/dev/zero\"); for (my $i = 0; $i < 3 << 30; $i += 1 << 20) { syscall(0, fileno(Z), $a + $i, 1 << 20); } print \"held\";"));

        assertThat(result.output().text()).doesNotContain("held");
        assertThat(result.mostMemoryKb()).isLessThan(2L << 20);
    }

    @DataProvider
    public Object[][] disks() {
        return new Object[][] {
            {"one file", "head -c 300000000 /dev/zero >/w/a"},
            {"many files", "for i in $(seq 1 40); do head -c 4000000 /dev/zero >/w/$i; done"},
            {"elsewhere", "head -c 300000000 /dev/zero >/tmp/a; cp /tmp/a /dev/shm/a"},
            {
                "files that are deleted and held",
                perl(
                        "for (1 .. 40) { open($f[$_], \">\", \"/w/x\"); unlink \"/w/x\"; syswrite($f[$_], \"a\" x 8000000); } print \"written\" if -s $f[40];")
            },
            {"a file with nothing in it", "truncate -s 900G /w/a"},
            {"names without end", "i=0; while [ $i -lt 20000 ]; do : >/w/$i; i=$((i+1)); done"},
        };
    }

    @Test(dataProvider = "disks")
    public void noDiskIsFilled(String name, String command) {
        long before = Path.of(System.getProperty("java.io.tmpdir")).toFile().getUsableSpace();
        SandboxResult result = attack(command);
        long after = Path.of(System.getProperty("java.io.tmpdir")).toFile().getUsableSpace();

        assertThat(result.output().text()).as(name).doesNotContain("written");
        assertThat(before - after).as(name).isLessThan(100L << 20);
        int bytes =
                result.files().bytes().values().stream().mapToInt(b -> b.length).sum();
        assertThat(bytes).as(name).isLessThanOrEqualTo(64 << 20);
        assertThat(result.files().paths().size()).as(name).isLessThanOrEqualTo(Tars.MOST_FILES);
    }

    /** A time to sleep that no other program sleeps, to be found again among the machine's processes. */
    private static String ownTime() {
        return "86399." + System.nanoTime();
    }

    @Test
    public void processesWithoutEndAreBoundedAndEnd() throws InterruptedException {
        String time = ownTime();
        SandboxResult result =
                attack("sleep " + time + " & b() { sleep " + time + " & b | b & }; b; perl -e 'fork while 1'");

        assertThat(result.ending()).isNotEqualTo(SandboxResult.Ending.STOPPED);
        assertNothingRuns(time);
    }

    @Test
    public void whatLeavesItsParentIsEndedToo() throws InterruptedException {
        String time = ownTime();
        SandboxResult result = attack("(trap '' HUP TERM; setsid sleep " + time + " &) & echo left");

        assertThat(result.ending()).isEqualTo(SandboxResult.Ending.BY_ITSELF);
        assertThat(result.output().text()).isEqualTo("left\n");
        assertNothingRuns(time);
    }

    @Test(timeOut = 120_000)
    public void whatIsStoppedEndsWhole() throws InterruptedException {
        String time = ownTime();
        Sandbox.Stop stop = new Sandbox.Stop();
        SandboxJob job = new SandboxJob(
                WorkFiles.none(), "setsid sleep " + time, "", SandboxTools.none(), SandboxLimits.usual());
        CompletableFuture<SandboxResult> running =
                CompletableFuture.supplyAsync(() -> boxed.sandbox().run(job, stop));
        while (!isRunning(time)) {
            Thread.sleep(20);
        }
        stop.stop();

        assertThat(running.join().ending()).isEqualTo(SandboxResult.Ending.STOPPED);
        assertNothingRuns(time);
    }

    private static void assertNothingRuns(String mark) throws InterruptedException {
        for (int i = 0; isRunning(mark) && i < 100; i++) {
            Thread.sleep(50);
        }
        assertThat(isRunning(mark)).isFalse();
    }

    private static boolean isRunning(String mark) {
        return ProcessHandle.allProcesses().anyMatch(p -> commandLine(p.pid()).contains(mark));
    }

    private static String commandLine(long pid) {
        try {
            return Files.readString(Path.of("/proc", String.valueOf(pid), "cmdline"));
        } catch (IOException e) {
            return "";
        }
    }

    @DataProvider
    public Object[][] leftBehind() {
        return new Object[][] {
            {"a link", "ln -s /etc/shadow out", "out"},
            {"a link to a folder", "ln -s /etc out", "out/shadow"},
            {"a pipe", "mkfifo out", "out"},
            {"a folder in a file's place", "mkdir out", "out"},
        };
    }

    @Test(dataProvider = "leftBehind")
    public void onlyPlainFilesComeOut(String name, String command, String path) {
        SandboxResult result = attack(command);

        assertThat(result.ending()).as(name).isEqualTo(SandboxResult.Ending.BY_ITSELF);
        assertThat(result.files().paths()).as(name).doesNotContain(path);
    }

    @Test
    public void outputThatIsNoTextIsRead() {
        assertThat(attack("printf '\\377\\376\\000a\\033[31m<script>'").output().text())
                .isEqualTo("\ufffd\ufffd\0a\u001b[31m<script>");
    }

    @Test
    public void aForgedEndSaysNoMoreThanItsOwnOutput() {
        SandboxResult result = attack("echo '0 1' >/x/status; echo forged >/x/output; kill -9 $PPID; exit 7");

        assertThat(result.ending()).isNotEqualTo(SandboxResult.Ending.STOPPED);
        assertThat(result.files().paths()).isEmpty();
    }

    @Test
    public void compilersAreBoundToo() {
        // Types that hold each other twice over: each line doubles what the compiler must keep.
        StringBuilder bomb = new StringBuilder(
                "class Bomb { static <T> java.util.List<java.util.Map<T, T>> w(T t) { return null; } Object o = ");
        bomb.append("w(".repeat(28)).append("1").append(")".repeat(28)).append("; }");
        SandboxResult result = boxed.run(
                Map.of("Bomb.java", bomb.toString()),
                "javac -J-Xmx128m -J-XX:+UseSerialGC -J-XX:CompressedClassSpaceSize=64m Bomb.java && echo built",
                "",
                SandboxLimits.usual().within(Duration.ofSeconds(8)));

        assertThat(result.ending().name()).matches("TIMED_OUT|OUT_OF_MEMORY|BY_ITSELF");
        assertThat(result.millis()).isLessThan(30_000);
    }
}
