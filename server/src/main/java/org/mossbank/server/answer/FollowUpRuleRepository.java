package org.mossbank.server.answer;

import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;

interface FollowUpRuleRepository extends JpaRepository<FollowUpRule, StudyId> {}
