package org.mossbank.server.trial.picture;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.mossbank.server.ids.RepairId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface PagePictureRepository extends JpaRepository<PagePicture, UUID> {
    @Query("select coalesce(sum(p.bytes), 0) from PagePicture p where p.studyId = :study")
    long bytes(StudyId study);

    Optional<PagePicture> findByTrialIdAndPlace(UUID trial, int place);

    Optional<PagePicture> findByRepairIdAndPlace(RepairId repair, int place);

    List<PagePicture> findByStudyId(StudyId study);
}
