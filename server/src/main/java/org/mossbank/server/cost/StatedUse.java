package org.mossbank.server.cost;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import org.mossbank.server.candidate.TeamUse;
import org.mossbank.server.ids.StudyId;

/** How a study's team would use what it chooses. Decides nothing. */
@Entity
class StatedUse {
    @Id
    private StudyId studyId;

    private int people;
    private double tasksPerDay;
    private int daysPerMonth;
    private Instant statedAt;
    private String statedBy;

    @SuppressWarnings("NullAway.Init")
    protected StatedUse() {}

    static StatedUse of(StudyId study, TeamCostReport.StatedUseView stated) {
        StatedUse use = new StatedUse();
        use.studyId = study;
        use.state(stated.use(), stated.at(), stated.by());
        return use;
    }

    void state(TeamUse use, Instant at, String by) {
        people = use.people();
        tasksPerDay = use.tasksPerDay();
        daysPerMonth = use.daysPerMonth();
        statedAt = at;
        statedBy = by;
    }

    TeamCostReport.StatedUseView view() {
        return new TeamCostReport.StatedUseView(new TeamUse(people, tasksPerDay, daysPerMonth), statedAt, statedBy);
    }
}
