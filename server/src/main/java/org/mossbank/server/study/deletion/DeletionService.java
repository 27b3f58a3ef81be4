package org.mossbank.server.study.deletion;

import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Timestamp;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.account.Actor;
import org.mossbank.server.audit.Audit;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.FiguresChanged;
import org.mossbank.server.study.Role;
import org.mossbank.server.study.Studies;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Deletes and brings back. Whoever belonged to a study belongs to it no more while it stands deleted, so that every way to it is
 * shut at one place: whatever asks who somebody is in a study finds nobody.
 */
@Service
@Transactional
class DeletionService {
    /** For so long it can be undone. */
    static final Duration UNDONE_WITHIN = Duration.ofDays(30);

    private static final int MOST_LISTED = 200;

    private final JdbcClient database;
    private final Studies studies;
    private final Accounts accounts;
    private final Audit audit;
    private final Actor actor;
    private final Duration backupsKept;
    private final ApplicationEventPublisher events;

    DeletionService(
            JdbcClient database,
            Studies studies,
            Accounts accounts,
            Audit audit,
            Actor actor,
            ApplicationEventPublisher events,
            @Value("${mossbank.backup-days}") int backupDays) {
        this.backupsKept = Duration.ofDays(backupDays);
        this.database = database;
        this.studies = studies;
        this.accounts = accounts;
        this.audit = audit;
        this.actor = actor;
        this.events = events;
    }

    /** @param title of the study, as its lead writes it to show that it is meant */
    record DeleteStudy(@NotBlank @Size(max = 200) String title) {}

    /**
     * @throws Problem 403 unless whoever asks has shown a short while ago who they are; 400 if the title is another
     */
    @PreAuthorize("@studyAccess.mayLead(#study) and @recentProof.isGiven()")
    public void delete(StudyId study, DeleteStudy request) {
        studies.claim(study);
        String title = studies.get(study).title();
        if (!title.strip().equals(request.title().strip())) {
            throw Problem.invalid("title", "is not the title of this study");
        }
        audit.keep(AuditSort.STUDY_DELETED, study, title);
        events.publishEvent(new Studies.StudyDeleted(study));
        database.sql("update study set deleted_at = ?, deleted_by = ?, version = version + 1 where id = ?")
                .params(Timestamp.from(actor.now()), signInName(), study.value())
                .update();
        database.sql("""
                        with gone as (delete from membership where study_id = ?
                            returning study_id, account_id, role, reads, grades, accepted, left_number)
                        insert into deleted_membership (study_id, account_id, role, reads, grades, accepted, left_number)
                            select study_id, account_id, role, reads, grades, accepted, left_number from gone""").param(study.value()).update();
        database.sql("delete from scheduled_tasks where task_name = 'mail'"
                        + " and position(cast(? as text) in convert_from(task_data, 'UTF8')) > 0")
                .param(study.toString())
                .update();
    }

    private String signInName() {
        return Require.known(accounts.byId(List.of(actor.id())), actor.id()).signInName();
    }

    /**
     * A study that stands deleted.
     *
     * @param deletedAt when it was deleted
     * @param role      what the person asking was in it
     * @param deletedBy a name
     * @param goesAt    when all of it goes for good
     * @param inBackupsUntil when the last backup goes that still holds it
     */
    record DeletedStudy(
            StudyId id,
            String title,
            Role role,
            Instant deletedAt,
            String deletedBy,
            Instant goesAt,
            Instant inBackupsUntil) {
        private static DeletedStudy from(ResultSet row, Duration backups) throws SQLException {
            Instant at = row.getTimestamp("deleted_at").toInstant();
            Role role = row.getBoolean("reads") ? Role.READER : Role.valueOf(row.getString("role"));
            return new DeletedStudy(
                    new StudyId(row.getObject("id", UUID.class)),
                    row.getString("title"),
                    role,
                    at,
                    row.getString("deleter"),
                    at.plus(UNDONE_WITHIN),
                    at.plus(UNDONE_WITHIN).plus(backups));
        }
    }

    /** Those of whoever asks, the last deleted first; somebody who had not accepted yet has none. */
    @PreAuthorize("isAuthenticated()")
    @Transactional(readOnly = true)
    public List<DeletedStudy> own() {
        return database.sql("""
                        select s.id, s.title, s.deleted_at, m.role, m.reads,
                            coalesce(a.display_name, s.deleted_by) as deleter
                        from deleted_membership m join study s on s.id = m.study_id
                            left join account a on a.sign_in_name = s.deleted_by
                        where m.account_id = ? and m.accepted order by s.deleted_at desc, s.id limit ?""")
                .params(actor.id().value(), MOST_LISTED)
                .query((row, number) -> DeletedStudy.from(row, backupsKept))
                .list();
    }

    /** @throws Problem 404 unless whoever asks led it, and it has not gone for good */
    @PreAuthorize("isAuthenticated()")
    public void undo(StudyId study) {
        boolean led = own().stream().anyMatch(s -> s.id().equals(study) && s.role() == Role.LEAD);
        // Alone against the server that lets it go for good.
        boolean there = led
                && database.sql("update study set deleted_at = null, deleted_by = null, version = version + 1"
                                        + " where id = ? and deleted_at is not null")
                                .param(study.value())
                                .update()
                        == 1;
        if (!there) {
            throw Problem.notFound("This study");
        }
        database.sql("""
                        with back as (delete from deleted_membership where study_id = ?
                            returning study_id, account_id, role, reads, grades, accepted, left_number)
                        insert into membership (study_id, account_id, role, reads, grades, accepted, left_number)
                            select study_id, account_id, role, reads, grades, accepted, left_number from back""").param(study.value()).update();
        // Somebody may have left meanwhile, and figures that were kept name them.
        events.publishEvent(new FiguresChanged(study));
        audit.keep(AuditSort.STUDY_DELETION_UNDONE, study, studies.get(study).title());
    }
}
