package org.mossbank.server.candidate;

import java.util.List;
import java.util.stream.Collectors;
import org.mossbank.server.ids.CandidateId;

/**
 * A candidate of a study. Only the lead sees it, and raters after the round.
 *
 * @param version counts up with every change; sent back with the next one
 */
public record CandidateView(CandidateId id, String key, CandidateContent content, long version) {
    public String name() {
        return content.name();
    }

    public boolean isBaseline() {
        return content.baseline();
    }

    /** Facts for which it cannot be taken, whatever the grades say. */
    public List<String> ruledOutBy() {
        return content.considerations().stream()
                .filter(c -> c.sign() == CandidateContent.Consideration.Sign.RULES_OUT)
                .map(CandidateContent.Consideration::text)
                .toList();
    }

    /** All settings in one line. */
    public String settingsLine() {
        return content.settings().stream()
                .map(s -> s.name().equals("settings") ? s.value() : s.name() + " " + s.value())
                .collect(Collectors.joining(", "));
    }
}
