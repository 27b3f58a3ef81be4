package org.mossbank.server.source;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.List;

/**
 * How to ask a candidate over HTTP.
 *
 * @param headers             beside the content type; a value may hold {@code [[secret NAME]]}
 * @param body                JSON with placeholders: {@code "[[prompt]]"}, {@code "[[turns]]"}, {@code "[[attempt]]"}, {@code
 *                            "[[output-tokens]]"}
 * @param turnAsked           JSON of a turn of ours within {@code [[turns]]}, with {@code "[[text]]"}; empty without turns
 * @param turnReplied         JSON of a turn of the candidate's
 * @param shape               how it answers
 * @param textPointer         JSON Pointer to the text; in an event, to the text that the event adds
 * @param inputTokensPointer  JSON Pointer to the count of tokens sent; empty if none comes
 * @param outputTokensPointer JSON Pointer to the count of tokens received; empty if none comes
 * @param finishPointer       JSON Pointer to the word that says how it ended; empty if none comes
 * @param modelPointer        JSON Pointer to what it says has answered, such as a version; empty if none comes
 * @param completeWords       words of a complete answer; any other is an incomplete one
 * @param refusedWords        words of a refusal
 * @param endMark             what the last event holds in place of JSON; empty if the stream just ends
 * @param mostOutputTokens    what the service is told to write at most; budgets reckon with it
 * @param timeLimitMs         milliseconds for one request
 * @param mostTries           how often one request is tried when nothing came
 * @param mostAtOnce          requests at the same time
 */
public record SourceContent(
        @NotBlank @Size(max = 2000) String url,
        @NotNull Method method,
        @NotNull @Size(max = 20) List<@Valid @NotNull Header> headers,
        @NotBlank @Size(max = 20000) String body,
        @NotNull @Size(max = 2000) String turnAsked,
        @NotNull @Size(max = 2000) String turnReplied,
        @NotNull Shape shape,

        @NotBlank @Pattern(regexp = POINTER, message = POINTER_RULE)
        String textPointer,

        @NotNull @Pattern(regexp = POINTER, message = POINTER_RULE)
        String inputTokensPointer,

        @NotNull @Pattern(regexp = POINTER, message = POINTER_RULE)
        String outputTokensPointer,

        @NotNull @Pattern(regexp = POINTER, message = POINTER_RULE)
        String finishPointer,

        @NotNull @Pattern(regexp = POINTER, message = POINTER_RULE)
        String modelPointer,

        @NotNull @Size(max = 20) List<@NotBlank @Size(max = 60) String> completeWords,
        @NotNull @Size(max = 20) List<@NotBlank @Size(max = 60) String> refusedWords,
        @NotNull @Size(max = 60) String endMark,
        @Min(1) @Max(1_000_000) int mostOutputTokens,
        @Min(1000) @Max(3_600_000) long timeLimitMs,
        @Min(1) @Max(10) int mostTries,
        @Min(1) @Max(20) int mostAtOnce) {
    /** RFC 6901, and no longer than it is sensible, as the match goes deeper with every step: empty, or steps that each begin with a slash; a tilde only as ~0 or ~1. */
    static final String POINTER = "(?s)(?!.{501})" + SourceContent.PLAIN_POINTER;

    /** RFC 6901, of any length, as other programs read it. */
    static final String PLAIN_POINTER = "(?:/(?:[^~/]|~[01])*)*";

    static final String HEADER_NAME = "[A-Za-z0-9!#$%&'*+.^_`|~-]+";
    static final String HEADER_VALUE = "[\\x20-\\x7e]*";

    static final String POINTER_RULE = "must be a JSON Pointer such as /reply/text, of at most 500 characters";

    public SourceContent {
        headers = List.copyOf(headers);
        completeWords = List.copyOf(completeWords);
        refusedWords = List.copyOf(refusedWords);
    }

    /** A request's method. */
    public enum Method {
        POST,
        PUT
    }

    /** How a service answers. */
    public enum Shape {
        /** One JSON document. */
        WHOLE,
        /** Server-sent events, each with a JSON document. */
        EVENTS
    }

    /** A header of the request. */
    public record Header(
            @NotBlank @Size(max = 100) @Pattern(regexp = HEADER_NAME, message = "must be a header's name")
            String name,

            @NotNull
            @Size(max = 2000)
            @Pattern(regexp = HEADER_VALUE, message = "must be of ASCII characters on one line")
            String value) {}
}
