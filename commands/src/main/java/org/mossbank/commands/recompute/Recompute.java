package org.mossbank.commands.recompute;

import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Map;
import tools.jackson.databind.JsonNode;

/** Prints each figure of a signed memo beside the same figure worked out again from the archive that it rests on. */
public final class Recompute {
    /** What the order of adding up may make of a figure. */
    private static final double TOLERANCE = 1e-6;

    private final PrintStream out;
    private int apart;

    private Recompute(PrintStream out) {
        this.out = out;
    }

    /** Ends with 1 if a figure, or the archive's checksum, is another. @param arguments the package of a signed memo */
    public static void main(String[] arguments) throws IOException {
        PrintStream out = new PrintStream(System.out, false, StandardCharsets.UTF_8);
        if (of(Path.of(arguments[0]), out) > 0) {
            System.exit(1);
        }
    }

    /**
     * Prints them, and tells how many are apart.
     *
     * @param memo the package of a signed memo
     * @throws IOException if it cannot be read, or is no such package
     */
    public static int of(Path memo, PrintStream out) throws IOException {
        Recompute recompute = new Recompute(out);
        recompute.print(SignedMemo.from(memo));
        out.flush();
        return recompute.apart;
    }

    private void print(SignedMemo memo) throws IOException {
        out.printf(Locale.ROOT, "%-50s %20s %20s %12s%n", "figure", "memo", "recomputed", "difference");
        boolean same = memo.checksum().equals(memo.namedChecksum());
        apart += same ? 0 : 1;
        out.printf(
                Locale.ROOT,
                "%-50s %20s %20s %12s%n",
                "archive (SHA-256)",
                shortened(memo.namedChecksum()),
                shortened(memo.checksum()),
                same ? "none" : "ANOTHER");
        Map<String, Double> found = Figures.of(memo);
        int figures = 0;
        for (JsonNode figure : memo.figures()) {
            figures++;
            line(figure.path("name").asString(), figure.path("value").asDouble(), found);
        }
        out.printf(Locale.ROOT, "%d figures, %s%n", figures, apart == 0 ? "none apart" : apart + " apart");
    }

    private static String shortened(String checksum) {
        int shown = 16;
        return checksum.length() > shown ? checksum.substring(0, shown) + "…" : checksum;
    }

    private void line(String name, double value, Map<String, Double> found) {
        Double again = found.get(name);
        boolean close = again != null && Math.abs(again - value) <= TOLERANCE * Math.max(1, Math.abs(value));
        apart += close ? 0 : 1;
        out.printf(
                Locale.ROOT,
                "%-50s %20.9f %20s %12s%n",
                name,
                value,
                again == null ? "none" : String.format(Locale.ROOT, "%.9f", again),
                again == null ? "MISSING" : String.format(Locale.ROOT, close ? "%.1e" : "%.1e APART", again - value));
    }
}
