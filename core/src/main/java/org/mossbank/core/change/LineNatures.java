package org.mossbank.core.change;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Tells lines that only moved, or only changed in their white space, from lines that say something else. A line that is
 * short and stands alone, such as a closing brace, is too common for a move to be told.
 */
final class LineNatures {
    /** Letters and digits that make a line worth following. */
    private static final int LEAST_WORDS = 3;

    /** A line of at least so many characters is followed even if it moved alone. */
    private static final int LONG_ENOUGH_ALONE = 24;

    /** A changed line of some hunk of some file. */
    private record Spot(int file, int hunk, int line) {
        Spot after(int step) {
            return new Spot(file, hunk, line + step);
        }
    }

    private final List<FileChange> changes;
    private final Map<Spot, ChangedLine.Nature> natures = new HashMap<>();
    private final Map<Spot, Spot> twins = new HashMap<>();

    private LineNatures(List<FileChange> changes) {
        this.changes = changes;
    }

    /** The same changes, each line with its nature; linear in the number of lines. */
    static List<FileChange> told(List<FileChange> changes) {
        LineNatures all = new LineNatures(changes);
        all.spacing();
        all.moves();
        return all.rewritten();
    }

    private ChangedLine at(Spot spot) {
        return changes.get(spot.file).hunks().get(spot.hunk).lines().get(spot.line);
    }

    private List<Spot> changed() {
        List<Spot> spots = new ArrayList<>();
        for (int f = 0; f < changes.size(); f++) {
            for (int h = 0; h < changes.get(f).hunks().size(); h++) {
                List<ChangedLine> lines = changes.get(f).hunks().get(h).lines();
                for (int i = 0; i < lines.size(); i++) {
                    if (lines.get(i).kind() != ChangedLine.Kind.KEPT) {
                        spots.add(new Spot(f, h, i));
                    }
                }
            }
        }
        return spots;
    }

    /** Pairs removed with added lines within one stretch of changed lines, in their order. */
    private void spacing() {
        List<Spot> stretch = new ArrayList<>();
        Spot last = null;
        for (Spot spot : changed()) {
            if (last != null && !last.after(1).equals(spot)) {
                pairWithin(stretch);
                stretch.clear();
            }
            stretch.add(spot);
            last = spot;
        }
        pairWithin(stretch);
    }

    private void pairWithin(List<Spot> stretch) {
        Map<String, Deque<Spot>> added = new HashMap<>();
        for (Spot spot : stretch) {
            if (at(spot).kind() == ChangedLine.Kind.ADDED) {
                added.computeIfAbsent(withoutSpace(spot), t -> new ArrayDeque<>())
                        .add(spot);
            }
        }
        Spot latest = null;
        for (Spot spot : stretch) {
            String bare = withoutSpace(spot);
            if (at(spot).kind() != ChangedLine.Kind.REMOVED || bare.isEmpty()) {
                continue;
            }
            Deque<Spot> twins = added.getOrDefault(bare, new ArrayDeque<>());
            while (latest != null && !twins.isEmpty() && twins.peek().line <= latest.line) {
                twins.poll();
            }
            if (!twins.isEmpty()) {
                latest = twins.poll();
                natures.put(spot, ChangedLine.Nature.SPACING);
                natures.put(latest, ChangedLine.Nature.SPACING);
            }
        }
    }

    private String withoutSpace(Spot spot) {
        return at(spot).text().replaceAll("\\s+", "");
    }

    private void moves() {
        Map<String, Deque<Spot>> added = new HashMap<>();
        List<Spot> removed = new ArrayList<>();
        for (Spot spot : changed()) {
            if (natures.containsKey(spot) || !isSolid(spot)) {
                continue;
            }
            if (at(spot).kind() == ChangedLine.Kind.ADDED) {
                added.computeIfAbsent(at(spot).text().strip(), t -> new ArrayDeque<>())
                        .add(spot);
            } else {
                removed.add(spot);
            }
        }
        for (Spot spot : removed) {
            Deque<Spot> there = added.get(at(spot).text().strip());
            if (there != null && !there.isEmpty()) {
                Spot twin = there.poll();
                twins.put(spot, twin);
                twins.put(twin, spot);
            }
        }
        twins.forEach((spot, twin) -> {
            if (at(spot).text().strip().length() >= LONG_ENOUGH_ALONE || isInRun(spot, twin)) {
                natures.put(spot, ChangedLine.Nature.MOVED);
            }
        });
    }

    /** Whether a neighbour went the same way. */
    private boolean isInRun(Spot spot, Spot twin) {
        return twin.after(1).equals(twins.get(spot.after(1))) || twin.after(-1).equals(twins.get(spot.after(-1)));
    }

    private boolean isSolid(Spot spot) {
        return at(spot).text().chars().filter(Character::isLetterOrDigit).count() >= LEAST_WORDS;
    }

    private List<FileChange> rewritten() {
        List<FileChange> told = new ArrayList<>();
        for (int f = 0; f < changes.size(); f++) {
            FileChange change = changes.get(f);
            List<Hunk> hunks = new ArrayList<>();
            for (int h = 0; h < change.hunks().size(); h++) {
                hunks.add(rewritten(change.hunks().get(h), f, h));
            }
            told.add(new FileChange(change.path(), change.from(), change.sort(), hunks, change.coarse()));
        }
        return told;
    }

    private Hunk rewritten(Hunk hunk, int file, int number) {
        List<ChangedLine> lines = new ArrayList<>();
        for (int i = 0; i < hunk.lines().size(); i++) {
            ChangedLine line = hunk.lines().get(i);
            lines.add(line.with(natures.getOrDefault(new Spot(file, number, i), ChangedLine.Nature.PLAIN)));
        }
        return new Hunk(hunk.before(), hunk.after(), lines);
    }
}
