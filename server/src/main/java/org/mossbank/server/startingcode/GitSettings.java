package org.mossbank.server.startingcode;

import java.nio.file.Path;
import java.util.List;
import org.springframework.boot.context.properties.ConfigurationProperties;

/**
 * Where starting code may be read from with git.
 *
 * @param roots folders that the server's administrator allows, with all below them; none means that git is off
 */
@ConfigurationProperties("mossbank.git")
record GitSettings(List<Path> roots) {
    GitSettings {
        roots = List.copyOf(roots);
        for (Path root : roots) {
            if (!root.isAbsolute()) {
                throw new IllegalArgumentException("mossbank.git.roots must be absolute paths: " + root);
            }
        }
    }
}
