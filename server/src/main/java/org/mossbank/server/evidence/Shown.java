package org.mossbank.server.evidence;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.change.ChangedLine;
import org.mossbank.core.change.FileChange;
import org.mossbank.core.change.Hunk;
import org.mossbank.core.trial.CheckItem;
import org.mossbank.core.trial.CompilerMessage;
import org.mossbank.server.answer.FileChangeView;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.page.PictureOfPage;
import org.mossbank.server.trial.InputEnd;
import org.mossbank.server.trial.Repairs.RepairMade;
import org.mossbank.server.trial.TrialResult;

/**
 * What came of trials as raters read it: a program can print a name as well as an answer can, and a path can hold one.
 *
 * @param masked a text of it, as it may be shown
 * @param named  whether something is masked in the answer itself
 */
record Shown(UnaryOperator<String> masked, boolean named) {
    /** How long things took says what ran where, and is nobody's grade. */
    private static final Pattern TIMES =
            Pattern.compile("\\b\\d{1,9} ?ms\\b|\\bduration_ms:? \\d{1,9}(?:\\.\\d{1,9})?");

    /** Of what stands on a page, for those who cannot see its picture. */
    private static final int MOST_TEXT = 4_000;

    /** Paths by how they are shown, in their order; two that are shown alike are told apart by a number. */
    Map<String, String> paths(Collection<String> paths) {
        Map<String, String> byShown = new LinkedHashMap<>();
        for (String path : paths) {
            String shown = masked.apply(path);
            String key = shown;
            for (int number = 2; byShown.containsKey(key); number++) {
                key = shown + " (" + number + ")";
            }
            byShown.put(key, path);
        }
        return byShown;
    }

    TrialsOnSheet.ResultOnSheet result(TrialResult result) {
        return new TrialsOnSheet.ResultOnSheet(
                result.summary(),
                result.items().stream().map(this::item).toList(),
                result.messages().stream()
                        .map(m -> new TrialResult.MessageOfLine(message(m.message()), m.answerLine()))
                        .toList(),
                masked.apply(TIMES.matcher(result.log()).replaceAll("… ms")),
                repository(result.repository()),
                result.pictures().stream().map(this::picture).toList());
    }

    private TrialsOnSheet.PictureOnSheet picture(PictureOfPage about) {
        boolean held = isHeld(about);
        return new TrialsOnSheet.PictureOnSheet(
                about.width(),
                about.height(),
                about.step(),
                held ? "" : about.text().substring(0, Math.min(about.text().length(), MOST_TEXT)),
                held);
    }

    /** A picture cannot be masked: one that may name somebody is not shown. */
    boolean isHeld(PictureOfPage about) {
        return !masked.apply(about.text()).equals(about.text()) || about.unread() && named;
    }

    private TrialResult.@Nullable RepositoryEnd repository(TrialResult.@Nullable RepositoryEnd end) {
        return end == null
                ? null
                : new TrialResult.RepositoryEnd(end.commit(), all(end.changed()), all(end.outside()), all(end.fits()));
    }

    private List<String> all(List<String> texts) {
        return texts.stream().map(masked).toList();
    }

    private CheckItem item(CheckItem item) {
        return new CheckItem(
                item.sort(),
                masked.apply(item.name()),
                item.outcome(),
                masked.apply(item.expected()),
                masked.apply(item.came()),
                masked.apply(item.why()),
                item.change());
    }

    private CompilerMessage message(CompilerMessage message) {
        return new CompilerMessage(
                masked.apply(message.path()),
                message.line(),
                message.sort(),
                masked.apply(message.text()),
                message.deprecated());
    }

    TrialsOnSheet.RepairOnSheet repair(RepairMade repair, AccountId reader) {
        return new TrialsOnSheet.RepairOnSheet(
                repair.id(),
                repair.by().authorId().equals(reader),
                repair.lines(),
                repair.summary(),
                repair.changes().stream()
                        .map(c -> FileChangeView.between(change(c)))
                        .toList());
    }

    private FileChange change(FileChange change) {
        return new FileChange(
                masked.apply(change.path()),
                masked.apply(change.from()),
                change.sort(),
                change.hunks().stream().map(this::hunk).toList(),
                change.coarse());
    }

    private Hunk hunk(Hunk hunk) {
        List<ChangedLine> lines = hunk.lines().stream()
                .map(l -> new ChangedLine(l.kind(), masked.apply(l.text()), l.nature()))
                .toList();
        return new Hunk(hunk.before(), hunk.after(), lines);
    }

    InputEnd end(InputEnd end) {
        return new InputEnd(
                end.notBuilt(), end.end(), end.status(), masked.apply(end.output()), masked.apply(end.errors()));
    }
}
