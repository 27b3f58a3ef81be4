package org.mossbank.e2e.journeys;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.mossbank.e2e.Browser;
import org.mossbank.standin.mail.MailStandIn;
import org.mossbank.testkit.ProviderProcess;
import org.mossbank.testkit.QuickStart;
import org.mossbank.testkit.ServerProcess;
import org.testng.ITestContext;
import org.testng.annotations.AfterClass;
import org.testng.annotations.AfterTest;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Listeners;

/** One packaged server with the demo study for each part of the suite, one browser for each class. */
@Listeners(WhatWasSeen.class)
public abstract class Journey {
    protected static final Path ROOT = Path.of(System.getProperty("mossbank.root"));
    protected static final String PASSWORD = "tide and lantern";

    /** What sources are asked with. */
    protected static final String SECRET = "heron under the jetty";

    /** Where the server may read repositories, as its administrator would set it. */
    protected static final Path REPOSITORIES = ROOT.resolve("e2e/target/repositories");

    /** Where the provider of sign-ins listens, once a journey has started it. */
    protected static final int PROVIDER_PORT = ProviderProcess.freePort();

    /** Takes what servers send. */
    protected static final MailStandIn MAIL = mail();

    private static MailStandIn mail() {
        try {
            return MailStandIn.start(0, null);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static final Map<String, ServerProcess> SERVERS = new ConcurrentHashMap<>();

    private ServerProcess server;
    protected Browser browser;

    private static ServerProcess start() {
        Map<String, String> settings = new HashMap<>(ServerProcess.AMONG_MANY);
        settings.put("MOSSBANK_GIT_ROOTS", REPOSITORIES.toString());
        settings.put("MOSSBANK_ALLOWED_SOURCES", "127.0.0.1");
        settings.put("MOSSBANK_HOSTS_STANDIN", "127.0.0.1");
        settings.put("MOSSBANK_SECRETS_STANDIN", SECRET);
        settings.put("MOSSBANK_PROVIDERS_HARBOUR_NAME", "Harbour office");
        settings.put("MOSSBANK_PROVIDERS_HARBOUR_ISSUER", "http://127.0.0.1:" + PROVIDER_PORT);
        settings.put("MOSSBANK_PROVIDERS_HARBOUR_CLIENT", "mossbank");
        settings.put("MOSSBANK_PROVIDERS_HARBOUR_SECRET", ProviderProcess.SECRET);
        settings.put("MOSSBANK_PROVIDERS_HARBOUR_LEADS", "model-leads");
        settings.put("MOSSBANK_MAIL_HOST", "127.0.0.1");
        settings.put("MOSSBANK_MAIL_PORT", String.valueOf(MAIL.port()));
        settings.put("MOSSBANK_MAIL_SECURITY", "NONE");
        settings.put("MOSSBANK_MAIL_FROM", "mossbank@harbour.example");
        settings.put("MOSSBANK_MAIL_ADDRESS", "https://mossbank.example");
        return ServerProcess.startDemo(ROOT, QuickStart.of(ROOT).databaseWithDemo(), settings);
    }

    protected ServerProcess server() {
        return server;
    }

    @BeforeClass
    public void openBrowser(ITestContext context) {
        server = SERVERS.computeIfAbsent(context.getName(), name -> start());
        browser = Browser.open(server.address());
    }

    @AfterClass(alwaysRun = true)
    public void closeBrowser() {
        if (browser != null) {
            browser.close();
        }
    }

    @AfterTest(alwaysRun = true)
    public void stopServer(ITestContext context) {
        ServerProcess used = SERVERS.remove(context.getName());
        if (used != null) {
            used.close();
        }
    }
}
