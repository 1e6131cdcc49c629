package app.knottag.e2e;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.options.AriaRole;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Measures the first page: what goes over the line, and how long until a person can type. Run by ./knot bench. */
class FirstPage {

    private static final int RUNS = 9;
    private static final String TRANSFERRED =
            "performance.getEntriesByType('resource').concat(performance.getEntriesByType('navigation')).reduce((sum, "
                    + "e) => sum + e.transferSize, 0)";

    @Test
    void firstPage() {
        double[] millis = new double[RUNS], kilobytes = new double[RUNS];
        try (var playwright = Playwright.create(
                        new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
                Browser browser = playwright
                        .chromium()
                        .launch(new BrowserType.LaunchOptions()
                                .setExecutablePath(Path.of("/usr/bin/chromium"))
                                .setArgs(List.of("--no-sandbox", "--disable-gpu", "--disable-quic")))) {
            for (int i = 0; i < RUNS; i++)
                try (var context = browser.newContext()) {
                    var page = context.newPage();
                    long start = System.nanoTime();
                    page.navigate(System.getProperty("knot.url"));
                    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Enter"))
                            .waitFor();
                    millis[i] = (System.nanoTime() - start) / 1e6;
                    page.waitForTimeout(300);
                    kilobytes[i] = ((Number) page.evaluate(TRANSFERRED)).doubleValue() / 1000;
                }
        }
        Arrays.sort(millis);
        Arrays.sort(kilobytes);
        System.out.printf(
                "| %-38s | %9.0f kB | %-20s | fonts, styles and scripts, compressed |%n",
                "first page, over the line", kilobytes[RUNS / 2], "");
        System.out.printf(
                "| %-38s | %9.0f ms | %-20s | until the sign-in can be typed in |%n",
                "first page, until interactive", millis[RUNS / 2], "");
    }
}
