package org.mossbank.server.archive;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.study.Studies;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** In demo mode, loads the demo study at the first start and offers its sign-ins. */
@Service
class DemoService {
    private static final String LEAD = "orla";
    private static final String PASSWORD = "tide and lantern";

    private final DemoSettings settings;
    /** Looked up only for the first start, so that a lazy start need not make it. */
    private final ObjectProvider<ArchiveLoader> loader;

    private final Accounts accounts;
    private final Studies studies;
    private final Clock clock;

    DemoService(
            DemoSettings settings,
            ObjectProvider<ArchiveLoader> loader,
            Accounts accounts,
            Studies studies,
            Clock clock) {
        this.settings = settings;
        this.loader = loader;
        this.accounts = accounts;
        this.studies = studies;
        this.clock = clock;
    }

    @SystemOnly
    @EventListener(ApplicationReadyEvent.class)
    @Transactional
    public void load() throws IOException {
        if (!settings.enabled() || !studies.isEmpty()) {
            return;
        }
        AccountView lead = accounts.createLead(LEAD, "Orla Fennick");
        accounts.setPassword(lead.id(), PASSWORD);
        List<Path> oldestFirst = new ArrayList<>(settings.folder());
        Collections.reverse(oldestFirst);
        Set<UUID> raters = new LinkedHashSet<>();
        for (Path folder : oldestFirst) {
            loader.getObject().load(read(folder), lead.id()).raters().forEach(r -> raters.add(r.id()));
        }
        raters.forEach(rater -> accounts.setPassword(rater, PASSWORD));
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
            for (UUID study : studies.ofLead(lead.id())) {
                raters(study).stream().filter(r -> !signIns.contains(r)).forEach(signIns::add);
            }
        });
        return signIns;
    }

    private List<DemoSignIn> raters(UUID study) {
        return accounts.byId(studies.raters(study)).values().stream()
                .sorted(java.util.Comparator.comparing(AccountView::displayName))
                .map(r -> new DemoSignIn(r.signInName(), r.displayName(), "Rater", PASSWORD))
                .toList();
    }
}
