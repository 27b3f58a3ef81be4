package org.mossbank.server.study.people;

import java.util.List;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.mail.Waiting;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Studies that ask for somebody, in the day's letter. */
@Component
@Transactional(readOnly = true)
class AskedWaits implements Waiting {
    private final MembershipRepository memberships;
    private final Studies studies;

    AskedWaits(MembershipRepository memberships, Studies studies) {
        this.memberships = memberships;
        this.studies = studies;
    }

    @Override
    public List<String> waitsFor(AccountId account) {
        return memberships.ofAccount(account).stream()
                .filter(m -> !m.isAccepted())
                .map(m -> "a study asks for you: " + studies.get(m.studyId()).title())
                .toList();
    }
}
