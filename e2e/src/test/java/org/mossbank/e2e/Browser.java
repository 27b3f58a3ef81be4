package org.mossbank.e2e;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.logging.Level;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.OutputType;
import org.openqa.selenium.StaleElementReferenceException;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.logging.LogEntry;
import org.openqa.selenium.logging.LogType;
import org.openqa.selenium.logging.LoggingPreferences;
import org.openqa.selenium.support.ui.ExpectedCondition;
import org.openqa.selenium.support.ui.WebDriverWait;

/** Headless Chromium at 1280×800, with look-ups by what people see and hear: roles, labels, texts. */
public final class Browser implements AutoCloseable {
    private static final int MOST_SEEN = 600;
    private static final Duration PATIENCE = Duration.ofSeconds(90);
    private static final Duration BETWEEN_LOOKS = Duration.ofMillis(400);

    private final ChromeDriver driver;
    private final URI address;

    private Browser(ChromeDriver driver, URI address) {
        this.driver = driver;
        this.address = address;
    }

    public static Browser open(URI address) {
        try {
            ChromeOptions options = new ChromeOptions();
            options.setBinary("/usr/bin/chromium");
            options.addArguments(
                    "--headless=new",
                    "--disable-gpu",
                    "--disable-dev-shm-usage",
                    "--hide-scrollbars",
                    "--force-device-scale-factor=1",
                    "--lang=en-US",
                    "--no-first-run",
                    "--disable-background-networking",
                    "--disable-component-update",
                    "--disable-sync",
                    "--disable-quic",
                    "--user-data-dir=" + Files.createTempDirectory("mossbank-browser"));
            if ("root".equals(System.getProperty("user.name"))) {
                options.addArguments("--no-sandbox");
            }
            LoggingPreferences kept = new LoggingPreferences();
            kept.enable(LogType.BROWSER, Level.WARNING);
            options.setCapability(ChromeOptions.LOGGING_PREFS, kept);
            ChromeDriverService service = new ChromeDriverService.Builder()
                    .usingDriverExecutable(Path.of("/usr/bin/chromedriver").toFile())
                    .usingAnyFreePort()
                    .build();
            Browser browser = new Browser(new ChromeDriver(service, options), address);
            browser.driver.manage().timeouts().scriptTimeout(PATIENCE);
            browser.resize(1280, 800);
            return browser;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public void resize(int width, int height) {
        driver.executeCdpCommand(
                "Emulation.setDeviceMetricsOverride",
                Map.of("width", width, "height", height, "deviceScaleFactor", 1, "mobile", false));
    }

    /** Shows what would be printed, and no longer. */
    public void print(boolean wanted) {
        driver.executeCdpCommand("Emulation.setEmulatedMedia", Map.of("media", wanted ? "print" : ""));
    }

    public ChromeDriver driver() {
        return driver;
    }

    public Browser go(String path) {
        driver.get(address.resolve(path).toString());
        return this;
    }

    /** Signs in through the demo's own offer, and waits for the first page. */
    public Browser signInAs(String displayName) {
        driver.manage().deleteAllCookies();
        go("/sign-in");
        click(By.xpath("//button[.//span[normalize-space()='" + displayName + "']]"));
        await(d -> !String.valueOf(d.getCurrentUrl()).contains("/sign-in"));
        seeHeading();
        return this;
    }

    public <T> T await(ExpectedCondition<T> condition) {
        // What is drawn anew while it is looked at is looked at again.
        return new WebDriverWait(driver, PATIENCE, BETWEEN_LOOKS)
                .ignoring(StaleElementReferenceException.class)
                .withMessage(this::whatIsSeen)
                .until(condition);
    }

    /** So that a wait in vain tells what was there instead. */
    private String whatIsSeen() {
        String text = driver.findElement(By.tagName("body")).getText();
        return "at " + driver.getCurrentUrl() + ": " + text.substring(0, Math.min(MOST_SEEN, text.length()));
    }

    public WebElement see(By by) {
        return await(d -> {
            List<WebElement> found = d.findElements(by);
            return found.isEmpty() ? null : firstSeen("return all.find(seen)", found);
        });
    }

    /** The innermost element that holds all of it; a sentence may be pieced together from several texts. */
    public WebElement seeText(String text) {
        return await(d -> firstSeen("""
                const holds = e => e.textContent.replace(/[ \\t\\r\\n]+/g, ' ').includes(all);
                const inmost = e => {
                    const within = [...e.children].filter(holds);
                    return within.length > 0 ? within.flatMap(inmost) : [e];
                };
                return document.body && holds(document.body) ? inmost(document.body).find(seen) : null;""", text));
    }

    /** Looked at from within the page, all at once: asked from outside, element by element, it takes most of a journey's time. */
    private WebElement firstSeen(String how, Object all) {
        return (WebElement) driver.executeScript("""
                const all = arguments[0];
                const seen = e => {
                    const box = e.getBoundingClientRect();
                    return box.width > 0 && box.height > 0
                        && e.checkVisibility({ opacityProperty: true, visibilityProperty: true });
                };
                """ + how, all);
    }

    /** Waits until the page's heading is there and nothing is being fetched. */
    public WebElement seeHeading() {
        WebElement heading = see(By.tagName("h1"));
        awaitPage();
        return heading;
    }

    /** The same where the heading may have been scrolled out of sight, as it may be behind a dialog. */
    public void awaitPage() {
        await(d -> !d.findElements(By.tagName("h1")).isEmpty()
                && d.findElements(By.xpath("//*[@role='status'][contains(., 'Fetching')]"))
                        .isEmpty());
    }

    public WebElement seeHeading(String text) {
        return see(By.xpath("//h1[contains(normalize-space(), \"" + text + "\")]"));
    }

    /** Once it can be: a click on what waits for an answer is lost, as a person's would be. */
    public void click(By by) {
        await(d -> {
            WebElement found = see(by);
            if (!found.isEnabled()) {
                return false;
            }
            found.click();
            return true;
        });
    }

    /** For what may go away by itself: waits until it is gone, and clicks it until then. */
    public void clickWhileThere(By by) {
        await(d -> {
            List<WebElement> found = d.findElements(by);
            found.forEach(WebElement::click);
            return found.isEmpty();
        });
    }

    public void clickButton(String name) {
        click(By.xpath("//button[normalize-space()='" + name + "' or @aria-label='" + name + "']"));
    }

    public void clickLink(String name) {
        click(By.xpath("//a[contains(normalize-space(), \"" + name + "\")]"));
    }

    public WebElement field(String label) {
        String id = see(By.xpath("//label[normalize-space()='" + label + "']")).getAttribute("for");
        return see(By.id(String.valueOf(id)));
    }

    /** Types into whatever has the focus. */
    public Browser press(CharSequence... keys) {
        driver.switchTo().activeElement().sendKeys(keys);
        return this;
    }

    /** Presses Tab until the element in focus has the label. */
    public Browser tabTo(String label) {
        for (int i = 0; i < 60; i++) {
            String here = focusedLabel();
            if (here.startsWith(label)) {
                return this;
            }
            press(Keys.TAB);
        }
        throw new AssertionError("Tab does not reach " + label);
    }

    public String focusedLabel() {
        WebElement element = driver.switchTo().activeElement();
        String label = element.getAttribute("aria-label");
        return label != null ? label : element.getText();
    }

    public List<WebElement> all(By by) {
        return driver.findElements(by);
    }

    public void setTheme(String theme) {
        driver.executeScript(
                "localStorage.setItem('mossbank.theme', arguments[0]); document.documentElement.dataset.theme = arguments[0]",
                theme);
    }

    public void setOffline(boolean offline) {
        driver.executeCdpCommand("Network.enable", Map.of());
        driver.executeCdpCommand(
                "Network.emulateNetworkConditions",
                Map.of("offline", offline, "latency", 0, "downloadThroughput", -1, "uploadThroughput", -1));
    }

    /** Lets no request through whose address has this form; none given lets all through. */
    public void block(String... addresses) {
        driver.executeCdpCommand("Network.enable", Map.of());
        driver.executeCdpCommand("Network.setBlockedURLs", Map.of("urls", List.of(addresses)));
    }

    public void saveScreenshot(Path file) {
        // Fonts first, or the picture shows stand-ins.
        driver.executeAsyncScript("document.fonts.ready.then(arguments[arguments.length - 1])");
        try {
            Files.createDirectories(file.toAbsolutePath().getParent());
            Files.write(file, driver.getScreenshotAs(OutputType.BYTES));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** @throws AssertionError if a page asked for something that its own policy forbids: it would have looked otherwise */
    @Override
    public void close() {
        try {
            List<String> refused = driver.manage().logs().get(LogType.BROWSER).getAll().stream()
                    .map(LogEntry::getMessage)
                    .filter(m -> m.contains("Content Security Policy"))
                    .toList();
            if (!refused.isEmpty()) {
                throw new AssertionError("the page's policy forbade " + refused);
            }
        } finally {
            driver.quit();
        }
    }
}
