package org.mossbank.server.trial;

import java.util.regex.Pattern;
import org.mossbank.core.trial.CheckItem;
import org.mossbank.core.trial.CompilerMessage;
import org.mossbank.server.page.PictureOfPage;
import org.mossbank.server.sandbox.SandboxResult;

/** What the steps of a trial wrote, one below the other, within a bound. */
final class TrialLog {
    static final int MOST = 60_000;

    private static final int MOST_A_STEP = 20_000;
    private static final String CUT = "\n… cut\n";

    /** Told to a terminal alone. */
    private static final Pattern COLOUR = Pattern.compile("\u001b\\[[0-9;]{0,20}m");

    private final StringBuilder text = new StringBuilder();

    void step(String name, SandboxResult result) {
        if (text.length() >= MOST) {
            return;
        }
        text.append("== ")
                .append(name)
                .append(" (")
                .append(result.millis())
                .append(" ms, ended with ")
                .append(result.status())
                .append(")\n");
        add(result.output());
        add(result.errors());
    }

    private void add(SandboxResult.Output output) {
        String plain = plain(output.text());
        text.append(plain, 0, Math.min(plain.length(), MOST_A_STEP));
        if (output.cut() || plain.length() > MOST_A_STEP) {
            text.append(CUT);
        } else if (!plain.isEmpty() && !plain.endsWith("\n")) {
            text.append('\n');
        }
    }

    /** What a terminal would obey, and what the database cannot hold, is shown as a mark. */
    static String plain(String colourful) {
        String output = COLOUR.matcher(colourful).replaceAll("");
        StringBuilder plain = new StringBuilder(output.length());
        output.chars()
                .forEach(c -> plain.append(
                        c == '\n' || c == '\t' || c >= ' ' && c != 0x7f && !(c >= 0x80 && c < 0xa0)
                                ? (char) c
                                : '\ufffd'));
        return plain.toString().replace("\ufffd\n", "\n");
    }

    /** An output as it can be shown, cut at what a step may add to a log. */
    static String shown(String output) {
        return cut(plain(output));
    }

    /** An item as it can be shown: what it holds of the program's output is cut, too. */
    static CheckItem plain(CheckItem item) {
        return new CheckItem(
                item.sort(),
                cut(plain(item.name())),
                item.outcome(),
                cut(item.expected()),
                cut(plain(item.came())),
                cut(plain(item.why())),
                item.change());
    }

    /** What stands on a page may be anything. */
    static PictureOfPage plain(PictureOfPage about) {
        return new PictureOfPage(about.width(), about.height(), about.step(), plain(about.text()), about.unread());
    }

    /** What a compiler says may quote the code that it reads. */
    static CompilerMessage plain(CompilerMessage message) {
        return new CompilerMessage(
                plain(message.path()), message.line(), message.sort(), plain(message.text()), message.deprecated());
    }

    private static String cut(String text) {
        return text.length() <= MOST_A_STEP ? text : text.substring(0, MOST_A_STEP) + CUT;
    }

    String text() {
        return text.length() <= MOST ? text.toString() : text.substring(0, MOST) + CUT;
    }
}
