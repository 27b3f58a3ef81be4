package org.mossbank.server.study;

import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface MembershipRepository extends JpaRepository<Membership, Membership.Key> {
    @Query("select m from Membership m where m.key.accountId = :account")
    List<Membership> ofAccount(UUID account);

    @Query("select m from Membership m where m.key.studyId = :study")
    List<Membership> ofStudy(UUID study);
}
