package org.mossbank.server.files;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.Id;

/** The keys that a file has for things, by their ids. */
public final class Keys {
    private final Map<Id<?>, String> keys = new HashMap<>();

    /** Adds the keys of things. */
    public <T> Keys with(List<T> all, Function<T, ? extends Id<?>> id, Function<T, String> key) {
        all.forEach(one -> keys.put(id.apply(one), key.apply(one)));
        return this;
    }

    /** @throws IllegalArgumentException if the thing has no key */
    public String of(Id<?> id) {
        String key = keys.get(id);
        if (key == null) {
            throw new IllegalArgumentException("id has a key: " + id);
        }
        return key;
    }

    /** The key; absent where no thing is named, or it has none. */
    public @Nullable String orNone(@Nullable Id<?> id) {
        return id == null ? null : keys.get(id);
    }
}
