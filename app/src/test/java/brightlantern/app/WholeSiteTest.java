package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.app.account.Accounts;
import brightlantern.app.demo.DemoRecording;
import brightlantern.app.link.VehicleLinks;
import brightlantern.core.vehicle.VehicleDescription;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;

/**
 * Every kind of page that can be reached from the list of jobs, with the recorded jobs: it opens,
 * it fits a laptop and a phone, and it meets WCAG 2.2 AA in both themes.
 */
class WholeSiteTest {
    @TempDir static Path data;
    private static Workshop shop;
    private static Set<String> pages;

    /** What differs only in a number, a module or a point is one kind of page. */
    private static String kind(String path) {
        return path.replaceAll("\\d+", "#")
                .replaceAll("modules/[^/?]+", "modules/x")
                .replaceAll("procedures/[^/?]+", "procedures/x")
                .replaceAll("hand/[^/?]+", "hand/x")
                .replaceAll("parts/[^/?]+", "parts/x")
                .replaceAll("(circuit|point|condition|view|check)=[^&]*", "$1=x");
    }

    private static boolean isPage(String path) {
        return path.startsWith("/")
                && !path.matches(".*(\\.pdf|\\.txt|\\.json|/export/|/csv|/mf4|\\.wav|sign-out).*");
    }

    @BeforeAll
    static void open() throws Exception {
        shop = new Workshop(data);
        shop.app
                .getBean(Accounts.class)
                .add("boss", "Boss", Workshop.PASSWORD, Accounts.Role.ADMINISTRATOR);
        assertThat(shop.app.getBean(DemoRecording.class).restore()).isPositive();
        shop.signIn("boss");
        pages = found();
    }

    @AfterAll
    static void close() {
        shop.close();
    }

    /** One page of each kind, by following links; each must open. */
    private static Set<String> found() {
        Map<String, String> kinds = new LinkedHashMap<>();
        Set<String> seen = new LinkedHashSet<>();
        Deque<String> left = new ArrayDeque<>(List.of("/"));
        while (!left.isEmpty()) {
            String path = left.pop();
            // every stage of every job is read, as each leads to pages that others lack
            boolean stage = path.matches("/jobs/\\d+/[a-z]+");
            if (kinds.putIfAbsent(kind(path), path) != null && !stage) {
                continue;
            }
            Map<?, ?> page =
                    (Map<?, ?>)
                            shop.browser.executeAsyncScript(
                                    """
                                    const done = arguments[1];
                                    fetch(arguments[0]).then(async r => {
                                      const text = await r.text();
                                      const page = new DOMParser().parseFromString(text, 'text/html');
                                      done({status: r.status, links: [...page.querySelectorAll('a[href]')]
                                        .map(a => a.getAttribute('href'))});
                                    });
                                    """,
                                    path);
            assertThat(page.get("status")).as(path).isEqualTo(200L);
            for (Object link : (List<?>) page.get("links")) {
                String to = String.valueOf(link).replaceAll("#.*", "");
                if (isPage(to) && seen.add(to)) {
                    left.add(to);
                }
            }
        }
        return new LinkedHashSet<>(kinds.values());
    }

    /** Each page once, looked at in both widths and both themes, and read. */
    @Test
    void fitsSpeaksAndCanBeReadByEverybody() throws Exception {
        assertThat(pages).hasSizeGreaterThan(35);
        Set<String> inner = innerNames();
        List<String> wrong = new ArrayList<>();
        for (String page : pages) {
            shop.go(page);
            wrong.addAll(foreign(page, inner));
            wrong.addAll(Looks.wrong(shop));
        }
        assertThat(wrong).isEmpty();
    }

    @Test
    void whatIsNotThereIsToldWithoutAWordOfJava() {
        for (Map.Entry<String, String> asked :
                Map.of(
                                "/jobs/1/sweep/modules/nope", "There is no module 'nope' here",
                                "/jobs/1/sweep/modules/nope/supported", "There is no module 'nope'",
                                "/jobs/999", "Nothing is kept at",
                                "/jobs/x/sweep", "The field 'id' cannot be 'x'; expected a number",
                                "/jobs/1/sweep?sweep=77777", "There is no sweep '77777' here",
                                "/jobs", "There is nothing to look at here",
                                "/jobs/new/vehicle", "is missing")
                        .entrySet()) {
            shop.go(asked.getKey());
            assertThat(shop.text("main"))
                    .as(asked.getKey())
                    .contains(asked.getValue())
                    .doesNotContain("Exception")
                    .doesNotContain("java.")
                    .doesNotContain("org.");
        }
    }

    /** The first page of a kind that the crawl has found. */
    private static String page(String like) {
        return pages.stream().filter(p -> p.matches(like)).findFirst().orElseThrow();
    }

    @Test
    void whatIsLookedAtComesFirst() {
        Looks.size(shop, 1280);
        shop.go(page("/jobs/\\d+/watch/takes/\\d+"));
        assertThat(shop.one(".lane").getRect().getY()).as("the chart of a take").isLessThan(600);
        shop.go(page("/jobs/\\d+/trace"));
        List<Integer> bars =
                shop.browser.findElements(By.cssSelector(".suspect-line svg.bars")).stream()
                        .map(b -> b.getRect().getX())
                        .toList();
        assertThat(bars).hasSizeGreaterThan(2).containsOnly(bars.get(0));
    }

