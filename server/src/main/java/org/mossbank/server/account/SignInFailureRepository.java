package org.mossbank.server.account;

import java.time.Instant;
import org.springframework.data.jpa.repository.JpaRepository;

interface SignInFailureRepository extends JpaRepository<SignInFailure, Long> {
    long countBySubjectAndAtAfter(String subject, Instant since);

    void deleteBySubject(String subject);

    void deleteByAtBefore(Instant before);
}
