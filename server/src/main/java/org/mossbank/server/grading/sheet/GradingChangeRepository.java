package org.mossbank.server.grading.sheet;

import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

public interface GradingChangeRepository extends JpaRepository<GradingChange, UUID> {}
