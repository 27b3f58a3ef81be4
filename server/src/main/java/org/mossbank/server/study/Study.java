package org.mossbank.server.study;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.agreement.Coefficient;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.study.people.LeaversShown;
import tools.jackson.databind.json.JsonMapper;

/** One comparison, made for one decision of one team. */
@Entity
class Study {
    @Id
    private StudyId id;

    private String title;
    private String question;
    private String audience;
    private String background;
    private boolean asksExpectations;

    @Enumerated(EnumType.STRING)
    private RaterTerms.ReasonRule reasons;

    private boolean showsReference;
    private boolean asksSourceGuess;

    @Enumerated(EnumType.STRING)
    private RaterTerms.TrialsShown trialsShown;

    @Enumerated(EnumType.STRING)
    private Coefficient coefficient;

    private double agreementFloor;

    @Enumerated(EnumType.STRING)
    private DecisionRule.FloorOn floorOn;

    private double margin;
    private int minimumRaters;

    @Enumerated(EnumType.STRING)
    private DecisionRule.TieBreak tieBreak;

    private boolean strictOnMasking;
    private boolean strictOnSplits;
    private boolean byKind;
    private int looks;

    @Enumerated(EnumType.STRING)
    private RuleTerms.FailedAnswers failedAnswers;

    @Nullable
    private String gateCriterion;

    @Nullable
    private Integer gateLevel;

    @Nullable
    private Double gateCap;

    @Nullable
    private Instant briefClosedAt;

    /** As JSON: it is read whole, and only ever shown. */
    @Nullable
    private String forecast;

    private long seed;
    private Instant createdAt;

    @Enumerated(EnumType.STRING)
    private LeaversShown leaversShown;

    @Nullable
    private Instant putAwayAt;

    @Nullable
    private Instant deletedAt;

    @Nullable
    private String deletedBy;

    @Version
    private long version;

    @SuppressWarnings("NullAway.Init")
    protected Study() {}

    static Study of(String title, Brief brief, long seed, Instant now) {
        Study study = new Study();
        study.id = StudyId.random();
        study.write(title, brief);
        study.seed = seed;
        study.createdAt = now;
        study.leaversShown = LeaversShown.BY_NAME;
        return study;
    }

    void write(String newTitle, Brief brief) {
        title = newTitle;
        question = brief.question();
        audience = brief.audience();
        background = brief.background();
        asksExpectations = brief.asksExpectations();
        reasons = brief.raters().reasons();
        showsReference = brief.raters().showsReference();
        asksSourceGuess = brief.raters().asksSourceGuess();
        trialsShown = brief.raters().trials();
        RuleTerms rule = brief.rule();
        coefficient = rule.coefficient();
        agreementFloor = rule.agreementFloor();
        floorOn = rule.floorOn();
        margin = rule.margin();
        minimumRaters = rule.minimumRaters();
        tieBreak = rule.tieBreak();
        strictOnMasking = rule.strictOnMasking();
        strictOnSplits = rule.strictOnSplits();
        byKind = rule.byKind();
        looks = rule.looks();
        failedAnswers = rule.failedAnswers();
        RuleTerms.GateTerms gate = rule.gate();
        gateCriterion = gate == null ? null : gate.criterion();
        gateLevel = gate == null ? null : gate.level();
        gateCap = gate == null ? null : gate.cap();
    }

    void closeBrief(Instant now, @Nullable KeptForecast kept) {
        briefClosedAt = now;
        forecast = kept == null ? null : JsonMapper.shared().writeValueAsString(kept);
    }

    void reopenBrief() {
        briefClosedAt = null;
    }

    void putAway(Instant now) {
        putAwayAt = now;
    }

    void bringBack() {
        putAwayAt = null;
    }

    void show(LeaversShown leavers) {
        leaversShown = leavers;
    }

    StudyId id() {
        return id;
    }

    String title() {
        return title;
    }

    Optional<Instant> briefClosedAt() {
        return Optional.ofNullable(briefClosedAt);
    }

    long version() {
        return version;
    }

    StudyView view() {
        RuleTerms.GateTerms gate = gateCriterion == null || gateLevel == null || gateCap == null
                ? null
                : new RuleTerms.GateTerms(gateCriterion, gateLevel, gateCap);
        RuleTerms rule = new RuleTerms(
                coefficient,
                agreementFloor,
                floorOn,
                margin,
                minimumRaters,
                tieBreak,
                strictOnMasking,
                strictOnSplits,
                byKind,
                looks,
                failedAnswers,
                gate);
        Brief brief = new Brief(
                question,
                audience,
                background,
                rule,
                asksExpectations,
                new RaterTerms(reasons, showsReference, asksSourceGuess, trialsShown));
        return new StudyView(
                id,
                title,
                brief,
                briefClosedAt,
                forecast == null ? null : JsonMapper.shared().readValue(forecast, KeptForecast.class),
                seed,
                createdAt);
    }
}
