package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.app.account.Accounts;
import brightlantern.app.demo.DemoRecording;
import com.deque.html.axecore.selenium.AxeBuilder;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.Dimension;

/**
 * Every kind of page that can be reached from the list of jobs, with the recorded jobs: it opens,
 * it fits a laptop and a phone, and it meets WCAG 2.2 AA in both themes.
 */
class EveryPageTest {
    private static final List<String> WCAG =
            List.of("wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa");

    @TempDir static Path data;
    private static Workshop shop;
    private static Set<String> pages;

    /** What differs only in a number, a module or a point is one kind of page. */
    private static String kind(String path) {
        return path.replaceAll("\\d+", "#")
                .replaceAll("modules/[^/?]+", "modules/x")
                .replaceAll("procedures/[^/?]+", "procedures/x")
                .replaceAll("hand/[^/?]+", "hand/x")
                .replaceAll("(point|condition|view|check)=[^&]*", "$1=x");
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

    private static void size(int width) {
        shop.browser.manage().window().setSize(new Dimension(width, 900));
        // a window cannot be as narrow as a phone; the page's own view can
        shop.browser.executeCdpCommand(
                "Emulation.setDeviceMetricsOverride",
                Map.of("width", width, "height", 800, "deviceScaleFactor", 1, "mobile", false));
    }

    /** All rules in the light; the dark changes colours and nothing else. */
    private static final String LOOK =
            """
            const [tags, done] = arguments;
            const told = [];
            // a colour that is on its way from one theme to the other is nobody's
            const still = new CSSStyleSheet();
            still.replaceSync('* { transition: none !important }');
            document.adoptedStyleSheets = [still];
            const look = async (theme, only) => {
              document.documentElement.dataset.bsTheme = theme;
              const found = await axe.run(document, { runOnly: only, resultTypes: ['violations'] });
              for (const v of found.violations) told.push(`${theme}: ${v.id}: ${v.nodes[0].html}`);
            };
            requestAnimationFrame(() => requestAnimationFrame(async () => {
              const beyond = document.documentElement.scrollWidth - innerWidth;
              if (beyond > 1) told.push(`${beyond} px too wide`);
              try {
                await look('light', { type: 'tag', values: tags });
                await look('dark', { type: 'rule', values: ['color-contrast'] });
              } catch (broken) {
                told.push(String(broken));
              }
              done(told);
            }));
            """;

    /** Each page once, looked at in both widths and both themes. */
    @Test
    void fitsAndCanBeReadByEverybody() throws Exception {
        assertThat(pages).hasSizeGreaterThan(35);
        String axe = new AxeBuilder().getAxeScriptProvider().getScript();
        List<String> wrong = new ArrayList<>();
        for (String page : pages) {
            size(1280);
            shop.go(page);
            shop.browser.executeScript(axe);
            for (int width : List.of(1280, 390)) {
                size(width);
                for (Object told : (List<?>) shop.browser.executeAsyncScript(LOOK, WCAG)) {
                    wrong.add(page + " at " + width + ": " + told);
                }
            }
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
}
