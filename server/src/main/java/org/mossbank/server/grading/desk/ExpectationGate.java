package org.mossbank.server.grading.desk;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;

/** Keeps a rater from every answer until they have said what they expect, if the brief asks. */
@Component
class ExpectationGate {
    private static final int MOST = 20_000;
    /** A brief that is reopened may begin to ask; it holds from then on, or a little later. */
    private static final Duration KEPT = Duration.ofSeconds(20);

    private record Rater(StudyId study, AccountId rater) {}

    private final Studies studies;
    private final Cache<Rater, Boolean> passed =
            Caffeine.newBuilder().maximumSize(MOST).expireAfterWrite(KEPT).build();

    ExpectationGate(Studies studies) {
        this.studies = studies;
    }

    /** @throws Problem 409 if the rater has not said it yet */
    void refuseBefore(StudyId study, AccountId rater) {
        Rater key = new Rater(study, rater);
        if (passed.getIfPresent(key) != null) {
            return;
        }
        if (studies.awaitsExpectation(study, rater)) {
            throw new Problem(
                            ProblemType.EXPECTATION_FIRST,
                            "Before you see any answer, say what you expect; nobody reads it before the recommendation.")
                    .with("studyId", study);
        }
        passed.put(key, true);
    }
}
