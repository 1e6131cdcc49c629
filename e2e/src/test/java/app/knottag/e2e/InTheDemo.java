package app.knottag.e2e;

import com.deque.html.axecore.args.AxeRunOptions;
import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.util.Collection;
import java.util.List;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.extension.AfterTestExecutionCallback;
import org.junit.jupiter.api.extension.RegisterExtension;

/** A story that has a demo of its own, in which the page never complains. */
abstract class InTheDemo {

    static Demo demo;

    /** What a page shows when its story fails is told, so that nobody has to guess who was not there to see it. */
    @RegisterExtension
    static final AfterTestExecutionCallback SEEN = story -> {
        if (story.getExecutionException().isPresent()) System.err.println(demo.seen());
    };

    @BeforeAll
    static void start() throws Exception {
        demo = Demo.untouched();
    }

    @AfterAll
    static void stop() throws Exception {
        demo.close();
    }

    /** Each sight of a station, wide by day and narrow by night. */
    static void everySight(String station, String navigation, Collection<String> sights) {
        for (boolean narrow : List.of(false, true)) {
            var page = narrow ? demo.enter("TECHNICIAN", 390, 844, ColorScheme.DARK) : demo.enter("TECHNICIAN");
            page.navigate(demo.url() + "/sites/1/" + station);
            for (var sight : sights) {
                sight(page, navigation, sight);
                PlaywrightAssertions.assertThat(page.locator("main h1, main h2").first())
                        .isAttached();
                PlaywrightAssertions.assertThat(page.getByText("Fetching…")).hasCount(0);
                readable(page, sight);
                fits(page);
            }
            page.context().close();
        }
    }

    static void sight(Page page, String navigation, String name) {
        var link = page.getByRole(AriaRole.NAVIGATION, new Page.GetByRoleOptions().setName(navigation))
                .getByRole(AriaRole.LINK, new Locator.GetByRoleOptions().setName(name));
        link.click();
        PlaywrightAssertions.assertThat(link).hasAttribute("aria-current", "page");
    }

    @AfterEach
    void thePageNeverComplains() {
        Assertions.assertThat(demo.complaints).isEmpty();
    }

    static void fits(Page page) {
        Assertions.assertThat((Integer) page.evaluate("document.documentElement.scrollWidth - innerWidth"))
                .isLessThanOrEqualTo(0);
    }

    static void readable(Page page, String screen) {
        // A button that has just been enabled is still on its way to its colours.
        page.evaluate(
                "Promise.race([Promise.allSettled(document.getAnimations().map(a => a.finished)), new Promise(r => "
                        + "setTimeout(r, 500))]).then(() => 0)");
        // The page has no frames, and what is well need not be listed: that took two thirds of the time.
        var options = new AxeRunOptions();
        options.setResultTypes(List.of("violations"));
        var serious = new AxeBuilder(page)
                .setLegacyMode(true).options(options).analyze().getViolations().stream()
                        .filter(v -> List.of("serious", "critical").contains(v.getImpact()))
                        .toList();
        Assertions.assertThat(serious.stream()
                        .map(v -> v.getId() + " " + v.getNodes().get(0).getHtml()))
                .as(screen)
                .isEmpty();
    }
}
