package org.mossbank.server.trial.picture;

import jakarta.persistence.EntityManager;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.mossbank.server.ids.RepairId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.page.Picture;
import org.mossbank.server.page.PictureOfPage;
import org.springframework.stereotype.Component;

/** Keeps pictures of pages. Whoever calls holds the transaction. */
@Component
public class PagePictures {
    /** Of all pictures of a study: an archive holds them all, each signed memo's holds them again, and all of it is brought in at once. */
    public static final long MOST_BYTES = 16L << 20;

    /** Why pictures are not kept, in words. */
    public static final String NO_ROOM =
            "not kept: a study keeps at most " + (MOST_BYTES >> 20) + " MB of pictures of pages";

    private final PagePictureRepository pictures;
    private final EntityManager entities;

    PagePictures(PagePictureRepository pictures, EntityManager entities) {
        this.pictures = pictures;
        this.entities = entities;
    }

    /** Whether a study has room for them. */
    public boolean hasRoom(StudyId study, List<Picture> more) {
        long bytes = more.stream().mapToLong(Picture::bytes).sum();
        return bytes == 0 || pictures.bytes(study) + bytes <= MOST_BYTES;
    }

    public void keepOfTrial(StudyId study, UUID trial, List<Picture> taken) {
        for (int place = 0; place < taken.size(); place++) {
            entities.persist(
                    PagePicture.ofTrial(study, trial, place, taken.get(place).png()));
        }
    }

    public void keepOfRepair(StudyId study, RepairId repair, List<Picture> taken) {
        for (int place = 0; place < taken.size(); place++) {
            entities.persist(
                    PagePicture.ofRepair(study, repair, place, taken.get(place).png()));
        }
    }

    public Optional<byte[]> ofTrial(UUID trial, int place) {
        return pictures.findByTrialIdAndPlace(trial, place).map(PagePicture::png);
    }

    public Optional<byte[]> ofRepair(RepairId repair, int place) {
        return pictures.findByRepairIdAndPlace(repair, place).map(PagePicture::png);
    }

    /** All of a trial, told as its result tells of them. */
    public List<Picture> ofTrial(UUID trial, List<PictureOfPage> told) {
        return told.isEmpty() ? List.of() : together(pictures.findByTrialIdOrderByPlace(trial), told);
    }

    /** All of a repair, told as its result tells of them. */
    public List<Picture> ofRepair(RepairId repair, List<PictureOfPage> told) {
        return told.isEmpty() ? List.of() : together(pictures.findByRepairIdOrderByPlace(repair), told);
    }

    private static List<Picture> together(List<PagePicture> kept, List<PictureOfPage> told) {
        return java.util.stream.IntStream.range(0, told.size())
                .mapToObj(i -> Picture.kept(told.get(i), kept.get(i).png()))
                .toList();
    }
}
