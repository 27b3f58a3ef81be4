package org.mossbank.server.rubric;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Embeddable;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.MapKeyColumn;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.IntStream;
import org.hibernate.annotations.Fetch;
import org.hibernate.annotations.FetchMode;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.KindId;

/** A criterion in one version of a rubric; a draft's are made anew with each writing. */
@Entity
class Criterion {
    /** Which anchor: a level within a kind. */
    @Embeddable
    record AnchorKey(KindId kindId, int level) {}

    @Id
    private CriterionId id;

    private UUID rubricVersionId;
    private String key;
    private String name;
    private String question;
    private double weight;

    @Nullable
    private Double floor;

    private int highestLevel;

    @JdbcTypeCode(SqlTypes.ARRAY)
    private String[] traits;

    private int place;

    @ElementCollection
    @CollectionTable(name = "level", joinColumns = @JoinColumn(name = "criterion_id"))
    @MapKeyColumn(name = "level")
    @Column(name = "name")
    @Fetch(FetchMode.SUBSELECT)
    private Map<Integer, String> levelNames = new TreeMap<>();

    @ElementCollection
    @CollectionTable(name = "anchor", joinColumns = @JoinColumn(name = "criterion_id"))
    @Column(name = "text")
    @Fetch(FetchMode.SUBSELECT)
    private Map<AnchorKey, String> anchors = new LinkedHashMap<>();

    @ElementCollection
    @CollectionTable(name = "criterion_kind", joinColumns = @JoinColumn(name = "criterion_id"))
    @Column(name = "kind_id")
    @Fetch(FetchMode.SUBSELECT)
    private Set<KindId> kindIds = new HashSet<>();

    @SuppressWarnings("NullAway.Init")
    protected Criterion() {}

    static Criterion of(UUID rubricVersionId, String key, CriterionContent content, int place) {
        Criterion criterion = new Criterion();
        criterion.id = CriterionId.random();
        criterion.rubricVersionId = rubricVersionId;
        criterion.key = key;
        criterion.name = content.name();
        criterion.question = content.question();
        criterion.weight = content.weight();
        criterion.floor = content.floor();
        criterion.highestLevel = content.levels().size() - 1;
        criterion.traits = content.traits().toArray(String[]::new);
        criterion.place = place;
        criterion.kindIds.addAll(content.kindIds());
        for (int level = 0; level < content.levels().size(); level++) {
            criterion.describe(level, content.levels().get(level));
        }
        return criterion;
    }

    private void describe(int level, CriterionContent.LevelContent content) {
        if (!content.name().isBlank()) {
            levelNames.put(level, content.name());
        }
        content.anchors().stream()
                .filter(a -> !a.text().isBlank())
                .forEach(a -> anchors.put(new AnchorKey(a.kindId(), level), a.text()));
    }

    CriterionId id() {
        return id;
    }

    UUID rubricVersionId() {
        return rubricVersionId;
    }

    CriterionView view() {
        return new CriterionView(
                id,
                key,
                name,
                question,
                weight,
                floor,
                IntStream.rangeClosed(0, highestLevel)
                        .mapToObj(level -> new CriterionView.LevelView(
                                level, levelNames.getOrDefault(level, String.valueOf(level)), anchorsOf(level)))
                        .toList(),
                kindIds.stream().sorted().toList(),
                List.of(traits));
    }

    private List<CriterionView.AnchorView> anchorsOf(int level) {
        SortedMap<String, CriterionView.AnchorView> sorted = new TreeMap<>();
        anchors.forEach((key, text) -> {
            if (key.level() == level) {
                sorted.put(key.kindId().toString(), new CriterionView.AnchorView(key.kindId(), text));
            }
        });
        return List.copyOf(sorted.values());
    }
}
