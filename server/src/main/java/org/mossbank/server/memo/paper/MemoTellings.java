package org.mossbank.server.memo.paper;

import java.util.ArrayList;
import java.util.List;
import org.mossbank.server.memo.document.EntryView;
import org.mossbank.server.memo.document.MemoHead;
import org.mossbank.server.memo.document.PartInHand;
import org.mossbank.server.memo.document.WholeMemo;
import org.mossbank.server.shared.wording.Numerals;

/** What is told of a memo itself, on whatever it is written down. */
final class MemoTellings {
    private MemoTellings() {}

    /** Which version it is, who signed it, and what its figures rest on. */
    static List<String> state(WholeMemo memo) {
        List<String> said = new ArrayList<>();
        MemoHead.MemoSignature signed = memo.head().signed();
        said.add(
                signed == null
                        ? "Draft of version " + memo.head().number() + ", not signed; figures as of "
                                + Numerals.moment(memo.document().at()) + "."
                        : "Version " + memo.head().number() + ", signed by " + signed.by() + " on "
                                + Numerals.moment(signed.at()) + ".");
        if (!memo.head().change().isEmpty()) {
            said.add("What this version says otherwise, and why: "
                    + PartInHand.sentence(memo.head().change()));
        }
        if (!memo.checksum().isEmpty()) {
            said.add("Its figures rest on the archive with the SHA-256 checksum " + memo.checksum() + ".");
        }
        return said;
    }

    static String entry(EntryView entry) {
        String words = entry.words().isEmpty() ? "" : PartInHand.sentence(entry.words());
        return switch (entry.sort()) {
            case COUNTERSIGNED -> ("Countersigned. " + words).strip();
            case DECIDED -> "Decided by " + entry.decidedBy() + ": " + words;
            case NOTE -> words;
        };
    }
}
