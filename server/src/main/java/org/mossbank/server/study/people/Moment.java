package org.mossbank.server.study.people;

import java.time.Clock;
import org.mossbank.server.audit.Audit;
import org.mossbank.server.mail.Mails;
import org.mossbank.server.study.StudyPeople;
import org.springframework.stereotype.Component;

/** When something is done, where it is written down, and how people hear of it. */
@Component
record Moment(Clock clock, Audit audit, Mails mails, StudyPeople called) {}
