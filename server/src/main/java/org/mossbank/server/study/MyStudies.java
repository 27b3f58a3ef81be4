package org.mossbank.server.study;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.Actor;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.study.people.Membership;
import org.mossbank.server.study.people.MembershipRepository;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** One's studies to look through. However many there are, as many questions are asked. */
@Service
@Transactional(readOnly = true)
class MyStudies {
    private final StudyRepository studies;
    private final MembershipRepository memberships;
    private final RoundStage rounds;
    private final List<WaitsForLead> waits;
    private final Actor actor;

    MyStudies(
            StudyRepository studies,
            MembershipRepository memberships,
            RoundStage rounds,
            List<WaitsForLead> waits,
            Actor actor) {
        this.studies = studies;
        this.memberships = memberships;
        this.rounds = rounds;
        this.waits = waits;
        this.actor = actor;
    }

    /** In which order studies come. */
    enum Order {
        NEWEST,
        OLDEST,
        TITLE
    }

    /**
     * Which studies are wanted.
     *
     * @param part  of a title
     * @param stage only of this stage
     * @param role  only those in which one is this
     * @param away  those that were put away instead of the others
     * @param order newest first if it is absent
     * @param from  the first of them, from 0
     */
    record StudyQuery(
            @Size(max = 200) @Nullable String part,
            RoundStage.@Nullable Stage stage,
            @Nullable Role role,
            @Nullable Boolean away,
            @Nullable Order order,
            @Min(0) @Max(1_000_000) @Nullable Integer from) {
        private boolean holds(StudyLine line) {
            return (part == null
                            || line.title()
                                    .toLowerCase(Locale.ROOT)
                                    .contains(part.strip().toLowerCase(Locale.ROOT)))
                    && (stage == null || line.stage() == stage)
                    && (role == null || line.role() == role)
                    && Boolean.TRUE.equals(away) == (line.putAwayAt() != null);
        }

        private Comparator<StudyLine> comparator() {
            Comparator<StudyLine> newest =
                    Comparator.comparing(StudyLine::createdAt).reversed();
            return order == null
                    ? newest
                    : switch (order) {
                        case NEWEST -> newest;
                        case OLDEST -> newest.reversed();
                        case TITLE -> Comparator.comparing(l -> l.title().toLowerCase(Locale.ROOT));
                    };
        }
    }

    /**
     * A study in a list.
     *
     * @param role      what the person asking is in it
     * @param stage     how far its round is
     * @param putAwayAt since when it is out of the way; absent where it is not
     * @param waits     what waits for the person asking as its lead; absent where nothing does
     */
    record StudyLine(
            StudyId id,
            String title,
            Instant createdAt,
            Role role,
            RoundStage.Stage stage,
            @Nullable Instant putAwayAt,
            @Nullable String waits) {
        StudyLine withWaits(@Nullable String line) {
            return new StudyLine(id, title, createdAt, role, stage, putAwayAt, line);
        }
    }

    /**
     * @param total how many there are of the kind that was asked for
     * @param away  how many are put away
     */
    record StudyLines(List<StudyLine> studies, int total, int away) {}

    private static final int PAGE = 25;

    @PreAuthorize("isAuthenticated()")
    public StudyLines page(StudyQuery query) {
        Map<StudyId, Membership> own = memberships.ofAccount(actor.id()).stream()
                .collect(Collectors.toMap(Membership::studyId, Function.identity()));
        List<StudyRepository.Head> heads = studies.headsOf(actor.id());
        Map<StudyId, RoundStage.Stage> stages =
                rounds.ofAll(heads.stream().map(StudyRepository.Head::id).toList());
        List<StudyLine> all = heads.stream()
                .map(h -> new StudyLine(
                        h.id(),
                        h.title(),
                        h.createdAt(),
                        Require.known(own, h.id()).role(),
                        Require.known(stages, h.id()),
                        h.putAwayAt(),
                        null))
                .toList();
        List<StudyLine> wanted =
                all.stream().filter(query::holds).sorted(query.comparator()).toList();
        int from = Math.min(query.from() == null ? 0 : query.from(), wanted.size());
        List<StudyLine> page = wanted.subList(from, Math.min(from + PAGE, wanted.size()));
        Map<StudyId, String> waiting = waitsOf(page);
        return new StudyLines(
                page.stream().map(l -> l.withWaits(waiting.get(l.id()))).toList(), wanted.size(), (int)
                        all.stream().filter(l -> l.putAwayAt() != null).count());
    }

    private Map<StudyId, String> waitsOf(List<StudyLine> page) {
        Map<StudyId, String> waiting = new HashMap<>();
        for (WaitsForLead one : waits) {
            Set<StudyId> led = page.stream()
                    .filter(l -> l.role() == Role.LEAD && l.stage() == one.stage() && l.putAwayAt() == null)
                    .map(StudyLine::id)
                    .collect(Collectors.toSet());
            if (!led.isEmpty()) {
                waiting.putAll(one.of(led));
            }
        }
        return waiting;
    }
}
