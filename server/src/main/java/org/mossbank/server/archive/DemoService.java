package org.mossbank.server.archive;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.acts.Acts;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.recommendation.LookTaking;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.study.RoundStage;
import org.mossbank.server.study.Studies;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.context.event.EventListener;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** In demo mode, loads the demo study at the first start and offers its sign-ins. */
@Service
class DemoService {
    /**
     * The demo, off unless asked for.
     *
     * @param folder the demo's studies, unzipped archives; the first is the newest
     */
    @ConfigurationProperties("mossbank.demo")
    record DemoSettings(boolean enabled, List<Path> folder) {}

    private static final String LEAD = "orla";
    private static final String LEAD_NAME = "Orla Fennick";
    private static final String PASSWORD = "tide and lantern";

    private final DemoSettings settings;
    /** Looked up only for the first start, so that a lazy start need not make it. */
    private final ObjectProvider<ArchiveLoader> loader;

    private final ObjectProvider<LookTaking> looks;

    private final Acts acts;
    private final Accounts accounts;
    private final Studies studies;
    private final TransactionTemplate transactions;
    private final Clock clock;

    DemoService(
            DemoSettings settings,
            ObjectProvider<ArchiveLoader> loader,
            ObjectProvider<LookTaking> looks,
            Acts acts,
            Accounts accounts,
            Studies studies,
            PlatformTransactionManager transactions,
            Clock clock) {
        this.settings = settings;
        this.loader = loader;
        this.looks = looks;
        this.acts = acts;
        this.accounts = accounts;
        this.studies = studies;
        this.transactions = new TransactionTemplate(transactions);
        this.clock = clock;
    }

    @SystemOnly
    @EventListener(ApplicationReadyEvent.class)
    public void load() throws IOException {
        if (!settings.enabled() || !studies.isEmpty()) {
            return;
        }
        List<ArchiveLoader.Weighed> oldestFirst = new ArrayList<>();
        for (Path folder : settings.folder()) {
            oldestFirst.add(0, ArchiveLoader.Weighed.of(read(folder)));
        }
        String passwordHash = accounts.hashed(PASSWORD);
        AccountId lead = Objects.requireNonNull(transactions.execute(status -> load(oldestFirst, passwordHash)));
        looks.ifAvailable(taking -> studies.ofLead(lead).forEach(study -> lookAt(study, taking)));
    }

    /** The demo has something to see while its raters still grade. */
    private void lookAt(StudyId study, LookTaking taking) {
        if (studies.stage(study) == RoundStage.Stage.GRADING
                && studies.get(study).brief().rule().looks() > 1) {
            LookTaking.Worked worked = taking.workOut(study, clock.instant(), LEAD_NAME);
            taking.keep(study, worked);
            acts.restore(study, List.of(worked.taken().asAct()));
        }
    }

    private AccountId load(List<ArchiveLoader.Weighed> oldestFirst, String passwordHash) {
        AccountView lead = accounts.createLead(LEAD, LEAD_NAME);
        accounts.setPassword(lead.id(), passwordHash);
        Set<AccountId> raters = new LinkedHashSet<>();
        oldestFirst.forEach(
                study -> loader.getObject().load(study, lead.id()).raters().forEach(r -> raters.add(r.id())));
        raters.forEach(rater -> accounts.setPassword(rater, passwordHash));
        return lead.id();
    }

    private StudyArchive read(Path folder) throws IOException {
        ArchiveReader.Reading reading =
                ArchiveReader.read(ArchiveFiles.fromFolder(folder), ArchiveService::freshSeed, clock.instant());
        return reading.study()
                .orElseThrow(() -> new IllegalStateException("the demo study is not right: " + reading.faults()));
    }

    /** A sign-in that the demo offers. */
    record DemoSignIn(String name, String displayName, String role, String password) {}

    /** @throws Problem 404 unless in demo mode */
    @PreAuthorize("permitAll()")
    @Transactional(readOnly = true)
    public List<DemoSignIn> signIns() {
        if (!settings.enabled()) {
            throw Problem.notFound("A demo");
        }
        List<DemoSignIn> signIns = new ArrayList<>();
        accounts.find(LEAD).ifPresent(lead -> {
            signIns.add(new DemoSignIn(lead.signInName(), lead.displayName(), "Lead", PASSWORD));
            for (StudyId study : studies.ofLead(lead.id())) {
                raters(study).stream().filter(r -> !signIns.contains(r)).forEach(signIns::add);
            }
        });
        return signIns;
    }

    private List<DemoSignIn> raters(StudyId study) {
        return accounts.byId(studies.raters(study)).values().stream()
                .sorted(java.util.Comparator.comparing(AccountView::displayName))
                .map(r -> new DemoSignIn(r.signInName(), r.displayName(), "Rater", PASSWORD))
                .toList();
    }
}
