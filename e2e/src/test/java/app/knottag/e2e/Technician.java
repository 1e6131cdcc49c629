package app.knottag.e2e;

import static app.knottag.e2e.Demo.button;
import static app.knottag.e2e.Demo.field;
import static app.knottag.e2e.Demo.heading;
import static app.knottag.e2e.Demo.key;
import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.SelectOption;
import java.util.HashMap;
import java.util.Map;

/** What the technician does with a new payment terminal, from the plan to the sign-off. */
final class Technician {

    private final Page page;
    private final int till;

    Technician(Page page, int till) {
        this.page = page;
        this.till = till;
    }

    String address() {
        return "10.44.16." + (50 + till);
    }

    Map<String, String> sheet() {
        return Map.ofEntries(
                Map.entry("Address", address()),
                Map.entry("Mask", "255.255.255.0"),
                Map.entry("Gateway", "10.44.16.1"),
                Map.entry("Resolver 1", "10.44.16.1"),
                Map.entry("Resolver 2", "203.0.113.9"),
                Map.entry("Listening port", "" + (7450 + till)),
                Map.entry("Till address", "10.44.16." + (30 + till)),
                Map.entry("Till port", "7500"));
    }

    /** Adds the terminal that is next; its label is read off the device on the bench. */
    void add(String mac, String serial) {
        page.keyboard().press("n");
        assertThat(heading(page, "It goes to " + address())).isVisible();
        field(page, "MAC").fill(mac);
        field(page, "Serial").fill(serial);
        field(page, "Place").fill("Garden counter");
        key(page, "Plan it here").click();
        assertThat(heading(page, "Unpack, check the seals")).isVisible();
    }

    void see(String option) {
        page.getByLabel(option).check();
        key(page, "Step done").click();
    }

    /** Goes on to the type sheet; the unit in hand is told by the end of its serial. */
    void upToTheSheet(String unit) {
        see("Seal and both screws whole");
        assertThat(heading(page, "Unpack and count")).isVisible();
        onUpTo("label");
        page.getByLabel("Last four of the serial or the MAC in your hand").fill(unit);
        key(page, "Step done").click();
        see("Steady or blinking green");
        key(page, "Start the wait").click();
        assertThat(page.getByRole(AriaRole.TIMER)).isVisible();
        see("Welcome screen with a clock");
        assertThat(heading(page, "Enter the address")).isVisible();
    }

    /** Types into the device itself, on the bench panel. */
    void typeIntoDevice(Map<String, String> values) {
        button(page, "Bench").click();
        var menu = page.getByRole(AriaRole.FORM, new Page.GetByRoleOptions().setName("Its menu"));
        menu.getByLabel("Method").fill("Static");
        values.forEach((label, value) -> menu.getByLabel(label, new Locator.GetByLabelOptions().setExact(true))
                .fill(value));
        menu.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Save in the device"))
                .click();
        button(page, "Close").click();
    }

    void restartDevice() {
        button(page, "Bench").click();
        button(page, "Restart it").click();
        assertThat(page.locator("[data-screen]")).hasText("Starting…");
        assertThat(page.locator("[data-screen]")).hasText("Address " + address());
        button(page, "Close").click();
    }

    void readBack(Map<String, String> shown) {
        shown.forEach((label, value) -> field(page, label).fill(value));
        key(page, "Step done").click();
    }

    void fromSheetToConfirm() {
        typeIntoDevice(sheet());
        key(page, "Entered and saved").click();
        readBack(sheet());
        restart();
    }

    void restart() {
        key(page, "Start the wait").click();
        restartDevice();
        page.getByLabel("Which address does the start-up screen show?").fill(address());
        key(page, "Step done").click();
        assertThat(heading(page, "Compare its clock")).isVisible();
        onUpTo("confirm");
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Go to Confirm"))
                .click();
    }

    /** Does what is left before a step, as everything should be: at the device, and in the set-up of its till. */
    private void onUpTo(String key) {
        var keys = new Keys(page, Long.parseLong(page.url().replaceAll(".*/", "")), "");
        for (var step : keys.book().get("steps")) {
            if (step.get("key").asString().equals(key)) return;
            if (step.get("status").asString().equals("PASSED")) continue;
            keys.carry(step, Map.of("model", "OC-2", "first", "4711", "second", "4711"));
        }
    }

    /** Switches something that goes wrong on or off, and returns what one sees at the device then. */
    Map<String, String> upset(String fault, boolean on) {
        button(page, "Bench").click();
        if (on) page.getByLabel("Something that goes wrong").selectOption(new SelectOption().setLabel(fault));
        else button(page, "Mend it").click();
        assertThat(button(page, "Mend it")).hasCount(on ? 1 : 0);
        var seen = new HashMap<String, String>();
        for (var row : page.locator("[data-look]").all())
            seen.put(row.locator("dt").innerText(), row.locator("dd").innerText());
        button(page, "Close").click();
        return seen;
    }

    /** Runs the checks, and answers what only eyes can see with what is hoped for. */
    void prove() {
        key(page, "Run the checks").click();
        look(page);
    }

    /** Answers every check that only eyes can make with what is hoped for, by its key. */
    static void look(Page page) {
        var ask = page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("Look now"));
        assertThat(page.getByText("Last checked")).isVisible();
        while (ask.count() > 0) {
            String question = ask.locator("h2").innerText();
            page.keyboard().press("1");
            page.waitForFunction(
                    "q => document.querySelector('section[aria-label=\"Look now\"] h2')?.innerText !== q", question);
        }
    }

    Locator check(String title) {
        return page.locator("[data-step]").filter(new Locator.FilterOptions().setHasText(title));
    }
}
