package org.mossbank.server.answer;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import org.mossbank.core.change.AnswerCode;
import org.mossbank.core.change.ChangeSize;
import org.mossbank.core.change.ComparisonBudget;
import org.mossbank.core.change.FileChange;
import org.mossbank.core.change.RequestScope;
import org.mossbank.server.prompt.KeyPoint;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.shared.HeavyWork;
import org.springframework.stereotype.Component;

/** The code of answers, compared with their starting code: each text once, and never while a transaction is held. */
@Component
public class AnswerCodes {
    /** In characters of what was read; what is kept of it is a few times as much. */
    private static final long MOST_KEPT = 16L << 20;

    private final HeavyWork heavy;
    private final Cache<String, AnswerCode> kept = Caffeine.newBuilder()
            .maximumWeight(MOST_KEPT)
            .weigher((String key, AnswerCode code) -> 64 + weight(code))
            .build();

    AnswerCodes(HeavyWork heavy) {
        this.heavy = heavy;
    }

    private static int weight(AnswerCode code) {
        long lines = code.changes().stream()
                .flatMap(c -> c.change().hunks().stream())
                .flatMap(h -> h.lines().stream())
                .mapToLong(l -> l.text().length() + 16L)
                .sum();
        long files = code.files().stream()
                .mapToLong(f -> (long) f.text().length() + f.before().length())
                .sum();
        return (int) Math.min(lines + files, Integer.MAX_VALUE - 64);
    }

    /** @param startingCode text by path */
    public AnswerCode of(Map<String, String> startingCode, String text) {
        String key = key(startingCode, text);
        AnswerCode known = kept.getIfPresent(key);
        return known != null
                ? known
                : heavy.run(() -> Objects.requireNonNull(kept.get(key, k -> AnswerCode.of(startingCode, text))));
    }

    /** The same for a whole repository, changes fitted in where their lines stand; not kept, as it is much. */
    public AnswerCode.Loosely loosely(Map<String, String> repository, String text) {
        return heavy.run(() -> AnswerCode.loosely(repository, text));
    }

    /** What an answer does to the starting code of its prompt, and where it goes beyond what the prompt speaks of. */
    public CodeView view(PromptView prompt, String text) {
        AnswerCode code = of(prompt.startingCode(), text);
        RequestScope scope = scopeOf(prompt);
        return new CodeView(
                code.changes().stream().map(FileChangeView::of).toList(),
                code.files(),
                scope.outside(
                        code.changes().stream().map(AnswerCode.Fitted::change).toList()),
                !scope.named().isEmpty(),
                code.limits());
    }

    /** The same with the starting code beside it. */
    public GradedCode graded(PromptView prompt, String text) {
        return new GradedCode(view(prompt, text), prompt.content().startingFiles());
    }

    private static RequestScope scopeOf(PromptView prompt) {
        PromptContent content = prompt.content();
        List<String> texts = new ArrayList<>(content.constraints());
        texts.add(content.title());
        texts.add(content.request());
        content.keyPoints().forEach(k -> texts.add(k.text()));
        return RequestScope.of(
                texts,
                content.keyPoints().stream()
                        .map(KeyPoint::file)
                        .flatMap(f -> Optional.ofNullable(f).stream())
                        .toList(),
                prompt.startingCode().keySet());
    }

    /** The differences between the code that two answers end in. */
    public List<FileChange> between(Map<String, String> startingCode, String first, String second) {
        AnswerCode one = of(startingCode, first);
        AnswerCode other = of(startingCode, second);
        return heavy.run(() -> AnswerCode.between(one.files(), other.files()));
    }

    /** How much one answer changes. */
    public ChangeSize size(Map<String, String> startingCode, String text) {
        return heavy.run(() -> ChangeSize.of(startingCode, text, ComparisonBudget.whole()));
    }

    private static String key(Map<String, String> startingCode, String text) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            new TreeMap<>(startingCode).forEach((path, code) -> {
                add(digest, path);
                add(digest, code);
            });
            add(digest, text);
            return HexFormat.of().formatHex(digest.digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java runtime has SHA-256", e);
        }
    }

    private static void add(MessageDigest digest, String part) {
        byte[] bytes = part.getBytes(StandardCharsets.UTF_8);
        digest.update((bytes.length + ":").getBytes(StandardCharsets.US_ASCII));
        digest.update(bytes);
    }
}
