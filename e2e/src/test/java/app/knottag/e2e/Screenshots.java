package app.knottag.e2e;

import static app.knottag.e2e.Demo.button;
import static app.knottag.e2e.Demo.field;
import static app.knottag.e2e.Demo.heading;
import static app.knottag.e2e.Demo.key;
import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.ReducedMotion;
import com.microsoft.playwright.options.SelectOption;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Makes docs/screenshots anew from the demo; run by ./knot screenshots, not by the tests. */
class Screenshots {

    private static void shot(Page page, String name) {
        page.waitForTimeout(600);
        page.screenshot(new Page.ScreenshotOptions().setPath(Path.of("../docs/screenshots/" + name + ".png")));
    }

    /** Other sights; nothing is kept of what is typed into them. */
    private static void sights(Demo demo, Page page) {
        page.navigate(demo.url() + "/sites/1/plan/wiring");
        assertThat(page.locator("main h1")).isVisible();
        assertThat(page.getByText("Fetching…")).hasCount(0);
        shot(page, "wiring");
        page.navigate(demo.url() + "/sites/1/register/registries");
        assertThat(page.getByText("Staff portal").first()).isVisible();
        assertThat(page.getByText("Fetching…")).hasCount(0);
        page.getByText("Staff portal").first().click();
        shot(page, "registries");
        page.navigate(demo.url() + "/today");
        assertThat(heading(page, "Sites")).isVisible();
        shot(page, "today");
        visit(demo, page);
        page.navigate(demo.url() + "/sites/1/handover/tags");
        assertThat(page.getByText("12 labels on one sheet")).isVisible();
        shot(page, "tags");
        page.navigate(demo.url() + "/sites/1/onboard/worksheets?sheet=drives");
        for (int i = 0; i < 3; i++) {
            if (i > 0) button(page, "Add another").click();
            field(page, "Bay or serial").nth(i).fill("Bay " + (i + 1));
            field(page, "Size on its label (TB)").nth(i).fill(i == 2 ? "3" : "4");
        }
        field(page, "They are").selectOption(new SelectOption().setIndex(4));
        field(page, "Written for long at (MB/s)").fill("150");
        page.keyboard().press("Tab");
        assertThat(page.locator("main figure, main svg").last()).isVisible();
        shot(page, "worksheet");
        page.navigate(demo.url() + "/sites/3/onboard/kinds");
        page.getByText("Copy").nth(3).click();
        assertThat(page.getByText("Nothing speaks against it.")).isVisible();
        shot(page, "kinds");
        page.navigate(demo.url() + "/sites/3/onboard");
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Go there"))
                .click();
        assertThat(page.getByText("It failed three times. Another way:")).isVisible();
        page.evaluate("document.activeElement.blur()");
        shot(page, "runbook");
        page.navigate(demo.url() + "/sites/1/onboard");
        assertThat(page.getByText("Do this now")).isVisible();
        shot(page, "board");
    }

    private static void visit(Demo demo, Page page) {
        page.navigate(demo.url() + "/sites/1/onboard/visits");
        button(page, "Plan a visit").click();
        field(page, "What the visit is called").fill("Second shop, opening morning");
        field(page, "It begins").fill("25 Nov 2031, 06:00");
        field(page, "Everything must be done by").fill("25 Nov 2031, 08:15");
        field(page, "Name").fill("Imke Rasmund");
        button(page, "One more person").click();
        field(page, "Name").nth(1).fill("Joris Teel");
        for (String unit : List.of("Goods-in", "Nursery", "Yard", "Till 3", "Office copier", "Accounts"))
            page.getByRole(AriaRole.CHECKBOX, new Page.GetByRoleOptions().setName(Pattern.compile("^" + unit)))
                    .first()
                    .check();
        button(page, "Plan it").click();
        assertThat(page.getByText("Nobody can be done").first()).isVisible();
        shot(page, "visit");
    }

    @Test
    void everyMainView() throws Exception {
        try (var demo = new Demo()) {
            var page = demo.enter("LEAD");
            page.emulateMedia(new Page.EmulateMediaOptions().setReducedMotion(ReducedMotion.REDUCE));
            assertThat(page.getByText("To mend, worst first")).isVisible();
            assertThat(page.getByText("Fetching…")).hasCount(0);
            shot(page, "plan");
            sights(demo, page);
            page.navigate(demo.url() + "/sites/1/plan");
            assertThat(page.getByText("Room:")).isVisible();
            page.keyboard().press("n");
            assertThat(heading(page, "It goes to 10.44.16.54")).isVisible();
            field(page, "MAC").fill("00:00:SE:00:53:2B");
            shot(page, "new-endpoint");
            button(page, "00:00:5E:00:53:2B").click();
            field(page, "Serial").fill("OC2-7H41-0093");
            field(page, "Place").fill("Garden counter");
            key(page, "Plan it here").click();
            var technician = new Technician(page, 4);
            technician.upToTheSheet("0093");
            shot(page, "type-sheet");
            technician.fromSheetToConfirm();
            technician.prove();
            button(page, "Sign off as Imke Rasmund").click();
            assertThat(page.locator("[data-standing] [data-knot=PASSED]")).isVisible();
            technician.upset("It has no power", true);
            key(page, "Check again").click();
            assertThat(page.getByText("Try now")).isVisible();
            shot(page, "check-failed");
            page.navigate(demo.url() + "/sites/3/confirm/sweep");
            key(page, "Ask every address").click();
            assertThat(page.locator("[data-swept]").first()).isVisible();
            shot(page, "sweep");
            page.navigate(demo.url() + "/sites/1/confirm");
            assertThat(page.locator("main h1")).isVisible();
            page.keyboard().press("g");
            page.keyboard().press("r");
            assertThat(heading(page, "Labels")).isVisible();
            shot(page, "register");
            page.navigate(demo.url() + "/sites/5/audit");
            button(page, "What happened, and the way back").first().click();
            assertThat(page.locator("[data-way]").first()).isVisible();
            shot(page, "audit");
            AuditTest.paste(page, AuditTest.DRIFTED);
            page.navigate(demo.url() + "/sites/1/audit");
            assertThat(heading(page, "What differs from the record")).isVisible();
            AuditTest.gear(page);
            page.goBack();
            assertThat(page.getByText("3 ports need a hand")).isVisible();
            shot(page, "gear");
            var night = demo.enter("LEAD", 1280, 800, ColorScheme.DARK);
            night.navigate(demo.url() + "/sites/1/audit/change?change=ROUTER&subject=ROUTER:1");
            assertThat(night.getByText("Put the new one in its place")).isVisible();
            shot(night, "what-if");
            var narrow = demo.enter("LEAD", 390, 844, ColorScheme.LIGHT);
            narrow.navigate(demo.url() + "/practice");
            button(narrow, "Next case: After the floor was mopped").click();
            assertThat(heading(narrow, "After the floor was mopped")).isVisible();
            button(narrow, "Lead and switch").click();
            PracticeTest.look(narrow, "Is the small light at its network plug lit?");
            assertThat(narrow.getByText("The light at its network plug is dark.")
                            .first())
                    .isVisible();
            narrow.evaluate("() => scrollTo(0, 0)");
            shot(narrow, "practice");
        }
    }
}
