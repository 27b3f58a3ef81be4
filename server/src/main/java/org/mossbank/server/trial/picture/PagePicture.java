package org.mossbank.server.trial.picture;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.util.Objects;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.RepairId;
import org.mossbank.server.ids.StudyId;

/** A picture that was taken in a trial, or in a trial of a repair. It stays as it is, and goes with them. */
@Entity
class PagePicture {
    @Id
    private UUID id;

    private StudyId studyId;
    private @Nullable UUID trialId;
    private @Nullable RepairId repairId;

    /** In the order in which the result tells of them, from 0. */
    private int place;

    private int bytes;
    private byte[] png;

    @SuppressWarnings("NullAway.Init")
    protected PagePicture() {}

    static PagePicture ofTrial(StudyId study, UUID trial, int place, byte[] png) {
        PagePicture picture = of(study, place, png);
        picture.trialId = trial;
        return picture;
    }

    static PagePicture ofRepair(StudyId study, RepairId repair, int place, byte[] png) {
        PagePicture picture = of(study, place, png);
        picture.repairId = repair;
        return picture;
    }

    private static PagePicture of(StudyId study, int place, byte[] png) {
        PagePicture picture = new PagePicture();
        picture.id = UUID.randomUUID();
        picture.studyId = study;
        picture.place = place;
        picture.bytes = png.length;
        picture.png = png.clone();
        return picture;
    }

    /** The trial, or the repair. */
    Object owner() {
        return trialId == null ? Objects.requireNonNull(repairId) : trialId;
    }

    int place() {
        return place;
    }

    byte[] png() {
        return png.clone();
    }
}
