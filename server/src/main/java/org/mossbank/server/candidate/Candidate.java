package org.mossbank.server.candidate;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Embeddable;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.OrderColumn;
import jakarta.persistence.Version;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.hibernate.annotations.Fetch;
import org.hibernate.annotations.FetchMode;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;

@Entity
class Candidate {
    /** A setting's row. */
    @Embeddable
    record SettingRow(String name, String value) {}

    /** A consideration's row. */
    @Embeddable
    record ConsiderationRow(
            @Enumerated(EnumType.STRING) CandidateContent.Consideration.Sign sign,
            String text,
            @Enumerated(EnumType.STRING) CandidateContent.Consideration.@Nullable Decider about) {}

    @Id
    private CandidateId id;

    private StudyId studyId;
    private String key;
    private String name;
    private String version;
    private String note;
    private int place;

    @Nullable
    private Long contextWindow;

    @Nullable
    @Column(precision = 14, scale = 6)
    private BigDecimal inputPrice;

    @Nullable
    @Column(precision = 14, scale = 6)
    private BigDecimal outputPrice;

    @Nullable
    @Column(precision = 14, scale = 6)
    private BigDecimal monthlyPrice;

    @Nullable
    @JdbcTypeCode(SqlTypes.CHAR)
    @Column(length = 3)
    private String currency;

    private String caps;

    @Nullable
    private Long capAmount;

    @Enumerated(EnumType.STRING)
    private CandidateContent.Cap.@Nullable Unit capUnit;

    @Enumerated(EnumType.STRING)
    private CandidateContent.Cap.@Nullable Period capPeriod;

    @Nullable
    private LocalDate asOf;

    private boolean baseline;

    @Nullable
    private AccountId personId;

    @ElementCollection
    @CollectionTable(name = "candidate_setting", joinColumns = @JoinColumn(name = "candidate_id"))
    @OrderColumn(name = "place")
    @Fetch(FetchMode.SUBSELECT)
    private List<SettingRow> settings = new ArrayList<>();

    @ElementCollection
    @CollectionTable(name = "consideration", joinColumns = @JoinColumn(name = "candidate_id"))
    @OrderColumn(name = "place")
    @Fetch(FetchMode.SUBSELECT)
    private List<ConsiderationRow> considerations = new ArrayList<>();

    @Version
    private long versionNumber;

    @SuppressWarnings("NullAway.Init")
    protected Candidate() {}

    void call(String newKey) {
        key = newKey;
    }

    static Candidate of(StudyId studyId, String key, CandidateContent content, int place) {
        Candidate candidate = new Candidate();
        candidate.id = CandidateId.random();
        candidate.studyId = studyId;
        candidate.key = key;
        candidate.place = place;
        candidate.write(content);
        return candidate;
    }

    void write(CandidateContent content) {
        name = content.name();
        version = content.version();
        note = content.note();
        contextWindow = content.contextWindow();
        inputPrice = content.price().inputPerMillion();
        outputPrice = content.price().outputPerMillion();
        monthlyPrice = content.price().monthly();
        currency = content.price().currency();
        caps = content.price().caps();
        write(content.price().cap());
        asOf = content.asOf();
        baseline = content.baseline();
        personId = content.personId();
        List<SettingRow> newSettings = content.settings().stream()
                .map(s -> new SettingRow(s.name(), s.value()))
                .toList();
        if (!newSettings.equals(settings)) {
            settings.clear();
            settings.addAll(newSettings);
        }
        consider(content.considerations());
    }

    private void write(CandidateContent.@Nullable Cap cap) {
        capAmount = cap == null ? null : cap.amount();
        capUnit = cap == null ? null : cap.unit();
        capPeriod = cap == null ? null : cap.period();
    }

    /** Facts that no grade covers may turn up at any time. */
    void consider(List<CandidateContent.Consideration> facts) {
        List<ConsiderationRow> rows = facts.stream()
                .map(c -> new ConsiderationRow(c.sign(), c.text(), c.about()))
                .toList();
        if (!rows.equals(considerations)) {
            considerations.clear();
            considerations.addAll(rows);
        }
    }

    CandidateId id() {
        return id;
    }

    StudyId studyId() {
        return studyId;
    }

    int place() {
        return place;
    }

    long version() {
        return versionNumber;
    }

    CandidateView view() {
        CandidateContent content = new CandidateContent(
                name,
                version,
                settings.stream()
                        .map(s -> new CandidateContent.Setting(s.name(), s.value()))
                        .toList(),
                contextWindow,
                price(),
                asOf,
                note,
                considerations.stream()
                        .map(c -> new CandidateContent.Consideration(c.sign(), c.text(), c.about()))
                        .toList(),
                baseline,
                personId);
        return new CandidateView(id, key, content, versionNumber);
    }

    private CandidateContent.Price price() {
        return new CandidateContent.Price(
                plain(inputPrice),
                plain(outputPrice),
                plain(monthlyPrice),
                currency,
                caps,
                capAmount == null || capUnit == null || capPeriod == null
                        ? null
                        : new CandidateContent.Cap(capAmount, capUnit, capPeriod));
    }

    /** Reads neither settings nor considerations. */
    Candidates.Head head() {
        return new Candidates.Head(id, key, name, version, baseline, price());
    }

    /** Without the zeros that the column's scale adds. */
    private static @Nullable BigDecimal plain(@Nullable BigDecimal amount) {
        return amount == null
                ? null
                : new BigDecimal(amount.stripTrailingZeros().toPlainString());
    }
}
