package app.knottag.e2e;

import static app.knottag.e2e.Demo.button;
import static app.knottag.e2e.Demo.field;
import static app.knottag.e2e.Demo.heading;
import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.util.regex.Pattern;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.Test;

/** A visit from the first thought of it to what the next offer should say, by two people in two browsers. */
class VisitTest extends InTheDemo {

    private static final LocatorAssertions.IsVisibleOptions SOON =
            new LocatorAssertions.IsVisibleOptions().setTimeout(20_000);

    private static void choose(Page page, String name) {
        page.getByRole(AriaRole.CHECKBOX, new Page.GetByRoleOptions().setName(Pattern.compile("^" + name)))
                .first()
                .check();
    }

    private static Locator line(Page page, String person) {
        return page.getByRole(AriaRole.LIST, new Page.GetByRoleOptions().setName("What to do now"))
                .getByRole(AriaRole.LISTITEM)
                .filter(new Locator.FilterOptions().setHasText(person));
    }

    /** Plans a visit with something wrong at first; what was typed stays. */
    private static void plan(Page page) {
        page.navigate(demo.url() + "/sites/4/onboard/visits");
        button(page, "Plan a visit").click();
        field(page, "What the visit is called").fill("Opening morning");
        field(page, "It begins").fill("25 Nov 2031, 06:00");
        field(page, "Everything must be done by").fill("25 Nov 2031, 05:00");
        field(page, "Name").fill("Imke");
        button(page, "Plan it").click();
        assertThat(page.getByText("It must be done after it begins.").first()).isVisible();
        assertThat(field(page, "What the visit is called")).hasValue("Opening morning");
        field(page, "Everything must be done by").fill("25 Nov 2031, 08:00");
        button(page, "Plan it").click();
        assertThat(page.getByText("Nothing is to be done. Choose at least one endpoint.")
                        .first())
                .isVisible();
        button(page, "One more person").click();
        field(page, "Name").nth(1).fill("Joris");
        choose(page, "Archive label printer");
        choose(page, "Hall time clock");
        choose(page, "Front door reader");
        button(page, "Plan it").click();
        assertThat(page.getByText("Nobody can be done").first()).isVisible(SOON);
    }

    @Test
    void twoPeopleFollowOnePlanAndNobodyStandsInTheOthersWay() {
        var imke = demo.enter("LEAD");
        plan(imke);
        // Nobody who comes may wire the supply of the clock: that is said, and the rest is planned.
        assertThat(imke.getByText("Hall time clock").first()).isVisible();
        button(imke, "What goes along").click();
        assertThat(imke.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("Into the car")))
                .containsText("1 × Time clock");
        assertThat(imke.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("To be ordered")))
                .containsText("Supply point at the wall");
        button(imke, "To the plan").click();
        button(imke, "Begin the visit").click();
        assertThat(line(imke, "Imke")).isVisible(SOON);
        var joris = demo.enter("TECHNICIAN");
        joris.navigate(imke.url());
        button(imke, "Imke takes it").click();
        assertThat(button(imke, "Let go of it")).isVisible(SOON);
        String hers = line(imke, "Imke").getByRole(AriaRole.LINK).innerText();
        assertThat(line(joris, "Imke"))
                .containsText("At it for", new LocatorAssertions.ContainsTextOptions().setTimeout(20_000));
        String his = line(joris, "Joris").getByRole(AriaRole.LINK).innerText();
        Assertions.assertThat(his).as("two never get the same").isNotEqualTo(hers);
        button(joris, "Joris takes it").click();
        assertThat(line(joris, "Joris")).containsText("At it for");
        joris.navigate(demo.url() + "/today");
        assertThat(joris.getByText("Go on with Opening morning")).isVisible();
        joris.goBack();
        button(joris, "Joris leaves").click();
        assertThat(line(joris, "Joris")).containsText("You have left.");
        line(imke, "Imke").getByRole(AriaRole.LINK).click();
        assertThat(imke.locator("main").getByText(Pattern.compile("^Step \\d+ of")))
                .isVisible();
        imke.goBack();
        assertThat(line(imke, "Joris"))
                .containsText("You have left.", new LocatorAssertions.ContainsTextOptions().setTimeout(20_000));
        button(imke, "End the visit").click();
        assertThat(heading(imke, "How it went")).isVisible();
        assertThat(imke.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("What is left")))
                .containsText("Archive label printer");
    }

    @Test
    void whoHasSeveralSitesSeesFirstWhatWaitsAndFindsTheWayThere() {
        var page = demo.enter("TECHNICIAN", 390, 844, ColorScheme.DARK);
        page.navigate(demo.url());
        var first = page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("What comes first"));
        assertThat(first.getByRole(AriaRole.HEADING)).isVisible();
        fits(page);
        readable(page, "today");
        page.locator("main")
                .getByRole(
                        AriaRole.LINK,
                        new Locator.GetByRoleOptions()
                                .setName("Hollow Lane Animal Clinic")
                                .setExact(true))
                .click();
        assertThat(page).hasURL(Pattern.compile("/sites/3/"));
        page.keyboard().press("g");
        page.keyboard().press("t");
        assertThat(page).hasURL(Pattern.compile("/today$"));
    }
}
