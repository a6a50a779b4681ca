package brightlantern.app;

import com.deque.html.axecore.selenium.AxeBuilder;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import javax.naming.OperationNotSupportedException;
import org.openqa.selenium.Dimension;

/**
 * How a page looks to those who must read it: on a laptop and a phone, in the light and the dark.
 */
final class Looks {
    private static final List<String> WCAG =
            List.of("wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa");
    private static final int NARROW = 390;
    private static final int WIDE = 1280;
    private static final String AXE = script();

    private Looks() {}

    private static String script() {
        try {
            return new AxeBuilder().getAxeScriptProvider().getScript();
        } catch (IOException | OperationNotSupportedException broken) {
            throw new IllegalStateException("axe-core is not on the class path", broken);
        }
    }

    static void size(Workshop shop, int width) {
        shop.browser.manage().window().setSize(new Dimension(width, 900));
        // a window cannot be as narrow as a phone; the page's own view can
        shop.browser.executeCdpCommand(
                "Emulation.setDeviceMetricsOverride",
                Map.of("width", width, "height", 800, "deviceScaleFactor", 1, "mobile", false));
    }

    /** What a width changes of what can be read and hit; all else is the same at any. */
    private static final List<String> BY_WIDTH =
            List.of("target-size", "scrollable-region-focusable");

    /** All rules in the light where it is wide; the dark changes colours and nothing else. */
    private static final String LOOK =
            """
            const [tags, byWidth, wide, done] = arguments;
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
                await look('light', wide ? { type: 'tag', values: tags }
                    : { type: 'rule', values: byWidth });
                if (wide) await look('dark', { type: 'rule', values: ['color-contrast'] });
              } catch (broken) {
                told.push(String(broken));
              }
              done(told);
            }));
            """;

    /** What keeps somebody from reading or using the page that is open. */
    static List<String> wrong(Workshop shop) {
        shop.browser.executeScript(AXE);
        String page = shop.path();
        List<String> wrong = new ArrayList<>();
        for (int width : List.of(NARROW, WIDE)) {
            size(shop, width);
            for (Object told :
                    (List<?>)
                            shop.browser.executeAsyncScript(LOOK, WCAG, BY_WIDTH, width == WIDE)) {
                wrong.add(page + " at " + width + ": " + told);
            }
        }
        return wrong;
    }
}
