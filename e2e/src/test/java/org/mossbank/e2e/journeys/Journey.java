package org.mossbank.e2e.journeys;

import java.nio.file.Path;
import java.util.Map;
import org.mossbank.e2e.Browser;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.TestDatabase;
import org.testng.annotations.AfterClass;
import org.testng.annotations.AfterSuite;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.BeforeSuite;
import org.testng.annotations.Listeners;

/** One packaged server with the demo study for all journeys, one browser for each class. */
@Listeners(WhatWasSeen.class)
public abstract class Journey {
    protected static final Path ROOT = Path.of(System.getProperty("mossbank.root"));
    protected static final String PASSWORD = "tide and lantern";

    /** What sources are asked with. */
    protected static final String SECRET = "heron under the jetty";

    /** Where the server may read repositories, as its administrator would set it. */
    protected static final Path REPOSITORIES = ROOT.resolve("e2e/target/repositories");

    private static ServerProcess server;
    protected Browser browser;

    @BeforeSuite
    public static void startServer() {
        if (server == null) {
            server = ServerProcess.startDemo(
                    ROOT,
                    TestDatabase.create(),
                    Map.of(
                            "MOSSBANK_GIT_ROOTS",
                            REPOSITORIES.toString(),
                            "MOSSBANK_ALLOWED_SOURCES",
                            "127.0.0.1",
                            "MOSSBANK_SECRETS_STANDIN",
                            SECRET));
        }
    }

    @AfterSuite
    public static void stopServer() {
        server.close();
    }

    protected static ServerProcess server() {
        return server;
    }

    @BeforeClass
    public void openBrowser() {
        browser = Browser.open(server.address());
    }

    @AfterClass(alwaysRun = true)
    public void closeBrowser() {
        if (browser != null) {
            browser.close();
        }
    }
}
