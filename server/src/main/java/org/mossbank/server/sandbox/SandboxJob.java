package org.mossbank.server.sandbox;

/**
 * What is run.
 *
 * @param files   of the work folder, where it begins
 * @param command for a shell in it
 * @param input   that the program can read
 */
public record SandboxJob(WorkFiles files, String command, String input, SandboxTools tools, SandboxLimits limits) {}
