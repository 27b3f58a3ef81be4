package org.mossbank.server.trial.picture;

import jakarta.persistence.EntityManager;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.IntStream;
import org.mossbank.core.estimate.Require;
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

    /** All of a study, read at once. */
    public OfStudy ofStudy(StudyId study) {
        Map<Object, Map<Integer, byte[]>> byOwner = new HashMap<>();
        pictures.findByStudyId(study)
                .forEach(p ->
                        byOwner.computeIfAbsent(p.owner(), o -> new HashMap<>()).put(p.place(), p.png()));
        return new OfStudy(byOwner);
    }

    /** Pictures of a study, by the trial or the repair that they were taken in. */
    public static final class OfStudy {
        private final Map<Object, Map<Integer, byte[]>> byOwner;

        private OfStudy(Map<Object, Map<Integer, byte[]>> byOwner) {
            this.byOwner = byOwner;
        }

        /** Told as the trial's result tells of them. */
        public List<Picture> of(UUID trial, List<PictureOfPage> told) {
            return together(trial, told);
        }

        /** Told as the repair's result tells of them. */
        public List<Picture> of(RepairId repair, List<PictureOfPage> told) {
            return together(repair, told);
        }

        private List<Picture> together(Object owner, List<PictureOfPage> told) {
            Map<Integer, byte[]> kept = byOwner.getOrDefault(owner, Map.of());
            return IntStream.range(0, told.size())
                    .mapToObj(place -> Picture.kept(told.get(place), Require.known(kept, place)))
                    .toList();
        }
    }
}
