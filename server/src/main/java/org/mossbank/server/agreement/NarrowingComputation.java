package org.mossbank.server.agreement;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.HeavyWork;
import org.springframework.stereotype.Component;

/** Narrows down what parts raters. Grades are read once for each revision of them and held in memory; what is asked for is not. */
@Component
class NarrowingComputation {
    /** The largest studies take some ten megabytes each. */
    private static final int MOST_IN_MEMORY = 8;

    private record Key(StudyId study, long revision) {}

    private final AgreementBasis basis;
    private final HeavyWork heavy;
    private final Cache<Key, NarrowingBasis> inMemory =
            Caffeine.newBuilder().maximumSize(MOST_IN_MEMORY).build();

    NarrowingComputation(AgreementBasis basis, HeavyWork heavy) {
        this.basis = basis;
        this.heavy = heavy;
    }

    /** @param revision of the grades */
    NarrowedReport of(StudyId study, long revision, NarrowTo to) {
        return ready(study, revision).narrowed(to);
    }

    NarrowingBasis ready(StudyId study, long revision) {
        return inMemory.get(new Key(study, revision), k -> read(study));
    }

    /** Of a study that has no round yet nothing is kept: there is no revision to keep it by, and little to read. */
    NarrowedReport before(StudyId study, NarrowTo to) {
        return read(study).narrowed(to);
    }

    private NarrowingBasis read(StudyId study) {
        AgreementData data = basis.of(study);
        return heavy.run(() -> NarrowingBasis.of(data));
    }
}
