package org.mossbank.server.sandbox;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * What a program finds beside its work folder, besides the programs of the machine.
 *
 * @param mounts      folders and files, to be read only
 * @param environment all that it is told; nothing of the server's is
 */
public record SandboxTools(List<Mount> mounts, Map<String, String> environment) {
    public SandboxTools {
        mounts = List.copyOf(mounts);
        environment = Map.copyOf(environment);
    }

    /**
     * @param outside where it lies
     * @param inside  where the program finds it
     */
    public record Mount(Path outside, String inside) {}

    /** These and others. */
    public SandboxTools with(SandboxTools others) {
        List<Mount> all = new ArrayList<>(mounts);
        all.addAll(others.mounts);
        Map<String, String> told = new TreeMap<>(environment);
        told.putAll(others.environment);
        return new SandboxTools(all, told);
    }

    public static SandboxTools none() {
        return new SandboxTools(List.of(), Map.of());
    }
}
