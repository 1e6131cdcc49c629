package app.knottag.e2e;

import static app.knottag.e2e.Demo.button;
import static app.knottag.e2e.Demo.heading;
import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

/** Two people at work on the same things, each with an own browser. */
class TogetherTest extends InTheDemo {

    /** So soon a colleague's change shows. */
    private static final LocatorAssertions.IsVisibleOptions SOON =
            new LocatorAssertions.IsVisibleOptions().setTimeout(2_000);

    private static List<String> asked(Page page) {
        var asked = new CopyOnWriteArrayList<String>();
        page.onRequest(r -> {
            if (r.url().contains("/api/")) asked.add(r.method() + " " + r.url());
        });
        return asked;
    }

    @DisplayName(
            "A page that nobody touches asks for nothing; a colleague’s tie shows on it within two seconds, and nobody loses the step")
    @Test
    void live() {
        var lead = demo.enter("LEAD");
        lead.navigate(demo.url() + "/sites/3/onboard");
        lead.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(Pattern.compile("^Check-in kiosk 2")))
                .first()
                .click();
        assertThat(lead.getByText(Pattern.compile("^Step \\d+ of"))).isVisible();
        String runbook = lead.url();
        var step = lead.locator("main h1").textContent();
        var technician = demo.enter("TECHNICIAN");
        technician.navigate(runbook);
        assertThat(heading(technician, step)).isVisible();
        lead.waitForTimeout(3_000);
        var idle = asked(lead);
        lead.waitForTimeout(25_000);
        Assertions.assertThat(idle).hasSizeLessThanOrEqualTo(2);
        button(technician, "Leave this step out").click();
        technician.getByLabel("Why").fill("No need here");
        button(technician, "Leave it out").click();
        assertThat(lead.getByText("did this step just now")).isVisible(SOON);
        assertThat(heading(lead, step)).isVisible();
        lead.getByText("Go on").click();
        assertThat(heading(lead, step)).isHidden();
    }

    @DisplayName("What two people make of one sheet is kept beside one another, until one of the two is chosen")
    @Test
    void clash() {
        var pages = Stream.of("LEAD", "TECHNICIAN").map(demo::enter).toList();
        for (var page : pages) {
            page.navigate(demo.url() + "/sites/1/plan/sheet");
            button(page, "Change").first().click();
        }
        var lead = pages.get(0);
        var other = pages.get(1);
        lead.getByLabel("Client").fill("Pellworth Estate");
        other.getByLabel("Client").fill("Barn and Garden");
        button(lead, "Keep the change").click();
        assertThat(other.getByText("Somebody changed this while you had it open."))
                .isVisible(SOON);
        assertThat(other.getByLabel("Client")).hasValue("Barn and Garden");
        button(other, "Show theirs").click();
        assertThat(other.getByLabel("Client")).hasValue("Pellworth Estate");
        button(other, "Show mine again").click();
        button(other, "Keep the change").click();
        assertThat(other.getByText("Somebody changed this in the meantime.")).isVisible();
        button(other, "Go on with mine").click();
        button(other, "Keep the change").click();
        assertThat(lead.locator("main").getByText("Barn and Garden")).isVisible(SOON);
    }
}
