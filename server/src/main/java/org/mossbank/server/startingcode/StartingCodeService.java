package org.mossbank.server.startingcode;

import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import org.mossbank.server.files.ZipFiles;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.prompt.StartingFile;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;

/** Starting code from a zip or a git repository. It is handed back to the lead's draft; nothing is kept until that is. */
@Service
class StartingCodeService {
    private static final int MOST_FILES = 400;
    private static final long MOST_BYTES = 4L << 20;
    private static final ZipFiles.Bounds BOUNDS = new ZipFiles.Bounds(MOST_BYTES, MOST_FILES);
    private static final Pattern PATH = Pattern.compile(StartingFile.PATH);

    private final GitReader git;

    StartingCodeService(GitReader git) {
        this.git = git;
    }

    /** @param leftOut files that were not taken, each with the reason */
    record TakenCode(List<StartingFile> files, List<String> leftOut) {}

    /**
     * @throws org.mossbank.server.shared.Problem 400 if it is no zip, holds too much or reaches out of itself
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public TakenCode fromZip(StudyId study, InputStream zip) {
        List<StartingFile> files = new ArrayList<>();
        List<String> leftOut = new ArrayList<>();
        unzipped(zip).forEach((path, content) -> {
            requirePath(path);
            take(path, content, files, leftOut);
        });
        return new TakenCode(files, leftOut);
    }

    private static Map<String, byte[]> unzipped(InputStream zip) {
        try {
            return ZipFiles.read(zip, BOUNDS);
        } catch (ZipFiles.Unreadable e) {
            throw StartingCodeProblem.of(
                    "file", e.isTooLarge() ? "it holds more than 4 MB or " + MOST_FILES + " files" : e.rule());
        } catch (IOException e) {
            throw StartingCodeProblem.of("file", "it breaks off");
        }
    }

    private static void requirePath(String path) {
        if (path.length() > 300 || !PATH.matcher(path).matches()) {
            throw StartingCodeProblem.of("file", "the path “" + path + "” leads out of it");
        }
    }

    private static void requireSize(int files, long bytes) {
        if (files > MOST_FILES) {
            throw StartingCodeProblem.of("file", "it holds more than " + MOST_FILES + " files");
        }
        if (bytes > MOST_BYTES) {
            throw StartingCodeProblem.of("file", "it holds more than 4 MB");
        }
    }

    private static void take(String path, byte[] content, List<StartingFile> files, List<String> leftOut) {
        text(content)
                .ifPresentOrElse(
                        text -> files.add(new StartingFile(path, text)),
                        () -> leftOut.add(path + ": not a text in UTF-8"));
    }

    /** The text, unless it is none: a NUL or a broken sequence says binary. */
    static Optional<String> text(byte[] content) {
        try {
            String text = StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(content))
                    .toString();
            return text.indexOf('\0') >= 0 ? Optional.empty() : Optional.of(text);
        } catch (CharacterCodingException e) {
            return Optional.empty();
        }
    }

    /** @param commit a full or short id, a branch or a tag */
    record GitPlace(
            @NotBlank @Size(max = 1000) String repository,
            @NotBlank @Size(max = 200) String commit) {}

    /**
     * What is there at a commit.
     *
     * @param commit the full id
     */
    record GitListing(String commit, List<GitReader.Entry> files) {}

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public GitListing listGit(StudyId study, GitPlace place) {
        GitReader.Commit commit = git.resolve(place.repository(), place.commit());
        return new GitListing(commit.id(), git.list(commit));
    }

    record GitFiles(
            @NotBlank @Size(max = 1000) String repository,
            @NotBlank @Size(max = 200) String commit,
            @NotNull @Size(min = 1, max = MOST_FILES) List<@NotBlank @Size(max = 300) String> paths) {}

    /** The files with where they came from. */
    record GitCode(PromptContent.Origin origin, TakenCode code) {}

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public GitCode fromGit(StudyId study, GitFiles request) {
        GitReader.Commit commit = git.resolve(request.repository(), request.commit());
        List<String> there =
                git.list(commit).stream().map(GitReader.Entry::path).toList();
        List<StartingFile> files = new ArrayList<>();
        List<String> leftOut = new ArrayList<>();
        long bytes = 0;
        for (String path : request.paths().stream().distinct().toList()) {
            if (!there.contains(path)) {
                throw StartingCodeProblem.of("paths", "there is no file “" + path + "” at this commit");
            }
            requirePath(path);
            byte[] content = git.read(commit, path);
            bytes += content.length;
            requireSize(files.size(), bytes);
            take(path, content, files, leftOut);
        }
        return new GitCode(new PromptContent.Origin(request.repository(), commit.id()), new TakenCode(files, leftOut));
    }
}
