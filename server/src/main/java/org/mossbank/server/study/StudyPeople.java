package org.mossbank.server.study;

import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountKeeping;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.study.people.LeaversShown;
import org.mossbank.server.study.people.Membership;
import org.mossbank.server.study.people.MembershipRepository;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * What people are called in a study: by their names, but by a number once they have left, where the study wants that. Whatever
 * shows somebody's name within a study asks here.
 */
@Service
@Transactional(readOnly = true)
public class StudyPeople {
    /** Digits of the study's id in a key: keys of two studies that are brought in elsewhere must not meet. */
    private static final int DIGITS = 8;

    private final StudyRepository studies;
    private final MembershipRepository memberships;
    private final Accounts accounts;
    private final ApplicationEventPublisher events;

    StudyPeople(
            StudyRepository studies,
            MembershipRepository memberships,
            Accounts accounts,
            ApplicationEventPublisher events) {
        this.events = events;
        this.studies = studies;
        this.memberships = memberships;
        this.accounts = accounts;
    }

    /**
     * Everybody asked for, with the name that this study shows; the ids must exist. Sign-in names are the true ones, as figures
     * are resampled in their order: none of somebody who is {@link #hidden} may be shown.
     */
    @SystemOnly
    public Map<AccountId, AccountView> of(StudyId study, Collection<AccountId> ids) {
        Map<AccountId, AccountView> found = accounts.byId(ids);
        Map<AccountId, String> hidden = hidden(study);
        found.replaceAll((id, account) -> hidden.containsKey(id) ? account.called(hidden.get(id)) : account);
        return found;
    }

    /** The name that this study shows. */
    @SystemOnly
    public String name(StudyId study, AccountId person) {
        return of(study, List.of(person)).values().iterator().next().displayName();
    }

    /** What those are called whose names this study does not show. */
    @SystemOnly
    public Map<AccountId, String> hidden(StudyId study) {
        if (shown(study) == LeaversShown.BY_NAME) {
            return Map.of();
        }
        Map<AccountId, Membership> numbered = memberships.ofStudy(study).stream()
                .filter(m -> m.leftNumber() != null)
                .collect(Collectors.toMap(Membership::accountId, m -> m));
        return accounts.byId(numbered.keySet()).values().stream()
                .filter(a -> !a.active())
                .collect(Collectors.toMap(AccountView::id, a -> called(Require.known(numbered, a.id()))));
    }

    /**
     * Somebody whom another study knew by sign-in name.
     *
     * @param hiddenAs what they are called instead; absent where this study shows their name
     */
    public record Remembered(AccountId id, @Nullable String hiddenAs) {}

    /** Those of some people who have an account here; nobody where the study shows all names. */
    @SystemOnly
    public Map<String, Remembered> remembered(StudyId study, Collection<String> signInNames) {
        if (shown(study) == LeaversShown.BY_NAME) {
            return Map.of();
        }
        Map<AccountId, String> hidden = hidden(study);
        return accounts.bySignInName(signInNames).entrySet().stream().collect(Collectors.toMap(Map.Entry::getKey, e -> {
            AccountView person = e.getValue();
            return new Remembered(
                    person.id(), person.active() ? null : hidden.getOrDefault(person.id(), "somebody who has left"));
        }));
    }

    private static String called(Membership who) {
        return (who.grades() ? "Former rater " : "Former member ") + who.leftNumber();
    }

    @SystemOnly
    public LeaversShown shown(StudyId study) {
        return studies.leaversShown(study);
    }

    /** Shows people who have left otherwise from now on; figures name people, so they are made anew. */
    @SystemOnly
    @Transactional
    public void show(StudyId study, LeaversShown leavers) {
        Study found = studies.lock(study).orElseThrow();
        found.show(leavers);
        events.publishEvent(new FiguresChanged(study));
    }

    /** In a study that was made from another, those who leave are shown as in that. */
    @SystemOnly
    @Transactional
    public void showAsIn(StudyId other, StudyId made) {
        if (shown(other) != shown(made)) {
            show(made, shown(other));
        }
    }

    /** Sign-in names of those who grade and have not left. */
    @SystemOnly
    public Set<String> staying(StudyId study) {
        List<AccountId> raters = memberships.ofStudy(study).stream()
                .filter(Membership::grades)
                .map(Membership::accountId)
                .toList();
        return accounts.byId(raters).values().stream()
                .filter(AccountView::active)
                .map(AccountView::signInName)
                .collect(Collectors.toSet());
    }

    /** Where the study does not name those who left, the figures that did are made anew. */
    @SystemOnly
    @EventListener
    @Transactional
    public void renew(AccountKeeping.LeftOrCame who) {
        memberships.ofAccount(who.account()).stream()
                .map(Membership::studyId)
                .filter(study -> shown(study) == LeaversShown.BY_NUMBER)
                .sorted(Comparator.comparing(StudyId::toString))
                .forEach(study -> events.publishEvent(new FiguresChanged(study)));
    }

    /**
     * By which keys a study that is handed to others names these people: their sign-in names, but numbers for all of them if one
     * is hidden. Numbers follow the order of the sign-in names, so that whoever works out figures again resamples in the same.
     */
    @SystemOnly
    public Map<AccountId, String> keys(StudyId study, Collection<AccountId> ids) {
        return keys(study, ids, true);
    }

    /** The same for a study that follows on this server: only those who are hidden have numbers. */
    @SystemOnly
    public Map<AccountId, String> keysHere(StudyId study, Collection<AccountId> ids) {
        return keys(study, ids, false);
    }

    private Map<AccountId, String> keys(StudyId study, Collection<AccountId> ids, boolean forOthers) {
        Map<AccountId, String> hidden = hidden(study);
        List<AccountView> ordered = accounts.byId(ids).values().stream()
                .sorted(Comparator.comparing(AccountView::signInName))
                .toList();
        boolean all = forOthers && ordered.stream().anyMatch(a -> hidden.containsKey(a.id()));
        Map<AccountId, String> keys = new HashMap<>();
        for (AccountView one : ordered) {
            String number = "r%s-%04d".formatted(study.toString().substring(0, DIGITS), keys.size() + 1);
            keys.put(one.id(), all || hidden.containsKey(one.id()) ? number : one.signInName());
        }
        return keys;
    }
}
