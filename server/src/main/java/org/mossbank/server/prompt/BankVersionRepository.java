package org.mossbank.server.prompt;

import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface BankVersionRepository extends JpaRepository<BankVersion, BankVersion.Key> {
    /** A version without its specimens, which may be long. */
    record Listed(
            UUID bankPromptId, int number, String kind, String title, String content, int specimens, Instant savedAt) {}

    /** The newest version of each kept prompt. */
    @Query("select new org.mossbank.server.prompt.BankVersionRepository$Listed(v.key.bankPromptId, v.key.number,"
            + " v.kind, v.title, v.content, v.specimenCount, v.savedAt) from BankVersion v where v.key.number ="
            + " (select max(o.key.number) from BankVersion o where o.key.bankPromptId = v.key.bankPromptId)")
    List<Listed> newest();

    @Query("select v from BankVersion v where v.key.bankPromptId = :bankPrompt order by v.key.number")
    List<BankVersion> of(UUID bankPrompt);
}
