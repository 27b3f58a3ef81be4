package org.mossbank.server.grading.reminding;

import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;

public interface ReminderRepository extends JpaRepository<Reminder, UUID> {
    List<Reminder> findByRaterIdAndReadAtIsNullOrderBySentAtDesc(AccountId raterId);

    List<Reminder> findByStudyIdOrderBySentAt(StudyId studyId);
}
