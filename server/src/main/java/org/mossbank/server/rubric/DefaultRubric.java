package org.mossbank.server.rubric;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.ids.KindId;
import tools.jackson.databind.json.JsonMapper;

/** The rubric that a new study starts from: correctness, idiom and best practice, with anchors for the four usual kinds. */
final class DefaultRubric {
    private static final String RESOURCE = "/rubric/default.json";

    private DefaultRubric() {}

    /** As the file has it: anchors by kind, from the lowest level up. */
    record Text(List<CriterionText> criteria) {}

    record CriterionText(
            String key,
            String name,
            String question,
            double weight,
            List<String> levels,
            Map<String, List<String>> anchors,
            List<String> traits) {}

    /** @param kinds ids of the study's kinds by key; anchors of other kinds are left out */
    static List<CriterionContent> of(Map<String, KindId> kinds) {
        try (InputStream in = DefaultRubric.class.getResourceAsStream(RESOURCE)) {
            return JsonMapper.shared().readValue(in, Text.class).criteria().stream()
                    .map(c -> criterion(c, kinds))
                    .toList();
        } catch (IOException e) {
            throw new UncheckedIOException("the server's jar lacks " + RESOURCE, e);
        }
    }

    private static CriterionContent criterion(CriterionText text, Map<String, KindId> kinds) {
        List<CriterionContent.LevelContent> levels = new ArrayList<>();
        for (int level = 0; level < text.levels().size(); level++) {
            int at = level;
            levels.add(new CriterionContent.LevelContent(
                    text.levels().get(level),
                    text.anchors().entrySet().stream()
                            .filter(e -> kinds.containsKey(e.getKey()))
                            .map(e -> new CriterionContent.AnchorContent(
                                    Require.known(kinds, e.getKey()),
                                    e.getValue().get(at)))
                            .toList()));
        }
        return new CriterionContent(
                text.key(), text.name(), text.question(), text.weight(), null, levels, List.of(), text.traits());
    }
}
