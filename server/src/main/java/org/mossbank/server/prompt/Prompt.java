package org.mossbank.server.prompt;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Embeddable;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.FetchType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.OrderColumn;
import jakarta.persistence.Version;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.hibernate.annotations.Fetch;
import org.hibernate.annotations.FetchMode;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;

@Entity
class Prompt {
    /** A key point's row. */
    @Embeddable
    record Point(
            @Enumerated(EnumType.STRING) KeyPoint.Stance stance,
            String text,
            double weight,
            @Nullable String file,
            @Nullable Integer fromLine,
            @Nullable Integer toLine) {
        static Point of(KeyPoint point) {
            return new Point(
                    point.stance(), point.text(), point.weight(), point.file(), point.fromLine(), point.toLine());
        }

        KeyPoint view() {
            return new KeyPoint(stance, text, weight, file, fromLine, toLine);
        }
    }

    /** A starting file's row. */
    @Embeddable
    record FileRow(String path, String text) {}

    @Id
    private PromptId id;

    private StudyId studyId;
    private String key;
    private KindId kindId;
    private String title;
    private String language;
    private String request;

    @JdbcTypeCode(SqlTypes.ARRAY)
    private String[] areas;

    @Enumerated(EnumType.STRING)
    private PromptContent.@Nullable TaskSize size;

    @JdbcTypeCode(SqlTypes.ARRAY)
    private String[] constraints;

    @JdbcTypeCode(SqlTypes.ARRAY)
    private String[] followUps;

    private String referenceAnswer;

    @Nullable
    private String repository;

    @Nullable
    private String commitId;

    @Nullable
    private AccountId authorId;

    @Nullable
    private PromptId variantOf;

    @Nullable
    @Enumerated(EnumType.STRING)
    private Wording wording;

    @Nullable
    private UUID bankPromptId;

    @Nullable
    private Integer bankVersion;

    @Nullable
    private Integer calibration;

    @Column(name = "place")
    private int place;

    @ElementCollection(fetch = FetchType.LAZY)
    @CollectionTable(name = "key_point", joinColumns = @JoinColumn(name = "prompt_id"))
    @OrderColumn(name = "place")
    @Fetch(FetchMode.SUBSELECT)
    private List<Point> keyPoints = new ArrayList<>();

    @ElementCollection(fetch = FetchType.LAZY)
    @CollectionTable(name = "starting_file", joinColumns = @JoinColumn(name = "prompt_id"))
    @OrderColumn(name = "place")
    @Fetch(FetchMode.SUBSELECT)
    private List<FileRow> startingFiles = new ArrayList<>();

    @Version
    private long version;

    @SuppressWarnings("NullAway.Init")
    protected Prompt() {}

    static Prompt of(StudyId studyId, String key, KindId kindId, PromptContent content, int place) {
        Prompt prompt = new Prompt();
        prompt.id = PromptId.random();
        prompt.studyId = studyId;
        prompt.key = key;
        prompt.place = place;
        prompt.write(kindId, content);
        return prompt;
    }

    void write(KindId newKindId, PromptContent content) {
        kindId = newKindId;
        title = content.title();
        language = content.language();
        request = content.request();
        areas = content.areas().toArray(String[]::new);
        size = content.size();
        constraints = content.constraints().toArray(String[]::new);
        followUps = content.followUps().toArray(String[]::new);
        referenceAnswer = content.referenceAnswer();
        PromptContent.Origin origin = content.origin();
        repository = origin == null ? null : origin.repository();
        commitId = origin == null ? null : origin.commit();
        List<Point> points = content.keyPoints().stream().map(Point::of).toList();
        // Replacing equal rows would write them all anew at every keystroke.
        if (!points.equals(keyPoints)) {
            keyPoints.clear();
            keyPoints.addAll(points);
        }
        List<FileRow> files = content.startingFiles().stream()
                .map(f -> new FileRow(f.path(), f.text()))
                .toList();
        if (!files.equals(startingFiles)) {
            startingFiles.clear();
            startingFiles.addAll(files);
        }
    }

    void writtenBy(@Nullable AccountId author) {
        authorId = author;
    }

    void makeVariant(PromptId of, Wording as) {
        variantOf = of;
        wording = as;
    }

    void word(@Nullable Wording as) {
        wording = as;
    }

    void keepAs(PromptView.BankRef bank) {
        bankPromptId = bank.bankPromptId();
        bankVersion = bank.number();
    }

    void calibrate(@Nullable Integer number) {
        calibration = number;
    }

    PromptId id() {
        return id;
    }

    StudyId studyId() {
        return studyId;
    }

    void call(String newKey) {
        key = newKey;
    }

    String key() {
        return key;
    }

    KindId kindId() {
        return kindId;
    }

    Optional<PromptId> variantOf() {
        return Optional.ofNullable(variantOf);
    }

    int place() {
        return place;
    }

    long version() {
        return version;
    }

    PromptContent content() {
        PromptContent.Origin origin =
                repository == null || commitId == null ? null : new PromptContent.Origin(repository, commitId);
        return new PromptContent(
                title,
                language,
                request,
                List.of(areas),
                size,
                List.of(constraints),
                startingFiles.stream()
                        .map(f -> new StartingFile(f.path(), f.text()))
                        .toList(),
                origin,
                keyPoints.stream().map(Point::view).toList(),
                referenceAnswer,
                List.of(followUps));
    }

    /** Reads no key point. */
    PromptContent.Asked asked() {
        return new PromptContent.Asked(
                request,
                List.of(constraints),
                startingFiles.stream()
                        .map(f -> new StartingFile(f.path(), f.text()))
                        .toList());
    }

    PromptView view(KindView kind, PromptView.@Nullable FaultView fault) {
        PromptView.BankRef bank =
                bankPromptId == null || bankVersion == null ? null : new PromptView.BankRef(bankPromptId, bankVersion);
        return new PromptView(
                id, key, kind, content(), authorId, variantOf, wording, bank, calibration, fault, version);
    }
}
