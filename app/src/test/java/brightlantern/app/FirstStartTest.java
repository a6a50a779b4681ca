package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.BindException;
import java.net.ServerSocket;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.chrome.ChromeDriver;

/** The program as a process of its own, the way a person starts it. */
class FirstStartTest {
    private static final Path JAVA = Path.of(System.getProperty("java.home"), "bin", "java");

    @TempDir Path data;

    static Process start(Path data, int port) throws Exception {
        List<String> command =
                new ArrayList<>(
                        List.of(
                                JAVA.toString(),
                                // as the other tests: it lives too briefly for the second compiler
                                "-XX:TieredStopAtLevel=1",
                                "-XX:+UseSerialGC",
                                "-cp",
                                System.getProperty("java.class.path"),
                                LanternApp.class.getName(),
                                // as a person types it, from where they are
                                "--data=" + Path.of("").toAbsolutePath().relativize(data),
                                "--vehicles=../vehicles",
                                "--port=" + port));
        return new ProcessBuilder(command).redirectErrorStream(true).start();
    }

    /** Below those that the system gives to clients, so that nobody takes it meanwhile. */
    static int freePort() throws IOException {
        int port = ThreadLocalRandom.current().nextInt(20_000, 30_000);
        while (true) {
            try (ServerSocket free = new ServerSocket(port)) {
                return free.getLocalPort();
            } catch (BindException taken) {
                port++;
            }
        }
    }

    static List<String> linesUntil(BufferedReader out, String part) throws Exception {
        List<String> lines = new ArrayList<>();
        for (String line = out.readLine(); line != null; line = out.readLine()) {
            lines.add(line);
            if (line.contains(part)) {
                break;
            }
        }
        return lines;
    }

    @Test
    void firstAdministratorByCodeThenASecondStartAndATakenFolder() throws Exception {
        int port = freePort();
        Process first = start(data, port);
        ChromeDriver browser = Workshop.openBrowser();
        try {
            BufferedReader out = new BufferedReader(new InputStreamReader(first.getInputStream()));
            List<String> lines = linesUntil(out, "is ready");
            String code =
                    lines.stream()
                            .filter(l -> l.contains("with this code"))
                            .map(l -> l.substring(l.lastIndexOf(' ') + 1))
                            .findFirst()
                            .orElseThrow(() -> new AssertionError(lines));
            browser.get("http://127.0.0.1:" + port + "/");
            assertThat(browser.getCurrentUrl()).endsWith("/first");
            makeFirst(browser, "00000000".equals(code) ? "11111111" : "00000000");
            says(browser, ".error", "Code: expected");
            makeFirst(browser, code);
            Workshop.until(browser, "sign-in", b -> b.getCurrentUrl().contains("/sign-in"));
            browser.findElement(By.id("username")).sendKeys("boss");
            browser.findElement(By.id("password")).sendKeys("long-enough");
            browser.findElement(By.cssSelector("section button.btn-do")).click();
            says(browser, "main", "No jobs yet.");
            assertThat(browser.findElements(By.linkText("Stand-ins"))).isEmpty();

            Process second = start(data, freePort());
            String said = new String(second.getInputStream().readAllBytes());
            assertThat(second.waitFor()).isEqualTo(2);
            assertThat(said).contains("in use by another Bright Lantern").contains("--data=DIR");
        } finally {
            browser.quit();
            first.destroy();
            first.waitFor(20, TimeUnit.SECONDS);
        }
        Process again = start(data, port);
        try (BufferedReader out =
                new BufferedReader(new InputStreamReader(again.getInputStream()))) {
            assertThat(linesUntil(out, "is ready")).noneMatch(l -> l.contains("No account exists"));
        } finally {
            again.destroy();
        }
    }

    private static void says(ChromeDriver browser, String css, String part) {
        Workshop.until(
                browser,
                "'" + part + "' in " + css,
                b ->
                        b.findElements(By.cssSelector(css)).stream()
                                .anyMatch(e -> e.getText().contains(part)));
    }

    private static void makeFirst(ChromeDriver browser, String code) {
        for (String[] field :
                new String[][] {
                    {"code", code},
                    {"name", "boss"},
                    {"display", "The boss"},
                    {"password", "long-enough"}
                }) {
            browser.findElement(By.id(field[0])).clear();
            browser.findElement(By.id(field[0])).sendKeys(field[1]);
        }
        browser.findElement(By.cssSelector("section button.btn-do")).click();
    }
}
