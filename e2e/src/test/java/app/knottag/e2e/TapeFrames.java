package app.knottag.e2e;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.options.AriaRole;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Measures how long the tape takes to redraw while it is zoomed, with 5 000 tags on a /16. Run by ./knot bench. */
class TapeFrames {

    // From the turn of the wheel until script, style and layout are done; painting is the browser's own thread.
    private static final String ZOOM = """
            async () => {
              const tape = document.querySelector('[data-tape]');
              const box = tape.getBoundingClientRect();
              const took = [];
              for (let i = 0; i < 240; i++) {
                await new Promise(requestAnimationFrame);
                const delta = Math.floor(i / 40) % 2 === 0 ? -60 : 60;
                const start = performance.now();
                tape.dispatchEvent(new WheelEvent('wheel', {deltaY: delta, clientX: box.x + 300 + (i % 7) * 40, clientY: box.y + 90, \
                bubbles: true, cancelable: true}));
                await Promise.resolve();
                await new Promise((done) => queueMicrotask(done));
                tape.getBoundingClientRect();
                took.push(performance.now() - start);
              }
              took.sort((a, b) => a - b);
              return [took[120], took[228], took[239]];
            }""";

    @Test
    void zooming() {
        try (var playwright = Playwright.create(
                        new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
                Browser browser = playwright
                        .chromium()
                        .launch(new BrowserType.LaunchOptions()
                                .setExecutablePath(Path.of("/usr/bin/chromium"))
                                .setArgs(List.of("--no-sandbox", "--disable-gpu", "--disable-quic")))) {
            var page = browser.newPage();
            page.navigate(System.getProperty("knot.url"));
            page.getByLabel("Name").fill("bench");
            page.getByLabel("Password").fill("bench bench bench");
            page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Enter"))
                    .click();
            page.locator("main")
                    .getByRole(
                            AriaRole.LINK,
                            new Locator.GetByRoleOptions()
                                    .setName("Five thousand")
                                    .setExact(true))
                    .click();
            page.getByText("5000 on record").waitFor();
            page.locator("[data-tape]").waitFor();
            page.waitForTimeout(1500);
            var millis = (List<?>) page.evaluate(ZOOM);
            System.out.printf(
                    "| %-38s | %9.2f ms | wanted < %8d ms | median; 95 of 100 under %.1f ms, slowest %.1f ms |%n",
                    "tape redrawn while zooming, 5 000 tags",
                    number(millis.get(0)),
                    16,
                    number(millis.get(1)),
                    number(millis.get(2)));
        }
    }

    private static double number(Object value) {
        return ((Number) value).doubleValue();
    }
}
