package org.mossbank.server.study.people;

import java.time.Clock;
import org.mossbank.server.audit.Audit;
import org.springframework.stereotype.Component;

/** When something is done, and where it is written down. */
@Component
record Moment(Clock clock, Audit audit) {}
