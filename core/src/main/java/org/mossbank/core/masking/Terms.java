package org.mossbank.core.masking;

import java.util.List;

/**
 * What a study knows of its candidates that a rater must not read.
 *
 * @param names    candidates' names; a person's, too, where a baseline is theirs
 * @param versions candidates' versions
 * @param vendors  words that the lead lists: makers, families of models, tools, nicknames
 */
public record Terms(List<String> names, List<String> versions, List<String> vendors) {
    public Terms {
        names = List.copyOf(names);
        versions = List.copyOf(versions);
        vendors = List.copyOf(vendors);
    }
}
