package app.knottag.e2e;

import com.deque.html.axecore.args.AxeRunOptions;
import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.Page;
import java.util.List;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;

/** A story that has a demo of its own, in which the page never complains. */
abstract class InTheDemo {

    static Demo demo;

    @BeforeAll
    static void start() throws Exception {
        demo = new Demo();
    }

    @AfterAll
    static void stop() throws Exception {
        demo.close();
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
