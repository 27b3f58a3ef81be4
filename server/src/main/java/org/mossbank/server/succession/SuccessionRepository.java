package org.mossbank.server.succession;

import java.util.Optional;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.repository.Repository;

interface SuccessionRepository extends Repository<Succession, StudyId> {
    Optional<Succession> findById(StudyId study);

    boolean existsById(StudyId study);
}
