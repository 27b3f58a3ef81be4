package org.mossbank.server.grading.reminding;

import jakarta.persistence.EntityManager;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.mail.MailOrder;
import org.mossbank.server.mail.MailSort;
import org.mossbank.server.mail.Mails;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyPeople;
import org.mossbank.server.study.StudyView;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Messages inside the application, from a lead to a rater who still has sheets. */
@Service
@Transactional
public class ReminderService {
    private final ReminderRepository reminders;
    private final Studies studies;
    private final StudyPeople people;
    private final CurrentAccount current;
    private final EntityManager entities;
    private final Mails mails;
    private final Clock clock;

    ReminderService(
            ReminderRepository reminders,
            Studies studies,
            StudyPeople people,
            CurrentAccount current,
            EntityManager entities,
            Mails mails,
            Clock clock) {
        this.reminders = reminders;
        this.studies = studies;
        this.people = people;
        this.current = current;
        this.entities = entities;
        this.mails = mails;
        this.clock = clock;
    }

    public record Remind(@NotBlank @Size(max = 1000) String words) {}

    /** @param by a name */
    public record ReminderView(UUID id, StudyId studyId, String studyTitle, String by, String words, Instant sentAt) {}

    @PreAuthorize("@studyAccess.mayLead(#study)")
    public void remind(StudyId study, AccountId rater, Remind request) {
        if (!studies.raters(study).contains(rater)) {
            throw Problem.notFound("This rater");
        }
        String by = people.name(study, current.id());
        entities.persist(Reminder.of(study, rater, by, request.words(), clock.instant()));
        mails.order(new MailOrder(rater, MailSort.REMINDER, study, by));
    }

    /** What whoever asks has not put away yet, newest first. */
    @PreAuthorize("isAuthenticated()")
    @Transactional(readOnly = true)
    public List<ReminderView> mine() {
        List<Reminder> own = reminders.findByRaterIdAndReadAtIsNullOrderBySentAtDesc(current.id());
        Map<StudyId, StudyView> byId =
                studies.byId(own.stream().map(Reminder::studyId).toList());
        return own.stream()
                .map(r -> new ReminderView(
                        r.id(),
                        r.studyId(),
                        Require.known(byId, r.studyId()).title(),
                        r.sentBy(),
                        r.words(),
                        r.sentAt()))
                .toList();
    }

    /** Only one's own; for anybody else there is none. */
    @PreAuthorize("isAuthenticated()")
    public void putAway(UUID id) {
        reminders
                .findById(id)
                .filter(r -> r.raterId().equals(current.id()))
                .orElseThrow(() -> Problem.notFound("This message"))
                .putAway(clock.instant());
    }
}