    /** Cumulative layout shift (web.dev, good is below 0.1), as the browser counts it. */
    @Test
    void nothingJumpsWhileAPageIsRead() {
        String shift =
                """
                const done = arguments[0];
                let sum = 0;
                new PerformanceObserver(list => {
                  for (const e of list.getEntries()) if (!e.hadRecentInput) sum += e.value;
                }).observe({ type: 'layout-shift', buffered: true });
                requestAnimationFrame(() => setTimeout(() => done(sum), 300));
                """;
        for (int width : List.of(390, 1280)) {
            Looks.size(shop, width);
            for (String like : List.of("watch", "watch/takes/\\d+", "sweep", "exercise", "trace")) {
                String page = page("/jobs/\\d+/" + like);
                shop.go(page);
                Number shifted = (Number) shop.browser.executeAsyncScript(shift);
                assertThat(shifted.doubleValue()).as(page + " at " + width).isLessThan(0.1);
            }
        }
        Looks.size(shop, 1280);
    }

    @Test
    void timesAreThoseOfWhoeverLooks() {
        Set<String> told = new LinkedHashSet<>();
        for (String zone : List.of("Asia/Tokyo", "America/Lima")) {
            shop.browser.executeCdpCommand(
                    "Emulation.setTimezoneOverride", Map.of("timezoneId", zone));
            shop.go("/log"); // it tells its zone from here on
            shop.go(page("/jobs/\\d+/watch/takes/\\d+"));
            told.add(shop.text("#take .row-line"));
        }
        shop.browser.executeCdpCommand("Emulation.setTimezoneOverride", Map.of("timezoneId", ""));
        assertThat(told).hasSize(2);
    }

    @Test
    void aHalfTypedNoteIsKeptAndADroppedFileTaken() {
        String trace = page("/jobs/\\d+/trace");
        shop.go(trace);
        shop.type("#note", "heard it at 80, only wh");
        shop.go("/");
        shop.go(trace);
        assertThat(shop.property("#note", "value")).isEqualTo("heard it at 80, only wh");
        shop.go(page("/jobs/\\d+/watch/import"));
        shop.browser.executeScript(
                """
                const held = new DataTransfer();
                held.items.add(new File(['s,rpm\\n0,800\\n1,810\\n'], 'idle.csv'));
                document.querySelector('form[enctype] #look').dispatchEvent(
                  new DragEvent('drop', { dataTransfer: held, bubbles: true, cancelable: true }));
                """);
        shop.press("#look");
        assertThat(shop.text(".answer")).contains("idle.csv");
    }

    @Test
    void anExportTellsHowFarItIsAndThatItIsThere() {
        shop.go(page("/jobs/\\d+/watch/takes/\\d+"));
        for (String kind : List.of("csv", "mf4")) {
            shop.click("#" + kind);
            shop.waitForText("form[data-fetch-file] + p, form[data-fetch-file]", "." + kind + ":");
            assertThat(shop.text("form[data-fetch-file]")).contains("saved among your downloads");
        }
    }

    /** Names that descriptions use among themselves. */
    private static Set<String> innerNames() {
        Set<String> inner = new LinkedHashSet<>();
        VehicleLinks links = shop.app.getBean(VehicleLinks.class);
        for (VehicleDescription vehicle : links.library().descriptions()) {
            vehicle.suspects().forEach(s -> inner.add(s.id()));
            vehicle.checks().forEach(c -> inner.add(c.id()));
            vehicle.symptoms().forEach(s -> inner.add(s.id()));
            vehicle.values().forEach(v -> inner.add(v.id()));
        }
        inner.removeIf(id -> !id.matches("[a-z]+[-.][a-z0-9.-]+"));
        assertThat(inner).hasSizeGreaterThan(100);
        return inner;
    }

    /** What of a page no technician says: such names, and phrases that were taken for Greek. */
    private static List<String> foreign(String page, Set<String> inner) {
        List<String> wrong = new ArrayList<>();
        String text = shop.text("body");
        for (String word : text.split("[\\s,;:()\"'“”]+")) {
            if (inner.contains(word.replaceAll("[.!?]+$", "")) && !ENGLISH.contains(word)) {
                wrong.add(page + ": " + word);
            }
        }
        for (String phrase : GREEK) {
            if (Pattern.compile(phrase).matcher(text).find()) {
                wrong.add(page + ": " + phrase);
            }
        }
        return wrong;
    }

    private static final Set<String> ENGLISH = Set.of();
    private static final List<String> GREEK =
            List.of(
                    "bits a minute",
                    "are borne",
                    "\\(s\\)",
                    "Module \\d{4}",
                    "put aside",
                    "\\bNaN\\b",
                    "\\bnull\\b",
                    "\\.\\.(?!\\.)",
                    "\\.;",
                    " is \"");
}
