package org.mossbank.server.archive;

import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.answer.FollowUpRules;
import org.mossbank.server.answer.specimen.SpecimenView;
import org.mossbank.server.answer.specimen.Specimens;
import org.mossbank.server.files.Keys;
import org.mossbank.server.files.NewIds;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.Id;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.masking.MaskRows.KeyedMasks;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.readback.ReadBackRows.KeyedReadBack;
import org.mossbank.server.readback.ReadBacks;
import org.mossbank.server.run.RunRows.KeyedRun;
import org.mossbank.server.run.Runs;
import org.mossbank.server.source.SourceContent;
import org.mossbank.server.source.Sources;
import org.springframework.stereotype.Component;

/**
 * How answers were collected, what raters do not read of them, and how prompts were read back, on its way into the database and out of it. Called within
 * the transaction of whoever asks.
 */
@Component
class CollectionParts {
    private final FollowUpRules rules;
    private final Sources sources;
    private final Runs runs;
    private final Masking masking;
    private final ReadBacks readBacks;
    private final Specimens specimens;

    CollectionParts(
            FollowUpRules rules,
            Sources sources,
            Runs runs,
            Masking masking,
            ReadBacks readBacks,
            Specimens specimens) {
        this.specimens = specimens;
        this.readBacks = readBacks;
        this.rules = rules;
        this.sources = sources;
        this.runs = runs;
        this.masking = masking;
    }

    List<SpecimenView> specimens(StudyId study) {
        return specimens.ofStudy(study);
    }

    void add(StudyId study, StudyArchive archive, NewIds ids) {
        Integer mostFollowUps = archive.head().mostFollowUps();
        if (mostFollowUps != null) {
            rules.add(study, mostFollowUps);
        }
        archive.sources()
                .forEach((candidate, source) -> sources.add(study, Require.known(ids.candidates(), candidate), source));
        archive.runs().forEach(r -> runs.add(study, r.kept(ids)));
        Map<AnswerId, List<Masking.Decided>> masks = new HashMap<>();
        archive.masking()
                .masks()
                .forEach((answer, decided) -> masks.put(ids.answers().get(answer), decided));
        masking.add(study, archive.masking().words(), masks);
        readBacks.add(archive.readBacks().stream().map(r -> r.kept(ids)).toList());
    }

    /** The most follow-ups that an answer may have; absent while the study has no rule. */
    @Nullable
    Integer mostFollowUps(StudyId study) {
        return rules.most(study).stream().boxed().findFirst().orElse(null);
    }

    /** By candidate. */
    SortedMap<String, SourceContent> sources(StudyId study, Keys keys) {
        return byKey(sources.ofStudy(study), keys);
    }

    List<KeyedRun> runs(StudyId study, Keys keys) {
        return runs.ofStudy(study).stream().map(r -> KeyedRun.of(r, keys)).toList();
    }

    KeyedMasks masks(StudyId study, Keys keys) {
        return new KeyedMasks(masking.words(study), byKey(masking.decided(study), keys));
    }

    List<KeyedReadBack> readBacks(StudyId id, Keys keys) {
        return readBacks.ofStudy(id).stream()
                .filter(r -> keys.orNone(r.readerId()) != null)
                .map(r -> KeyedReadBack.of(r, keys))
                .sorted(Comparator.comparing(KeyedReadBack::prompt).thenComparing(KeyedReadBack::reader))
                .toList();
    }

    private static <T> SortedMap<String, T> byKey(Map<? extends Id<?>, T> byId, Keys keys) {
        SortedMap<String, T> byKey = new TreeMap<>();
        byId.forEach((id, one) -> byKey.put(keys.of(id), one));
        return byKey;
    }
}
