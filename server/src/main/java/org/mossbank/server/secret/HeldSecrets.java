package org.mossbank.server.secret;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.mossbank.core.secrets.FoundSecret;
import org.mossbank.core.secrets.Secrets;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.prompt.StartingFile;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.shared.database.Snapshot;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/**
 * Looks for secrets in all that candidates are sent of prompts. Each version of a prompt is looked through once; what was found is
 * known by its place and a digest, and never kept itself.
 */
@Service
public class HeldSecrets {
    /** Places found, of all studies together. */
    private static final int MOST_KEPT = 200_000;
    /** Of one prompt; the rest is one place, on which it is decided together. */
    private static final int MOST_OF_A_PROMPT = 400;

    private record Version(PromptId prompt, long number) {}

    /** A place in a prompt. */
    record Place(SecretsView.Part part, String name, int line, FoundSecret.Sort sort, String hint, String digest) {}

    /** What was found in one prompt. */
    record InPrompt(PromptId prompt, String title, List<Place> places) {}

    private final Prompts prompts;
    private final ClearedSecretRepository cleared;
    private final HeavyWork heavy;
    private final Snapshot snapshot;
    private final Cache<Version, InPrompt> known = Caffeine.newBuilder()
            .maximumWeight(MOST_KEPT)
            .<Version, InPrompt>weigher((version, found) -> found.places.size() + 1)
            .build();

    HeldSecrets(Prompts prompts, ClearedSecretRepository cleared, HeavyWork heavy, Snapshot snapshot) {
        this.prompts = prompts;
        this.cleared = cleared;
        this.heavy = heavy;
        this.snapshot = snapshot;
    }

    /**
     * What is held back.
     *
     * @param versions that were looked at; what changed since was not
     * @param open     places that nobody has said may be sent
     */
    public record Looked(Map<PromptId, Long> versions, int open) {}

    private record Standing(Map<PromptId, Long> versions, Set<String> cleared) {}

    /** Of some prompts; slow for those that changed, so outside any transaction. */
    @SystemOnly
    @Transactional(propagation = Propagation.NEVER)
    public Looked look(StudyId study, Collection<PromptId> some) {
        Standing standing = snapshot.of(() -> new Standing(prompts.versions(study), digests(study)));
        int open = 0;
        for (InPrompt found : in(study, standing.versions, Set.copyOf(some))) {
            open += (int) found.places.stream()
                    .filter(p -> !standing.cleared.contains(p.digest))
                    .count();
        }
        return new Looked(standing.versions, open);
    }

    /** How many places of a text look like secrets that nobody has said may be sent. */
    @SystemOnly
    @Transactional(propagation = Propagation.NEVER)
    public List<String> openIn(StudyId study, String text) {
        Set<String> known = snapshot.of(() -> digests(study));
        return heavy.run(() -> Secrets.in(text)).stream()
                .map(f -> digest(study, f.value()))
                .filter(d -> !known.contains(d))
                .distinct()
                .toList();
    }

    private Set<String> digests(StudyId study) {
        return cleared.ofStudy(study).stream().map(ClearedSecret::digest).collect(Collectors.toSet());
    }

    /** Those in which something was found. */
    @SystemOnly
    List<InPrompt> in(StudyId study, Map<PromptId, Long> versions, Set<PromptId> some) {
        List<InPrompt> all = new ArrayList<>();
        versions.forEach((prompt, number) -> {
            if (some.contains(prompt)) {
                in(study, new Version(prompt, number))
                        .filter(f -> !f.places.isEmpty())
                        .ifPresent(all::add);
            }
        });
        return all;
    }

    /** Empty if the prompt was removed meanwhile. */
    private Optional<InPrompt> in(StudyId study, Version version) {
        InPrompt found = known.getIfPresent(version);
        if (found != null) {
            return Optional.of(found);
        }
        Optional<PromptView> prompt = snapshot.of(() -> prompts.one(study, version.prompt));
        return prompt.map(p -> {
            InPrompt looked = heavy.run(() -> look(study, p));
            known.put(new Version(p.id(), p.version()), looked);
            return looked;
        });
    }

    private static InPrompt look(StudyId study, PromptView prompt) {
        PromptContent content = prompt.content();
        List<Place> places = new ArrayList<>(look(study, SecretsView.Part.REQUEST, "", content.request()));
        for (int i = 0; i < content.constraints().size(); i++) {
            places.addAll(look(
                    study,
                    SecretsView.Part.CONSTRAINT,
                    String.valueOf(i + 1),
                    content.constraints().get(i)));
        }
        for (StartingFile file : content.startingFiles()) {
            places.addAll(look(study, SecretsView.Part.STARTING_FILE, file.path(), file.text()));
        }
        for (int i = 0; i < content.followUps().size(); i++) {
            places.addAll(look(
                    study,
                    SecretsView.Part.FOLLOW_UP,
                    String.valueOf(i + 1),
                    content.followUps().get(i)));
        }
        return new InPrompt(prompt.id(), content.title(), shortened(study, places));
    }

    private static List<Place> shortened(StudyId study, List<Place> places) {
        if (places.size() <= MOST_OF_A_PROMPT) {
            return List.copyOf(places);
        }
        List<Place> rest = places.subList(MOST_OF_A_PROMPT, places.size());
        Place first = rest.get(0);
        List<Place> all = new ArrayList<>(places.subList(0, MOST_OF_A_PROMPT));
        all.add(many(
                study,
                first.part,
                first.name,
                first.line,
                rest.stream().map(Place::digest).collect(Collectors.joining())));
        return List.copyOf(all);
    }

    /** What stands for all that is not told one by one: it is held back until all of it, as it is, may be sent. */
    private static Place many(StudyId study, SecretsView.Part part, String name, int line, String all) {
        return new Place(part, name, line, FoundSecret.Sort.MANY, "…", digest(study, all));
    }

    private static List<Place> look(StudyId study, SecretsView.Part part, String name, String text) {
        List<FoundSecret> found = Secrets.in(text);
        List<Place> places = new ArrayList<>();
        found.forEach(f -> places.add(new Place(part, name, f.line(), f.sort(), f.hint(), digest(study, f.value()))));
        if (found.size() == Secrets.MOST) {
            places.add(many(study, part, name, found.get(found.size() - 1).line(), text));
        }
        return places;
    }

    /** Another in every study, so that nothing is learnt from two that are equal. */
    private static String digest(StudyId study, String value) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            digest.update(study.toString().getBytes(StandardCharsets.UTF_8));
            return HexFormat.of().formatHex(digest.digest(value.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }
}
