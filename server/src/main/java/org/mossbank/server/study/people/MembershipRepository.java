package org.mossbank.server.study.people;

import java.util.Collection;
import java.util.List;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

public interface MembershipRepository extends JpaRepository<Membership, Membership.Key> {
    @Query("select m from Membership m where m.key.accountId = :account")
    List<Membership> ofAccount(AccountId account);

    @Query("select m from Membership m where m.key.studyId = :study")
    List<Membership> ofStudy(StudyId study);

    @Query("select m from Membership m where m.key.studyId in :studies")
    List<Membership> ofStudies(Collection<StudyId> studies);
}
