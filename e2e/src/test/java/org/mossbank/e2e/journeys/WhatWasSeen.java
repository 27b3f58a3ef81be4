package org.mossbank.e2e.journeys;

import java.nio.file.Files;
import java.nio.file.Path;
import org.openqa.selenium.By;
import org.testng.ITestListener;
import org.testng.ITestResult;

/** When a journey fails, keeps what its browser showed: a picture and the page's text, in {@code target/failures}. */
public class WhatWasSeen implements ITestListener {
    private static final Path FOLDER = Journey.ROOT.resolve("e2e/target/failures");

    @Override
    public void onTestFailure(ITestResult result) {
        if (result.getInstance() instanceof Journey journey && journey.browser != null) {
            keep(journey, result.getMethod().getQualifiedName());
        }
    }

    private static void keep(Journey journey, String name) {
        try {
            journey.browser.saveScreenshot(FOLDER.resolve(name + ".png"));
            Files.writeString(
                    FOLDER.resolve(name + ".txt"),
                    journey.browser.driver().getCurrentUrl() + "\n"
                            + journey.browser.see(By.tagName("body")).getText());
        } catch (Exception e) {
            // The browser itself may be what failed; the test's own failure is reported either way.
            System.err.println("Could not keep what was seen: " + e);
        }
    }
}
