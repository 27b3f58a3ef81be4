package org.mossbank.server.cost;

import java.util.Optional;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.repository.Repository;

interface StatedUseRepository extends Repository<StatedUse, StudyId> {
    Optional<StatedUse> findById(StudyId study);

    void deleteById(StudyId study);
}
