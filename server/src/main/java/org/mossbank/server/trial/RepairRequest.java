package org.mossbank.server.trial;

import jakarta.validation.Valid;
import jakarta.validation.constraints.AssertTrue;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;

/**
 * Files of an answer's code as a person changed them.
 *
 * @param files those that were changed
 */
public record RepairRequest(
        @NotNull @Size(min = 1, max = 40) List<@Valid @NotNull ChangedFile> files) {
    public RepairRequest {
        files = files == null ? List.of() : List.copyOf(files);
    }

    /** @param path as the answer's code has it */
    public record ChangedFile(
            @NotBlank @Size(max = CheckContent.LONGEST_PATH) String path,
            @NotNull @Size(max = CheckContent.LONGEST_TEXT) String text) {}

    @AssertTrue(message = "files must have different paths")
    boolean isEachPathOnce() {
        return files.stream().map(ChangedFile::path).distinct().count() == files.size();
    }

    public Map<String, String> texts() {
        Map<String, String> texts = new LinkedHashMap<>();
        files.forEach(f -> texts.put(f.path(), f.text()));
        return texts;
    }

    /** Files as they are offered for changing. */
    public static List<ChangedFile> files(Map<String, String> texts, UnaryOperator<String> shown) {
        return texts.entrySet().stream()
                .map(f -> new ChangedFile(f.getKey(), shown.apply(f.getValue())))
                .toList();
    }
}
