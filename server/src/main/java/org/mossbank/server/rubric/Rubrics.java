package org.mossbank.server.rubric;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The rubric of a study, for other modules. */
@Service
@Transactional(readOnly = true)
public class Rubrics {
    private static final int CACHED_VERSIONS = 200;

    private final RubricVersionRepository versions;
    private final CriterionRepository criteria;
    private final EntityManager entities;
    /** What is published never changes, and every grade asks for it. */
    private final Cache<UUID, List<CriterionView>> published =
            Caffeine.newBuilder().maximumSize(CACHED_VERSIONS).build();

    Rubrics(RubricVersionRepository versions, CriterionRepository criteria, EntityManager entities) {
        this.versions = versions;
        this.criteria = criteria;
        this.entities = entities;
    }

    /**
     * A version with its criteria.
     *
     * @param publishedAt absent for a draft
     */
    public record NewVersion(
            int number, @Nullable Instant publishedAt, String note, boolean inUse, List<CriterionContent> criteria) {}

    /** Adds a version and returns the ids of its criteria by key; each criterion has a key. */
    @SystemOnly
    @Transactional
    public Map<String, CriterionId> add(StudyId study, NewVersion start) {
        RubricVersion version = RubricVersion.draft(study, start.number());
        if (start.publishedAt() != null) {
            version.publish(start.publishedAt(), start.note());
        }
        if (start.inUse()) {
            version.use();
        }
        entities.persist(version);
        entities.flush();
        return write(version.id(), start.criteria());
    }

    @SystemOnly
    Map<String, CriterionId> write(UUID version, List<CriterionContent> contents) {
        Map<String, CriterionId> ids = new LinkedHashMap<>();
        for (CriterionContent content : contents) {
            String key = String.valueOf(content.key());
            Criterion criterion = Criterion.of(version, key, content, ids.size());
            entities.persist(criterion);
            ids.put(key, criterion.id());
        }
        return ids;
    }

    /** The criteria that count: of the version in use, or while there is none, of the newest, draft or not. */
    @SystemOnly
    public List<CriterionView> ofStudy(StudyId study) {
        return current(study).map(this::of).orElse(List.of());
    }

    /** The same of some studies, however many, with two questions. */
    @SystemOnly
    public Map<StudyId, List<CriterionView>> ofStudies(Collection<StudyId> studies) {
        Map<StudyId, RubricVersion> counting = new HashMap<>();
        versions.findByStudyIdInOrderByNumber(studies).stream()
                .collect(Collectors.groupingBy(RubricVersion::studyId))
                .forEach((study, all) -> current(all).ifPresent(v -> counting.put(study, v)));
        Map<UUID, List<CriterionView>> found = criteria
                .findByRubricVersionIdInOrderByPlace(
                        counting.values().stream().map(RubricVersion::id).toList())
                .stream()
                .collect(Collectors.groupingBy(
                        Criterion::rubricVersionId, Collectors.mapping(Criterion::view, Collectors.toList())));
        return studies.stream()
                .distinct()
                .collect(Collectors.toMap(
                        Function.identity(),
                        s -> Optional.ofNullable(counting.get(s))
                                .map(v -> found.get(v.id()))
                                .orElse(List.of())));
    }

    /** The criteria of a published version; without one, those that count. */
    @SystemOnly
    public List<CriterionView> by(StudyId study, @Nullable Integer number) {
        return number == null
                ? ofStudy(study)
                : versions.findByStudyIdOrderByNumber(study).stream()
                        .filter(v -> v.number() == number)
                        .findFirst()
                        .map(this::of)
                        .orElseThrow();
    }

    /** The number of the newest version that is published; empty if none is. */
    @SystemOnly
    public OptionalInt newestPublished(StudyId study) {
        return versions.findByStudyIdOrderByNumber(study).stream()
                .filter(v -> !v.isDraft())
                .mapToInt(RubricVersion::number)
                .max();
    }

    /** The version that counts, as {@link #ofStudy} has it. */
    @SystemOnly
    public Optional<VersionView> version(StudyId study) {
        return current(study).map(RubricVersion::view);
    }

    /** The version that counts, with its criteria. */
    @SystemOnly
    Optional<VersionCriteria> counting(StudyId study) {
        return current(study).map(v -> new VersionCriteria(v.view(), of(v)));
    }

    @SystemOnly
    Optional<RubricVersion> current(StudyId study) {
        return current(versions.findByStudyIdOrderByNumber(study));
    }

    /** @param all by number */
    private static Optional<RubricVersion> current(List<RubricVersion> all) {
        return all.stream()
                .filter(RubricVersion::isInUse)
                .findFirst()
                .or(() -> all.isEmpty() ? Optional.empty() : Optional.of(all.get(all.size() - 1)));
    }

    @SystemOnly
    List<CriterionView> of(RubricVersion version) {
        return version.isDraft() ? read(version.id()) : published.get(version.id(), this::read);
    }

    private List<CriterionView> read(UUID version) {
        return criteria.findByRubricVersionIdOrderByPlace(version).stream()
                .map(Criterion::view)
                .toList();
    }

    /** A version with its criteria, oldest first. */
    public record VersionCriteria(VersionView version, List<CriterionView> criteria) {}

    @SystemOnly
    public List<VersionCriteria> all(StudyId study) {
        return versions.findByStudyIdOrderByNumber(study).stream()
                .map(v -> new VersionCriteria(v.view(), of(v)))
                .toList();
    }

    /**
     * Fixes the newest version as the one that the round is graded by.
     *
     * @throws IllegalStateException if it is a draft
     */
    @SystemOnly
    @Transactional
    public void use(StudyId study) {
        RubricVersion newest = current(study).orElseThrow();
        if (newest.isDraft()) {
            throw new IllegalStateException("rubric must be published before a round: " + study);
        }
        newest.use();
    }
}
