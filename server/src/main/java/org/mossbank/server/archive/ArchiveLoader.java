package org.mossbank.server.archive;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.mossbank.core.change.ChangeSize;
import org.mossbank.core.change.ComparisonBudget;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.files.NewIds;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.study.Declared;
import org.mossbank.server.study.PeopleRows.KeyedRater;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Writes a checked archive to the database, whole or not at all. */
@Service
class ArchiveLoader {
    private final Accounts accounts;
    private final Studies studies;
    private final CollectionParts collection;
    private final Grading grading;
    private final Clock clock;
    private final ContentParts content;
    private final RecordParts kept;

    ArchiveLoader(
            Accounts accounts,
            Studies studies,
            CollectionParts collection,
            Grading grading,
            Clock clock,
            ContentParts content,
            RecordParts kept) {
        this.kept = kept;
        this.content = content;
        this.accounts = accounts;
        this.studies = studies;
        this.collection = collection;
        this.grading = grading;
        this.clock = clock;
    }

    /**
     * What loading made: the study, and its raters as accounts, in the archive's order; a lead who graded is none.
     *
     * @param asked those who have accounts of their own and must accept first
     */
    record Loaded(StudyId studyId, List<AccountView> raters, Set<AccountId> asked) {}

    /**
     * An archive with how much each answer changes in the starting code, by the answer's key.
     */
    record Weighed(StudyArchive archive, Map<String, ChangeSize> changed) {
        /** Slow, so before a transaction begins. */
        static Weighed of(StudyArchive archive) {
            Map<String, Map<String, String>> code = new HashMap<>();
            archive.prompts().forEach(p -> code.put(p.key(), p.content().startingCode()));
            ComparisonBudget budget = ComparisonBudget.ofRequest();
            Map<String, ChangeSize> changed = new HashMap<>();
            archive.answers()
                    .forEach(a -> changed.put(
                            a.key(), ChangeSize.of(Require.known(code, a.prompt()), a.wholeText(), budget.within())));
            return new Weighed(archive, changed);
        }
    }

    @SystemOnly
    @Transactional
    public Loaded load(Weighed weighed, AccountId lead) {
        StudyArchive archive = weighed.archive();
        Map<String, AccountId> people = new LinkedHashMap<>();
        List<AccountView> raters = new ArrayList<>();
        Set<AccountId> asked = new LinkedHashSet<>();
        for (KeyedRater rater : archive.people().raters()) {
            if (rater.lead()) {
                people.put(rater.signInName(), lead);
            } else {
                Accounts.Found found = accounts.findOrInvite(rater.signInName(), rater.name(), lead);
                raters.add(found.account());
                people.put(rater.signInName(), found.account().id());
                if (!found.invited()) {
                    asked.add(found.account().id());
                }
            }
        }
        StudyId study = studies.create(start(archive, lead, people, asked));
        NewIds ids = content.add(study, weighed, people);
        collection.add(study, archive, ids);
        if (!archive.head().preparing()) {
            openRound(study, archive, ids);
        } else if (!archive.sheets().isEmpty()) {
            Instant now = clock.instant();
            grading.calibrate(
                    study, archive.sheets().stream().map(s -> s.kept(ids, now)).toList());
        }
        kept.restore(study, archive.kept(), ids, lead);
        return new Loaded(study, raters, asked);
    }

    private static Studies.NewStudy start(
            StudyArchive archive, AccountId lead, Map<String, AccountId> people, Set<AccountId> asked) {
        StudyArchive.Head head = archive.head();
        return new Studies.NewStudy(
                head.title(),
                head.brief(),
                head.briefClosedAt(),
                head.forecast(),
                head.seed(),
                lead,
                archive.people().leadGraded(),
                new LinkedHashSet<>(people.values()),
                asked,
                head.reopenings(),
                archive.people().expectations().stream()
                        .map(e -> new Declared(
                                e.rater() == null ? lead : Require.known(people, e.rater()),
                                e.expects(),
                                e.usesToday(),
                                e.declaredAt()))
                        .toList());
    }

    private void openRound(StudyId study, StudyArchive archive, NewIds ids) {
        Instant now = clock.instant();
        StudyArchive.RoundHead round = archive.head().round();
        grading.open(
                study,
                new Grading.NewRound(
                        round.openedAt() == null ? now : round.openedAt(),
                        round.closedAt(),
                        round.namesOpenedAt(),
                        round.ratersAnAnswer(),
                        round.repeatShare(),
                        archive.people().leadGraded()),
                archive.sheets().stream().map(s -> s.kept(ids, now)).toList());
    }
}
