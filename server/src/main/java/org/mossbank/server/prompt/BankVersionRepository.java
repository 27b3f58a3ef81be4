package org.mossbank.server.prompt;

import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface BankVersionRepository extends JpaRepository<BankVersion, BankVersion.Key> {
    @Query("select v from BankVersion v order by v.key.bankPromptId, v.key.number")
    List<BankVersion> all();

    @Query("select v from BankVersion v where v.key.bankPromptId = :bankPrompt order by v.key.number")
    List<BankVersion> of(UUID bankPrompt);
}
