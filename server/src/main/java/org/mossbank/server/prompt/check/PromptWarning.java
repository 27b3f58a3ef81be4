package org.mossbank.server.prompt.check;

/**
 * Something about a prompt that usually goes wrong.
 *
 * @param type  which sort; names do not change
 * @param words what it is, in one sentence
 */
public record PromptWarning(String type, String words) {}
