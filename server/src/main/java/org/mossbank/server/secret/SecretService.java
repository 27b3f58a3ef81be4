package org.mossbank.server.secret;

import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.Actor;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.database.Snapshot;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** What a lead sees of what looks like a secret, and says of it. */
@Service
class SecretService {
    private final HeldSecrets held;
    private final ClearedSecretRepository cleared;
    private final Prompts prompts;
    private final Snapshot snapshot;
    private final Actor actor;

    SecretService(HeldSecrets held, ClearedSecretRepository cleared, Prompts prompts, Snapshot snapshot, Actor actor) {
        this.held = held;
        this.cleared = cleared;
        this.prompts = prompts;
        this.snapshot = snapshot;
        this.actor = actor;
    }

    private record Standing(
            Map<PromptId, Integer> places, Map<PromptId, Long> versions, Map<String, SecretsView.Cleared> cleared) {}

    /** All that was found in prompts that are not set aside. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public SecretsView ofStudy(StudyId study) {
        Standing standing = snapshot.of(() -> new Standing(
                places(prompts.gradedIds(study)),
                prompts.versions(study),
                cleared.ofStudy(study).stream().collect(Collectors.toMap(ClearedSecret::digest, ClearedSecret::view))));
        List<SecretsView.Found> found = new ArrayList<>();
        for (HeldSecrets.InPrompt in : held.in(study, standing.versions, standing.places.keySet())) {
            in.places()
                    .forEach(p -> found.add(new SecretsView.Found(
                            in.prompt(),
                            in.title(),
                            p.part(),
                            p.name(),
                            p.line(),
                            p.sort(),
                            p.hint(),
                            p.digest(),
                            standing.cleared.get(p.digest()))));
        }
        found.sort(Comparator.comparing((SecretsView.Found f) -> f.cleared() != null)
                .thenComparing(f -> Require.known(standing.places, f.promptId())));
        return new SecretsView(
                (int) found.stream().filter(f -> f.cleared() == null).count(),
                found.size(),
                found.stream().limit(SecretsView.MOST_SHOWN).toList());
    }

    private static Map<PromptId, Integer> places(List<PromptId> inOrder) {
        Map<PromptId, Integer> places = new HashMap<>();
        inOrder.forEach(p -> places.put(p, places.size()));
        return places;
    }

    /** @param why it may be sent */
    record ClearSecret(@NotBlank @Size(max = 500) String why) {}

    /**
     * Says that something may be sent, wherever in the study it stands. Saying it twice keeps what was said last.
     *
     * @throws Problem 404 if nothing of this digest is found
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public void clear(StudyId study, String digest, ClearSecret request) {
        Map<PromptId, Long> versions = snapshot.of(() -> prompts.versions(study));
        boolean there = held.in(study, versions, versions.keySet()).stream()
                .flatMap(f -> f.places().stream())
                .anyMatch(p -> p.digest().equals(digest));
        if (!there) {
            throw Problem.notFound("What looks like this secret");
        }
        cleared.clear(study.value(), digest, request.why().strip(), actor.now(), actor.name());
    }

    /** Holds it back again; what was sent was sent. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public void hold(StudyId study, String digest) {
        cleared.deleteById(new ClearedSecret.Key(study, digest));
    }
}
