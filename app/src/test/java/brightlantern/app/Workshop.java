package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.app.account.Accounts;
import brightlantern.app.demo.DemoLauncher;
import brightlantern.app.link.VehicleLinks;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.StandIns;
import java.io.File;
import java.io.IOException;
import java.net.InetAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.openqa.selenium.By;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.ElementClickInterceptedException;
import org.openqa.selenium.ElementNotInteractableException;
import org.openqa.selenium.JavascriptExecutor;
import org.openqa.selenium.OutputType;
import org.openqa.selenium.SessionNotCreatedException;
import org.openqa.selenium.StaleElementReferenceException;
import org.openqa.selenium.TakesScreenshot;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.support.ui.Select;
import org.openqa.selenium.support.ui.WebDriverWait;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.util.FileSystemUtils;

/**
 * The real application on a port of its own, and a technician's browser. Waits for states, never
 * for times.
 */
final class Workshop implements AutoCloseable {
    static final String PASSWORD = "workshop-pass";

    /** Four browsers on two processors take their time. */
    private static final Duration MOST = Duration.ofSeconds(120);

    private static final Path CHROMIUM = Path.of("/usr/bin/chromium");
    private static final Path SHELL = Path.of("/usr/bin/chromium-headless-shell");

    final ConfigurableApplicationContext app;
    final ChromeDriver browser;
    private final String base;

    Workshop(Path data) throws IOException {
        app = Garage.run(data, true);
        base = Garage.address(app);
        Accounts accounts = app.getBean(Accounts.class);
        if (accounts.isEmpty()) {
            accounts.add("tech", "Technician", PASSWORD, Accounts.Role.TECHNICIAN);
            accounts.add("lead", "Lead", PASSWORD, Accounts.Role.LEAD);
        }
        browser = openBrowser();
    }

    static ChromeDriver openBrowser() throws IOException {
        Path profile = Files.createTempDirectory("lantern-browser");
        Runtime.getRuntime().addShutdownHook(new Thread(() -> deleted(profile)));
        ChromeDriver driver;
        try {
            driver = openBrowser(light(profile), profile);
        } catch (SessionNotCreatedException notOfThisVersion) {
            driver = openBrowser(CHROMIUM, profile);
        }
        Number inner = (Number) driver.executeScript("return window.innerHeight");
        driver.manage().window().setSize(new Dimension(1280, 800 + 800 - inner.intValue()));
        driver.manage().timeouts().scriptTimeout(MOST);
        return driver;
    }

    private static ChromeDriver openBrowser(Path binary, Path profile) {
        ChromeOptions options = new ChromeOptions();
        options.setBinary(binary.toFile());
        options.addArguments(
                "--headless",
                "--no-sandbox",
                "--disable-gpu",
                "--disable-quic",
                "--no-first-run",
                "--disable-background-networking",
                "--disable-component-update",
                "--disable-sync",
                "--window-size=1280,800",
                "--user-data-dir=" + profile.resolve("of-" + binary.getFileName()));
        return new ChromeDriver(
                new ChromeDriverService.Builder()
                        .usingDriverExecutable(new File("/usr/bin/chromedriver"))
                        .build(),
                options);
    }

    /**
     * Chromium without a window of its own draws the same pages at half the cost; the driver
     * expects that a page is open, and this one begins with none.
     */
    private static Path light(Path folder) throws IOException {
        if (!Files.isExecutable(SHELL)) {
            return CHROMIUM;
        }
        Path starter = folder.resolve("browser");
        Files.writeString(starter, "#!/bin/sh\nexec " + SHELL + " \"$@\" about:blank\n");
        Files.setPosixFilePermissions(starter, PosixFilePermissions.fromString("rwx------"));
        return starter;
    }

    private static void deleted(Path folder) {
        try {
            FileSystemUtils.deleteRecursively(folder);
        } catch (IOException inUse) {
            // a browser that is still going down keeps a file or two; they harm nothing
        }
    }

    StandInVehicle van(String address, String scenario, int serial) throws IOException {
        return DemoLauncher.start(app, address, "tamarack-portage", scenario, serial);
    }

    /** A van of which one part is broken in the test's own way; it has no seat. */
    StandInVehicle van(String address, String mode, String of, double size, int serial)
            throws IOException {
        StandInVehicle van =
                StandIns.broken(
                        app.getBean(VehicleLinks.class)
                                .library()
                                .byId("tamarack-portage")
                                .orElseThrow(),
                        "plant",
                        mode,
                        of,
                        size,
                        serial);
        van.open(InetAddress.getByName(address));
        app.addApplicationListener(
                event -> {
                    if (event instanceof ContextClosedEvent) {
                        van.close();
                    }
                });
        return van;
    }

    void signIn(String name) {
        go("/sign-in");
        type("#username", name);
        type("#password", PASSWORD);
        click("section button.btn-do");
        until("the list of jobs", b -> !b.findElements(By.linkText("Open a job")).isEmpty());
    }

    void go(String path) {
        browser.get(base + path);
    }

    String path() {
        return browser.getCurrentUrl().substring(base.length());
    }

    <T> T until(String what, Function<ChromeDriver, T> state) {
        return until(browser, what, state);
    }

