package app.knottag.e2e;

import static app.knottag.e2e.Demo.button;
import static app.knottag.e2e.Demo.heading;
import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.SelectOption;
import java.util.regex.Pattern;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

/** A quiet half hour: cases are played in a real browser. */
class PracticeTest extends InTheDemo {

    static void look(Page page, String words) {
        page.getByRole(AriaRole.LISTITEM)
                .filter(new Locator.FilterOptions().setHasText(words))
                .getByRole(AriaRole.BUTTON)
                .click();
    }

    @DisplayName(
            "A case is found with two looks, the next one is named wrongly, and both stand in the list of who played")
    @Test
    void plays() {
        var page = demo.enter("TECHNICIAN");
        page.getByText("Joris T.").click();
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Practice"))
                .click();
        assertThat(heading(page, "Practice")).isVisible();
        readable(page, "practice");
        fits(page);
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Next case:")))
                .click();
        assertThat(heading(page, "After the floor was mopped")).isVisible();
        page.keyboard().press("2");
        look(page, "Is the small light at its network plug lit?");
        assertThat(page.getByText("The light at its network plug is dark.").first())
                .isVisible();
        look(page, "Press both plugs of its lead home.");
        assertThat(page.getByText("The plug at the wall was loose.").first()).isVisible();
        readable(page, "a case");
        page.getByLabel("What is wrong").selectOption(new SelectOption().setLabel("The cable is out at the wall"));
        button(page, "That is it").click();
        assertThat(heading(page, "Found: The cable is out at the wall")).isVisible();
        readable(page, "how it went");
        fits(page);
        button(page, "Next case").click();
        assertThat(heading(page, "The tidy desk")).isVisible();
        page.getByLabel("What is wrong").selectOption(new SelectOption().setLabel("Nothing is wrong now"));
        button(page, "That is it").click();
        assertThat(heading(page, "It was something else: The cable is out at the device"))
                .isVisible();

        var narrow = demo.enter("TECHNICIAN", 390, 844, ColorScheme.DARK);
        narrow.navigate(demo.url() + "/practice");
        assertThat(heading(narrow, "What you played last")).isVisible();
        assertThat(narrow.getByText("named something else")).isVisible();
        assertThat(heading(narrow, "Where your minutes go")).isVisible();
        assertThat(narrow.getByText("you are not ready for any level yet")).isVisible();
        var agrees = narrow.getByLabel("Leads may see this sentence of me, and nothing else");
        agrees.press("Space");
        assertThat(agrees).isChecked();
        readable(narrow, "practice, narrow, at night");
        fits(narrow);
        var lead = demo.enter("LEAD");
        lead.navigate(demo.url() + "/practice");
        assertThat(heading(lead, "Who lets you see it")).isVisible();
        assertThat(lead.getByText("Joris Teel: not ready for any level yet")).isVisible();
        assertThat(lead.getByText("named something else")).hasCount(0);
        button(narrow, "Draw any case").click();
        assertThat(narrow.getByText("min so far")).isVisible();
        readable(narrow, "a drawn case, narrow, at night");
        fits(narrow);
    }

    @DisplayName(
            "Ten small tasks by what stands on the screen, with the keyboard: only the addresses that nobody listened to fail")
    @Test
    void hands() {
        var page = demo.enter("TECHNICIAN", 390, 844, ColorScheme.DARK);
        page.navigate(demo.url() + "/practice");
        button(page, "Hands: ten small tasks").click();
        for (int n = 1; n <= 10; n++) {
            assertThat(page.getByText(n + " of 10")).isVisible();
            var typed = page.locator("main form input");
            var seals = page.locator("main dd");
            var free =
                    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile(": empty$")));
            if (n < 5) readable(page, "hands, task " + n);
            fits(page);
            if (typed.count() > 0) {
                boolean cable = page.getByText("for the cable").count() > 0;
                var label = page.locator("main svg text");
                String shown = label.allTextContents().toString();
                String mac =
                        shown.replaceFirst(cable ? ".*[ \\[]LAN MAC, ([^,\\]]*).*" : ".*WLAN MAC, ([^,\\]]*).*", "$1");
                typed.fill(label.count() > 0 ? mac : "10.0.0.1");
                page.keyboard().press("Enter");
            } else if (free.count() > 0) free.press("Enter");
            else
                page.keyboard()
                        .press(seals.first().innerText().equals(seals.last().innerText()) ? "1" : "2");
            assertThat(page.getByRole(AriaRole.STATUS)).containsText(" s");
            page.keyboard().press("Enter");
        }
        assertThat(heading(page, "7 of 10 right")).isVisible();
        assertThat(page.getByText("You had 10.0.0.1.")).hasCount(3);
        readable(page, "hands, the end");
        fits(page);
    }
}
