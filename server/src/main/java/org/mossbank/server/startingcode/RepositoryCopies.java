package org.mossbank.server.startingcode;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Objects;
import java.util.SortedMap;
import java.util.TreeMap;
import org.mossbank.core.trial.SafePath;
import org.springframework.stereotype.Component;

/** Whole repositories at a commit, as answers are tried in them. A repository is only ever read; a copy is made in memory. */
@Component
public class RepositoryCopies {
    private static final long MOST_KEPT = 64L << 20;
    private static final Duration KEPT = Duration.ofMinutes(10);

    private final GitReader git;
    private final Cache<Place, RepositoryCopy> kept = Caffeine.newBuilder()
            .maximumWeight(MOST_KEPT)
            .weigher((Place place, RepositoryCopy copy) -> copy.weight())
            .expireAfterWrite(KEPT)
            .build();

    RepositoryCopies(GitReader git) {
        this.git = git;
    }

    private record Place(Path repository, String commit) {}

    /**
     * The files at a commit.
     *
     * @param repository absolute path on the server, or one below a folder that the administrator allows, so that a check means the
     *                   same on another machine; looked at each time, as what is allowed may be another by now
     * @param commit     a name of one
     * @throws org.mossbank.server.shared.Problem 400 if the administrator allows no such repository, it has no such commit, or too much
     */
    public RepositoryCopy at(String repository, String commit) {
        GitReader.Commit found = git.resolve(repository, commit);
        return Objects.requireNonNull(kept.get(new Place(found.repository(), found.id()), place -> copied(found)));
    }

    private RepositoryCopy copied(GitReader.Commit commit) {
        SortedMap<String, byte[]> files = new TreeMap<>(git.all(commit));
        files.keySet().removeIf(path -> !SafePath.is(path));
        return RepositoryCopy.of(commit.id(), files);
    }
}
