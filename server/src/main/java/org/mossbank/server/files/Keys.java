package org.mossbank.server.files;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/** The keys that a file has for things, by their ids. */
public final class Keys {
    private final Map<UUID, String> keys = new HashMap<>();

    /** Adds the keys of things. */
    public <T> Keys with(List<T> all, Function<T, UUID> id, Function<T, String> key) {
        all.forEach(one -> keys.put(id.apply(one), key.apply(one)));
        return this;
    }

    /** @throws IllegalArgumentException if the thing has no key */
    public String of(UUID id) {
        String key = keys.get(id);
        if (key == null) {
            throw new IllegalArgumentException("id has a key: " + id);
        }
        return key;
    }

    /** The key; absent where no thing is named, or it has none. */
    public @Nullable String orNone(@Nullable UUID id) {
        return id == null ? null : keys.get(id);
    }
}
