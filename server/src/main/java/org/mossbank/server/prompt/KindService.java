package org.mossbank.server.prompt;

import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.FreeKey;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyBegun;
import org.springframework.context.event.EventListener;
import org.springframework.core.annotation.Order;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The kinds of prompts that a study has. */
@Service
@Transactional(readOnly = true)
class KindService {
    private static final List<Prompts.NewKind> USUAL_KINDS = List.of(
            new Prompts.NewKind("explanation", "Explanation"),
            new Prompts.NewKind("refactoring", "Refactoring"),
            new Prompts.NewKind("debugging", "Debugging"),
            new Prompts.NewKind("review", "Review"));

    private final Prompts prompts;
    private final KindRepository kinds;
    private final Studies studies;

    KindService(Prompts prompts, KindRepository kinds, Studies studies) {
        this.prompts = prompts;
        this.kinds = kinds;
        this.studies = studies;
    }

    @SystemOnly
    @EventListener
    @Order(1)
    @Transactional
    public void layOut(StudyBegun begun) {
        prompts.addKinds(begun.studyId(), USUAL_KINDS);
    }

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public List<KindView> ofStudy(StudyId study) {
        return prompts.kinds(study);
    }

    record AddKind(@NotBlank @Size(max = 80) String name) {}

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public KindView add(StudyId study, AddKind request) {
        studies.requirePreparing(study);
        List<KindView> known = prompts.kinds(study);
        String name = request.name().strip();
        if (known.stream().anyMatch(k -> k.name().equalsIgnoreCase(name))) {
            throw Problem.invalid("name", "is the name of another kind");
        }
        String key = FreeKey.of(name, "kind", known.stream().map(KindView::key).collect(Collectors.toSet()));
        KindId id = Require.known(prompts.addKinds(study, List.of(new Prompts.NewKind(key, name))), key);
        return new KindView(id, key, name);
    }

    /** Takes out a kind, and with it its anchors. @throws Problem 409 if prompts are of it */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public void remove(StudyId study, KindId kind) {
        studies.requirePreparing(study);
        Kind found = kinds.findById(kind)
                .filter(k -> k.studyId().equals(study))
                .orElseThrow(() -> Problem.notFound("This kind"));
        if (prompts.ofStudy(study).stream().anyMatch(p -> p.kind().id().equals(kind))) {
            throw new Problem(ProblemType.NOT_READY, "Prompts are of this kind. Give them another one first.");
        }
        kinds.delete(found);
    }
}