    /** Waits until a state is there; a page that is being replaced meanwhile is looked at again. */
    static <T> T until(ChromeDriver browser, String what, Function<ChromeDriver, T> state) {
        return new WebDriverWait(browser, MOST, Duration.ofMillis(150))
                .ignoring(StaleElementReferenceException.class)
                .withMessage(
                        () ->
                                what
                                        + "; the page says: "
                                        + browser.findElement(By.tagName("body")).getText())
                .until(driver -> state.apply((ChromeDriver) driver));
    }

    WebElement one(String css) {
        return until(
                css,
                b -> {
                    List<WebElement> found = b.findElements(By.cssSelector(css));
                    return found.isEmpty() ? null : found.get(0);
                });
    }

    /** An attribute of what is drawn now; waits until it has one. */
    String attribute(String css, String name) {
        return until(name + " of " + css, b -> first(b, css).getDomAttribute(name));
    }

    /** What a field holds now. */
    String property(String css, String name) {
        return until(name + " of " + css, b -> first(b, css).getDomProperty(name));
    }

    boolean isEnabled(String css) {
        return until(css, b -> Optional.of(first(b, css).isEnabled())).get();
    }

    void send(String css, CharSequence keys) {
        until(
                "keys to " + css,
                b -> {
                    first(b, css).sendKeys(keys);
                    return true;
                });
    }

    private static WebElement first(ChromeDriver b, String css) {
        return b.findElement(By.cssSelector(css));
    }

    boolean has(String css) {
        return !browser.findElements(By.cssSelector(css)).isEmpty();
    }

    /** What a page answers, fetched by who is signed in. */
    String fetched(String path) {
        return (String)
                browser.executeAsyncScript(
                        "fetch(arguments[0]).then(r => r.text()).then(arguments[1])", path);
    }

    /** A PDF; one that is none by PDF/UA-1 fails. */
    byte[] paper(String path) {
        byte[] pdf =
                Base64.getDecoder()
                        .decode(
                                (String)
                                        browser.executeAsyncScript(
                                                "const done = arguments[1]; fetch(arguments[0])"
                                                        + ".then(r => r.blob()).then(b => {"
                                                        + " const read = new FileReader();"
                                                        + " read.onload = () => done("
                                                        + "read.result.replace(/^[^,]*,/, ''));"
                                                        + " read.readAsDataURL(b); })",
                                                path));
        assertThat(Papers.mistakes(pdf)).as(path).isEmpty();
        return pdf;
    }

    String text(String css) {
        return until(css, b -> first(b, css).getText());
    }

    void type(String css, String text) {
        until("a field " + css, b -> typed(first(b, css), text));
    }

    /** Nothing when it cannot be typed into yet. */
    private static Boolean typed(WebElement field, String text) {
        try {
            field.clear();
        } catch (ElementNotInteractableException folded) {
            return null;
        }
        field.sendKeys(text);
        return true;
    }

    /** Opens what is folded away; what is open stays open. */
    void unfold(String css) {
        until(
                "open " + css,
                b -> {
                    if (isFolded(b, css)) {
                        clicked(b, css + " summary");
                    }
                    return isFolded(b, css) ? null : true;
                });
    }

    private static boolean isFolded(ChromeDriver b, String css) {
        return first(b, css).getDomAttribute("open") == null;
    }

    void choose(String css, String value) {
        until(
                value + " of " + css,
                b -> {
                    new Select(first(b, css)).selectByValue(value);
                    return true;
                });
    }

    /** Clicks what can be clicked, once it can be. */
    void click(String css) {
        until("click " + css, b -> clicked(b, css));
    }

    private static Boolean clicked(ChromeDriver b, String css) {
        List<WebElement> found = b.findElements(By.cssSelector(css));
        if (found.isEmpty() || !found.get(0).isEnabled()) {
            return null;
        }
        ((JavascriptExecutor) b)
                .executeScript(
                        "window.hit = false;"
                                + "arguments[0].addEventListener('click', () => { window.hit = true; },"
                                + " {once: true, capture: true});"
                                + "arguments[0].scrollIntoView({block:'center',behavior:'instant'})",
                        found.get(0));
        try {
            found.get(0).click();
            // what moved away under the pointer was not hit; another page knows of no hit
            return Boolean.FALSE.equals(b.executeScript("return window.hit")) ? null : true;
        } catch (ElementClickInterceptedException moving) {
            return null;
        }
    }

    /** Presses what leads to another page, and waits until that page is there. */
    void press(String css) {
        browser.executeScript("window.leaving = true");
        // a click whose answer was lost may have led to the page that is there already
        until("click " + css, b -> hasLeft(b) ? Boolean.TRUE : clicked(b, css));
        until(
                "the page after " + css,
                b ->
                        hasLeft(b)
                                && Boolean.TRUE.equals(
                                        b.executeScript(
                                                "return document.readyState === 'complete'")));
    }

    private static boolean hasLeft(ChromeDriver b) {
        return Boolean.TRUE.equals(b.executeScript("return !window.leaving"));
    }

    void waitForText(String css, String part) {
        until("'" + part + "' in " + css, b -> first(b, css).getText().contains(part));
    }

    void screenshot(Path file) throws IOException {
        Files.createDirectories(file.getParent());
        Files.write(file, ((TakesScreenshot) browser).getScreenshotAs(OutputType.BYTES));
    }

    @Override
    public void close() {
        browser.quit();
        app.close();
    }
}
