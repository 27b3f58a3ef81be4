package org.mossbank.server.audit;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.domain.Sort;
import org.springframework.data.jpa.domain.Specification;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What people read of what was done. */
@Service
@Transactional(readOnly = true)
class AuditService {
    private final AuditEventRepository events;

    AuditService(AuditEventRepository events) {
        this.events = events;
    }

    /** Lines of one answer. */
    static final int MOST = 1000;

    /**
     * Which lines are wanted.
     *
     * @param before only lines with a lower number, the newest if it is absent
     * @param who    only what this sign-in name did
     * @param sort   only of this sort
     * @param limit  how many at most
     */
    record AuditQuery(
            @Min(1) @Nullable Long before,
            @Size(max = 64) @Nullable String who,
            @Nullable AuditSort sort,
            @Min(1) @Max(MOST) @Nullable Integer limit) {
        static final int USUAL_LIMIT = 100;

        int most() {
            return limit == null ? USUAL_LIMIT : limit;
        }

        /** The same in as large pages as there are. */
        AuditQuery atOnce() {
            return new AuditQuery(before, who, sort, MOST);
        }

        /** What comes after these lines. */
        AuditQuery after(long number) {
            return new AuditQuery(number, who, sort, limit);
        }
    }

    /** @param next what is sent as {@code before} to go on; absent at the end */
    record AuditPage(List<AuditEventView> events, @Nullable Long next) {}

    /** Of one study, newest first. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public AuditPage ofStudy(StudyId study, AuditQuery query) {
        return page(query, study, UnaryOperator.identity());
    }

    /** Of everything, newest first; what was done in a study without its content. */
    @PreAuthorize("@accountAccess.isAdministrator()")
    public AuditPage all(AuditQuery query) {
        return page(query, null, AuditEventView::withoutContent);
    }

    private AuditPage page(AuditQuery query, @Nullable StudyId study, UnaryOperator<AuditEventView> shown) {
        List<AuditEventView> found = events
                .findBy(
                        matching(query, study),
                        q -> q.sortBy(Sort.by(Sort.Direction.DESC, "number"))
                                .limit(query.most() + 1)
                                .all())
                .stream()
                .map(AuditEvent::view)
                .map(shown)
                .toList();
        boolean more = found.size() > query.most();
        List<AuditEventView> page = more ? found.subList(0, query.most()) : found;
        return new AuditPage(page, more ? page.get(page.size() - 1).number() : null);
    }

    private static Specification<AuditEvent> matching(AuditQuery query, @Nullable StudyId study) {
        List<Specification<AuditEvent>> all = new ArrayList<>();
        if (study != null) {
            all.add((event, q, is) -> is.equal(event.get("studyId"), study));
        }
        if (query.before() != null) {
            all.add((event, q, is) -> is.lessThan(event.get("number"), query.before()));
        }
        if (query.sort() != null) {
            all.add((event, q, is) -> is.equal(event.get("sort"), query.sort()));
        }
        if (query.who() != null) {
            String name = query.who().strip().toLowerCase(Locale.ROOT);
            all.add((event, q, is) -> is.equal(event.get("who"), name));
        }
        return Specification.allOf(all);
    }
}
