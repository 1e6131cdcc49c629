package app.knottag.e2e;

import static app.knottag.e2e.Demo.button;
import static app.knottag.e2e.Demo.field;
import static app.knottag.e2e.Demo.heading;
import static app.knottag.e2e.Demo.key;
import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;

/** A site set up from what is found there: from a pasted list to a plan without conflict, and into another network. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class PlanTest extends InTheDemo {

    private static void sight(Page page, String name) {
        sight(page, "Sights of the plan", name);
    }

    /** A heading that begins with a knot, which says its state. */
    private static Locator step(Page page, String title) {
        return page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName(title));
    }

    private static Locator dialog(Page page, String label) {
        return page.locator("dialog[open]").getByLabel(label, new Locator.GetByLabelOptions().setExact(true));
    }

    /** Thirty devices of a made-up practice, with an address used twice. */
    private static String practice(String slipped) {
        var lines = new ArrayList<>(List.of("Device;IP;Room;Type"));
        var rooms = List.of("Reception", "Surgery", "Kennel", "Pharmacy", "Office");
        for (int i = 0; i < 26; i++)
            lines.add(String.format(
                    "%s %d;10.71.4.%d;%s;%s",
                    i % 2 == 0 ? "Scanner" : "Printer",
                    i,
                    20 + i,
                    rooms.get(i % 5),
                    i % 2 == 0 ? "Scanner" : "Label printer"));
        lines.add("Door reader;10.71.4." + slipped + ";Kennel;Door reader");
        for (String device : List.of("Staff time clock", "Copier upstairs", "Storage box"))
            lines.add(device + ";;Office;");
        return String.join("\n", lines);
    }

    @Test
    @Order(6)
    void aPracticeIsPlannedFromAPastedList() {
        var page = demo.enter("LEAD");
        page.locator("summary").getByText("Pellworth Garden Barn").click();
        button(page, "Add a site").click();
        dialog(page, "Name of the site").fill("Wendle Paws");
        dialog(page, "Site code").fill("WPV");
        dialog(page, "Time zone").fill("Europe/Berlin");
        button(page, "Add the site").click();
        assertThat(heading(page, "Wendle Paws has no segment yet")).isVisible();
        field(page, "Name").fill("Practice");
        field(page, "Prefix").fill("10.71.4.0/24");
        page.getByLabel("Lay it out like").selectOption("Pellworth Garden Barn, Shop floor, a /24");
        assertThat(field(page, "Gateway")).hasValue("10.71.4.1");
        assertThat(field(page, "Handed out automatically from")).hasValue("10.71.4.100");
        button(page, "Add the segment").click();
        assertThat(heading(page, "Practice")).isVisible();
        sight(page, "Bring in");
        field(page, "Paste it here").fill(practice("20"));
        button(page, "See what it makes").click();
        assertThat(step(page, "One line is wrong; nothing is taken")).isVisible();
        assertThat(page.getByText("10.71.4.20 stands on line 2 already.")).isVisible();
        readable(page, "a list with a slip");
        field(page, "Paste it here").fill(practice("60"));
        button(page, "See what it makes").click();
        assertThat(page.getByText("This makes 30")).isVisible();
        button(page, "Bring in 30").click();
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("See what is to mend"))
                .click();
        // Nothing but what the list forced: addresses that are one slip from the gateway.
        assertThat(page.locator("[data-conflict=SLIP_TO_GATEWAY]")).hasCount(1);
        assertThat(page.locator("[data-conflict]")).hasCount(1);
    }

    @Test
    @Order(2)
    void everySightIsReadableWideAndNarrow() {
        everySight(
                "plan",
                "Sights of the plan",
                List.of("Tape", "To mend", "Series", "Wiring", "Site sheet", "Bring in", "Renumber"));
    }

    @Test
    @Order(3)
    void theTapeZoomsByKeysAndAClickOnFreeGroundPlansThere() {
        var page = demo.enter("TECHNICIAN");
        page.navigate(demo.url() + "/sites/1/plan");
        var tape = page.locator("[data-tape]");
        tape.focus();
        for (int i = 0; i < 3; i++) page.keyboard().press("+");
        assertThat(page.getByText("Whole tape")).isVisible();
        page.keyboard().press("ArrowLeft");
        assertThat(tape).hasAttribute("aria-label", Pattern.compile(".*hosts 104 to 135\\..*"));
        page.keyboard().press("Home");
        page.getByText("200–254").click();
        assertThat(heading(page, "It goes to 10.44.16.200")).isVisible();
        assertThat(page.locator("[data-reasons]")).containsText("You chose it on the tape.");
    }

    @Test
    @Order(4)
    void aConflictIsMendedWithOnePressAndPadsComeEightAtATime() {
        var page = demo.enter("TECHNICIAN");
        sight(page, "To mend");
        var pooled = page.locator("[data-conflict=IN_POOL]");
        assertThat(pooled).containsText("Yard label printer: 10.44.16.140 lies in the pool");
        button(page, "Move it on record").click();
        assertThat(pooled).hasCount(0);
        sight(page, "Tape");
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Many at once"))
                .click();
        field(page, "Numbers").fill("8 to 1");
        assertThat(page.getByText("“8 to 1” does not run upwards from 1 or more."))
                .isVisible();
        field(page, "Numbers").fill("1 to 8");
        assertThat(heading(page, "This makes 8")).isVisible();
        readable(page, "many at once");
        key(page, "Plan 8 here").click();
        assertThat(page.getByText("15 on record")).isVisible();
    }

    /** Ties the step that is due with the space bar. */
    private static void complete(Page page, int step) {
        var due = page.getByText("Step " + step + " of");
        assertThat(due).isVisible();
        assertThat(key(page, "Step done")).isEnabled();
        page.keyboard().press(" ");
        assertThat(due).hasCount(0);
    }

    @Test
    @Order(5)
    void theShopFloorMovesIntoAnotherNetworkAndTheTagFollows() {
        var page = demo.enter("TECHNICIAN");
        sight(page, "Renumber");
        field(page, "New prefix").fill("10.60.2.0/24");
        field(page, "New gateway").fill("10.60.2.53");
        button(page, "See what moves").click();
        assertThat(page.getByText("1 take another host number")).isVisible();
        readable(page, "what moves");
        button(page, "Begin with step 1").click();
        complete(page, 1);
        complete(page, 2);
        assertThat(page.getByText("Step 3 of")).isVisible();
        page.reload();
        assertThat(step(page, "Move Yard label printer to 10.60.2.5")).isVisible();
        button(page, "Take the last step back").click();
        assertThat(step(page, "Give your laptop an address in both networks")).isVisible();
        readable(page, "a running renumbering");
        for (int i = 2; i < 6; i++) complete(page, i);
        page.navigate(demo.url() + "/sites/1/plan");
        assertThat(page.getByText("stand in the other network now")).isVisible();
    }
}
