package org.mossbank.server.answer;

import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface FollowUpRuleRepository extends JpaRepository<FollowUpRule, UUID> {}
