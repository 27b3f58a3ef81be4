package org.mossbank.server.grading;

import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface GradingChangeRepository extends JpaRepository<GradingChange, UUID> {}
