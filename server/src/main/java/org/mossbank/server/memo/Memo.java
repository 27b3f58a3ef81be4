package org.mossbank.server.memo;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.memo.document.MemoHead;
import org.mossbank.server.memo.document.MemoSection;
import org.mossbank.server.memo.document.NamesShown;
import org.mossbank.server.memo.rows.KeyedMemo;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** A version of a study's memo: written by its lead until it is signed, and from then on as it is. */
@Entity
class Memo {
    private static final TypeReference<Map<MemoSection, String>> WORDS = new TypeReference<>() {};

    @Id
    private UUID id;

    private StudyId studyId;
    private int number;

    @Enumerated(EnumType.STRING)
    private NamesShown names;

    /** As JSON: it is read and written whole. */
    private String words;

    private String change;
    private Instant begunAt;
    private String begunBy;

    @Nullable
    private Instant signedAt;

    @Nullable
    private AccountId signerId;

    @Nullable
    private String signedBy;

    @Version
    private long version;

    @SuppressWarnings("NullAway.Init")
    protected Memo() {}

    /** Raters go by letters until the lead says otherwise. */
    static Memo first(StudyId study, Instant now, String by) {
        Memo memo = new Memo();
        memo.id = UUID.randomUUID();
        memo.studyId = study;
        memo.number = 1;
        memo.begunAt = now;
        memo.begunBy = by;
        memo.write(NamesShown.PSEUDONYM, "", Map.of());
        return memo;
    }

    /** As an archive brings it; who signed is known there by name alone. */
    static Memo of(StudyId study, KeyedMemo brought) {
        MemoHead head = brought.head();
        Memo memo = first(study, head.begunAt(), head.begunBy());
        memo.number = head.number();
        memo.write(brought.names(), head.change(), brought.words());
        MemoHead.MemoSignature signed = head.signed();
        if (signed != null) {
            memo.signedAt = signed.at();
            memo.signedBy = signed.by();
        }
        return memo;
    }

    /** The next version, which begins with what this one says. */
    Memo next(String newChange, Instant now, String by) {
        Memo memo = first(studyId, now, by);
        memo.number = number + 1;
        memo.write(names, newChange, words());
        return memo;
    }

    /** @param newWords by part; parts without words are left out */
    void write(NamesShown newNames, String newChange, Map<MemoSection, String> newWords) {
        names = newNames;
        change = newChange;
        words = JsonMapper.shared().writeValueAsString(newWords);
    }

    void sign(Instant now, AccountId signer, String by) {
        signerId = signer;
        signedAt = now;
        signedBy = by;
    }

    UUID id() {
        return id;
    }

    StudyId studyId() {
        return studyId;
    }

    int number() {
        return number;
    }

    NamesShown names() {
        return names;
    }

    String change() {
        return change;
    }

    long version() {
        return version;
    }

    boolean isSigned() {
        return signedAt != null;
    }

    boolean isSignedBy(AccountId account) {
        return account.equals(signerId);
    }

    Map<MemoSection, String> words() {
        Map<MemoSection, String> all = new EnumMap<>(MemoSection.class);
        all.putAll(JsonMapper.shared().readValue(words, WORDS));
        return all;
    }

    MemoHead head() {
        return new MemoHead(number, begunAt, begunBy, change, signature().orElse(null));
    }

    Optional<MemoHead.MemoSignature> signature() {
        return signedAt == null || signedBy == null
                ? Optional.empty()
                : Optional.of(new MemoHead.MemoSignature(signedAt, signedBy));
    }
}
