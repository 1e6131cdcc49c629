package app.knottag.e2e;

import static app.knottag.e2e.Demo.button;
import static app.knottag.e2e.Demo.field;
import static app.knottag.e2e.Demo.heading;
import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.io.IOException;
import java.nio.file.Files;
import java.util.regex.Pattern;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.Test;

/** The last stage: what is left, tags on a half-used sheet, the pack signed with the mouse, and a stranger who reads a tag. */
class HandoverTest extends InTheDemo {

    private static void open(Page page, String path) {
        page.navigate(demo.url() + path);
        assertThat(page.locator("main h1").first()).isVisible();
    }

    private static Locator act(Page page, String what) {
        return page.locator("[data-act=" + what + "]");
    }

    private static void letPass(Page page, String name) {
        open(page, "/sites/1/handover");
        act(page, "OFFICE")
                .getByRole(AriaRole.LINK, new Locator.GetByRoleOptions().setName(name))
                .click();
        assertThat(page).hasURL(Pattern.compile("/confirm/"));
        page.keyboard().press("g");
        page.keyboard().press("h");
        assertThat(page.getByText("What is left at the whole site")).isVisible();
        var office = act(page, "OFFICE");
        office.getByText("Let it pass").click();
        field(page, "Why may it stay so? It stands in the pack.").fill("password: knot42");
        office.locator("form button").click();
        assertThat(office.getByText("Knot Tag keeps no secrets")).isVisible();
        field(page, "Why may it stay so? It stands in the pack.").fill("The client has no office");
        office.locator("form button").click();
        assertThat(office.getByText("The client has no office")).isVisible();
    }

    @Test
    void fromWhatIsLeftToTheSignature() throws IOException {
        var page = demo.enter("LEAD");
        open(page, "/sites/1/handover");
        assertThat(page.getByText("0 of 12 are ready to be handed over.")).isVisible();
        readable(page, "what is left");
        page.getByText("Print these 2").click();
        assertThat(heading(page, "Tags and labels")).isVisible();
        assertThat(page.getByText("2 labels on one sheet")).isVisible();
        field(page, "First free place of the sheet").fill("24");
        assertThat(page.getByText("2 labels on 2 sheets")).isVisible();
        readable(page, "tags");
        var paper = page.waitForDownload(() -> button(page, "Print as PDF").click());
        Assertions.assertThat(Files.readString(paper.path(), java.nio.charset.StandardCharsets.ISO_8859_1))
                .startsWith("%PDF");
        open(page, "/sites/1/handover");
        button(page, "All 2 hang").click();
        assertThat(act(page, "TAG_HANG")).hasCount(0);
        letPass(page, "Staff time clock");
        letPass(page, "Till 1 payment terminal");
        open(page, "/sites/1/handover/packs");
        field(page, "Whom the client calls when something fails").fill("Imke Rasmund, 0555 0100, until 20 o'clock");
        button(page, "Keep it").click();
        assertThat(button(page, "Keep it")).hasCount(0);
        button(page, "Sign it").first().click();
        assertThat(page.getByText("2 devices are handed over with this signature."))
                .isVisible();
        field(page, "Who signs, in letters").fill("Bea Lindqvist");
        var canvas = page.locator("canvas");
        canvas.scrollIntoViewIfNeeded();
        var box = canvas.boundingBox();
        page.mouse().move(box.x + 40, box.y + 60);
        page.mouse().down();
        for (int i = 1; i < 12; i++) page.mouse().move(box.x + 40 + 20 * i, box.y + 60 + (i % 2 == 0 ? 30 : -20));
        page.mouse().up();
        readable(page, "the signature");
        button(page, "Sign the pack").click();
        assertThat(page.getByText("signed by Bea Lindqvist")).isVisible();
        var signed = page.waitForDownload(
                () -> page.getByRole(AriaRole.LIST, new Page.GetByRoleOptions().setName("Signed packs"))
                        .getByRole(AriaRole.LINK)
                        .first()
                        .click());
        Assertions.assertThat(Files.size(signed.path())).isGreaterThan(10_000);
        open(page, "/sites/1/handover/logbook");
        field(page, "Any piece of it").fill("Bea Lindqvist");
        assertThat(page.getByText("handed over: Till 1 payment terminal").first())
                .isVisible();
        readable(page, "the logbook");
    }

    @Test
    void aStrangerReadsATagOnANarrowScreen() {
        var page = demo.enter("TECHNICIAN", 390, 844, ColorScheme.DARK);
        open(page, "/sites/1/plan/1");
        for (String sight : new String[] {"", "/tags", "/openings", "/packs", "/logbook"}) {
            open(page, "/sites/1/handover" + sight);
            fits(page);
        }
        readable(page, "the logbook at night");
        open(page, "/sites/1/handover/tags");
        field(page, "Code of a tag, typed or scanned").fill("PGB-TI-G7");
        button(page, "Go to it").click();
        assertThat(page.getByText("at place 5, I where 1 stands")).isVisible();
        button(page, "With the camera").click();
        assertThat(page).hasURL(Pattern.compile("/sites/1/plan/\\d+$"));
        assertThat(page.locator("[data-tag-strip]")).containsText("Till 1 payment terminal");
        page.navigate(demo.url() + "/t/PGBT1G7");
        assertThat(page).hasURL(Pattern.compile("/sites/1/plan/\\d+$"));
        assertThat(page.locator("[data-tag-strip]")).containsText("Till 1 payment terminal");
        page.navigate(demo.url() + "/t/PGBT1G8");
        assertThat(heading(page, "This tag leads nowhere")).isVisible();
    }
}
