package org.mossbank.server.files;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/** Reads a file as text. */
public final class TextFile {
    private TextFile() {}

    /** The text; a byte order mark is taken off. Empty, with a fault, if it is not UTF-8 or has a NUL. */
    public static Optional<String> read(String file, byte[] bytes, Faults faults) {
        try {
            String text = StandardCharsets.UTF_8
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .onUnmappableCharacter(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(bytes))
                    .toString();
            if (text.indexOf('\0') >= 0) {
                faults.add(Fault.ofFile(file, "text without the character U+0000"));
                return Optional.empty();
            }
            return Optional.of(text.startsWith("\uFEFF") ? text.substring(1) : text);
        } catch (CharacterCodingException e) {
            faults.add(Fault.ofFile(file, "text in UTF-8"));
            return Optional.empty();
        }
    }
}
