package org.mossbank.server.grading;

import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface ReminderRepository extends JpaRepository<Reminder, UUID> {
    List<Reminder> findByRaterIdAndReadAtIsNullOrderBySentAtDesc(UUID raterId);

    List<Reminder> findByStudyIdOrderBySentAt(UUID studyId);
}
