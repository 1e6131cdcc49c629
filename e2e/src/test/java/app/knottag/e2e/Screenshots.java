package app.knottag.e2e;

import static app.knottag.e2e.Demo.button;
import static app.knottag.e2e.Demo.field;
import static app.knottag.e2e.Demo.heading;
import static app.knottag.e2e.Demo.key;
import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.ReducedMotion;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;

/** Makes docs/screenshots anew from the demo; run by ./knot screenshots, not by the tests. */
class Screenshots {

    private static void shot(Page page, String name) {
        page.waitForTimeout(600);
        page.screenshot(new Page.ScreenshotOptions().setPath(Path.of("../docs/screenshots/" + name + ".png")));
    }

    @Test
    void everyMainView() throws Exception {
        try (var demo = new Demo()) {
            var page = demo.enter("LEAD");
            page.emulateMedia(new Page.EmulateMediaOptions().setReducedMotion(ReducedMotion.REDUCE));
            shot(page, "plan");
            page.keyboard().press("n");
            assertThat(heading(page, "It goes to 10.44.16.54")).isVisible();
            field(page, "MAC").fill("00:00:SE:00:53:2B");
            shot(page, "new-endpoint");
            button(page, "00:00:5E:00:53:2B").click();
            field(page, "Serial").fill("OC2-7H41-0093");
            field(page, "Place").fill("Garden counter");
            key(page, "Tie it here").click();
            var technician = new Technician(page, 4);
            technician.upToTheSheet();
            shot(page, "type-sheet");
            button(page, "Bench").click();
            shot(page, "bench-panel");
            button(page, "Close").click();
            technician.fromSheetToConfirm();
            key(page, "Run the checks").click();
            button(page, "Sign off as Imke Rasmund").click();
            assertThat(page.locator("[data-standing] [data-knot=TIGHT]")).isVisible();
            shot(page, "confirmed");
            technician.upset("Let another device hold its address", true);
            key(page, "Check again").click();
            assertThat(page.getByText("What to do")).isVisible();
            shot(page, "check-failed");
            page.keyboard().press("g");
            page.keyboard().press("r");
            shot(page, "register");
            var night = demo.enter("LEAD", 1280, 800, ColorScheme.DARK);
            night.navigate(demo.url() + "/sites/1/onboard/3");
            assertThat(heading(night, "First start")).isVisible();
            shot(night, "wait-at-night");
            var narrow = demo.enter("LEAD", 390, 844, ColorScheme.LIGHT);
            shot(narrow, "plan-narrow");
        }
    }
}
