package org.mossbank.testkit;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.function.BinaryOperator;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** Studies of the demo that are being prepared, as further studies of the demo's lead. */
public final class DemoInPreparation {
    private static final List<String> OF_THE_ROUND = List.of(
            "sheets.csv",
            "positions.csv",
            "grades.csv",
            "reasons.csv",
            "judgements.csv",
            "coverage.csv",
            "remarks.csv",
            "splits.csv",
            "split-words.csv",
            "split-stances.csv");

    private static final List<String> OF_TRIALS = List.of("checks.csv", "trials.csv", "repairs.csv");

    private static final List<String> OF_CALIBRATION =
            List.of("calibrations.csv", "calibration-words.csv", "calibration-levels.csv", "anchor-proposals.csv");

    private DemoInPreparation() {}

    /**
     * The demo study as it stood before its round was opened.
     *
     * @return the study's id
     */
    public static String bringIn(Path root, ApiClient lead) {
        return bringIn(lead, archive(root.resolve("demo"), DemoInPreparation::asBefore));
    }

    /**
     * The same with no check of any prompt.
     *
     * @return the study's id
     */
    public static String bringInWithoutChecks(Path root, ApiClient lead) {
        return bringIn(
                lead,
                archive(
                        root.resolve("demo"),
                        (name, text) -> OF_TRIALS.contains(name) ? headOf(text) : asBefore(name, text)));
    }

    /**
     * The demo study as it stood before its round was opened, with its checks, of which nothing was tried yet.
     *
     * @return the study's id
     */
    public static String bringInUntried(Path root, ApiClient lead) {
        return bringIn(
                lead,
                archive(
                        root.resolve("demo"),
                        (name, text) -> OF_TRIALS.contains(name) && !name.equals("checks.csv")
                                ? headOf(text)
                                : asBefore(name, text)));
    }

    /**
     * The study that is being prepared, with a check in a repository of which nothing was tried yet.
     *
     * @return the study's id
     */
    public static String bringInNext(Path root, ApiClient lead) {
        return bringIn(lead, archive(root.resolve("demo-next"), (name, text) -> text));
    }

    /**
     * The study that is over, with its memo.
     *
     * @return the study's id
     */
    public static String bringInSigned(Path root, ApiClient lead) {
        return bringIn(lead, archive(root.resolve("demo-past"), (name, text) -> text));
    }

    /**
     * The study that is over, before anybody wrote a memo.
     *
     * @return the study's id
     */
    public static String bringInOver(Path root, ApiClient lead) {
        return bringIn(lead, archive(root.resolve("demo-past"), DemoInPreparation::withoutMemo));
    }

    /**
     * The same with one of its files changed.
     *
     * @param file    which
     * @param pattern what is replaced everywhere in it, a regular expression
     * @param by      what comes in its place
     * @return the study's id
     */
    public static String bringInOver(Path root, ApiClient lead, String file, String pattern, String by) {
        return bringIn(
                lead,
                archive(
                        root.resolve("demo-past"),
                        (name, text) -> withoutMemo(name, name.equals(file) ? text.replaceAll(pattern, by) : text)));
    }

    /**
     * The study that is over, as if one candidate were the best at reviews and another at refactoring, by a rule that tells kinds apart.
     *
     * @return the study's id
     */
    public static String bringInByKind(Path root, ApiClient lead) {
        return bringIn(
                lead,
                archive(
                        root.resolve("demo-past"),
                        (name, text) -> withoutMemo(
                                name,
                                switch (name) {
                                    case "study.json" -> text.replace("\"byKind\": false", "\"byKind\": true");
                                    case "grades.csv" ->
                                        asWonBy(asWonBy(text, FIRSTS, "quillwort"), SECONDS, "brindle");
                                    default -> text;
                                })));
    }

    /** One kind for each of two candidates; on the others either wins one prompt, so that nothing holds over all of them. */
    private static final String FIRSTS = "explain-light-character|debug-command-retry|review-[a-z]+";

    private static final String SECONDS = "explain-visit-order|debug-drift-alarm|refactor-[a-z-]+";

    private static String asWonBy(String grades, String prompts, String winner) {
        String loser = winner.equals("brindle") ? "quillwort" : "brindle";
        return grades.replaceAll("((?:" + prompts + ")-" + winner + ",[a-z]+),[0-9]", "$1,4")
                .replaceAll("((?:" + prompts + ")-(?:" + loser + "|tansy),[a-z]+),[0-9]", "$1,0");
    }

    private static String withoutMemo(String name, String text) {
        return name.startsWith("memo") && name.endsWith(".csv") ? headOf(text) : text;
    }

    /**
     * The study that follows the one that is over.
     *
     * @return the study's id
     */
    public static String bringInAfter(Path root, ApiClient lead) {
        return bringIn(lead, archive(root.resolve("demo-after"), (name, text) -> text));
    }

    private static String headOf(String table) {
        return table.lines().findFirst().orElseThrow() + "\n";
    }

    /**
     * The study that collects.
     *
     * @param port where its sources are asked, on this machine
     * @param query added to their addresses; may be empty
     * @return the study's id
     */
    public static String bringInCollecting(Path root, ApiClient lead, int port, String query) {
        return bringIn(
                lead,
                archive(
                        root.resolve("demo-next"),
                        (name, text) -> name.equals("sources.csv")
                                ? text.replaceAll("127\\.0\\.0\\.1:8760/([a-z]+)", "127.0.0.1:" + port + "/$1" + query)
                                : beforeCalibration(name, text)));
    }

    /**
     * The study that collects, before its raters calibrated.
     *
     * @return the study's id
     */
    public static String bringInToCalibrate(Path root, ApiClient lead) {
        return bringIn(lead, archive(root.resolve("demo-next"), DemoInPreparation::beforeCalibration));
    }

    /**
     * The study that collects, after its raters calibrated.
     *
     * @return the study's id
     */
    public static String bringInCalibrated(Path root, ApiClient lead) {
        return bringIn(lead, archive(root.resolve("demo-next"), (name, text) -> text));
    }

    private static String beforeCalibration(String name, String text) {
        if (OF_THE_ROUND.contains(name) || OF_CALIBRATION.contains(name)) {
            return text.lines().findFirst().orElseThrow() + "\n";
        }
        return name.equals("prompts.csv") ? text.replace(",1\n", ",\n") : text;
    }

    private static String bringIn(ApiClient lead, byte[] archive) {
        ApiClient.Response response = lead.upload("/api/studies/archive?again=true", archive);
        if (response.status() != 200) {
            throw new IllegalStateException("archive refused: " + response.body());
        }
        return response.json().path("studyId").asString();
    }

    private static byte[] archive(Path folder, BinaryOperator<String> change) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8);
                Stream<Path> paths = Files.walk(folder)) {
            for (Path path : paths.filter(Files::isRegularFile).toList()) {
                String name = folder.relativize(path).toString();
                zip.putNextEntry(new ZipEntry(name));
                zip.write(
                        name.endsWith(".zip")
                                ? Files.readAllBytes(path)
                                : change.apply(name, Files.readString(path)).getBytes(StandardCharsets.UTF_8));
                zip.closeEntry();
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    private static String asBefore(String name, String text) {
        if (OF_THE_ROUND.contains(name)) {
            return headOf(text);
        }
        if (name.equals("study.json")) {
            return text.replace("\"stage\": \"grading\"", "\"stage\": \"preparing\"")
                    .replace("A code model for the buoy service", "Before the round")
                    .replaceFirst("\\s*\"closedAt\": \"2026-03-09T16:40:00Z\",", "");
        }
        return text;
    }
}
