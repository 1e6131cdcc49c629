package app.knottag.e2e;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.AriaRole;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Someone who carries a runbook through with the keyboard alone, by what the device shows. */
final class Keys {

    private static final int MOST_TABS = 90;
    private static final JsonMapper JSON = new JsonMapper();

    private final Page page;
    private final long endpoint;
    private final String device;

    Keys(Page page, long endpoint, String device) {
        this.page = page;
        this.endpoint = endpoint;
        this.device = device;
    }

    /** The runbook as the server tells it; what a person would read off the device is taken from there. */
    JsonNode book() {
        return JSON.readTree((String)
                page.evaluate("id => fetch('/api/endpoints/' + id + '/runbook').then(r => r.text())", "" + endpoint));
    }

    static JsonNode step(JsonNode book, String key) {
        for (var step : book.get("steps")) if (step.get("key").asString().equals(key)) return step;
        throw new AssertionError("no step " + key);
    }

    private boolean focused(Locator at) {
        return (Boolean) at.evaluate("e => e === document.activeElement");
    }

    /** Moves on with Tab until the field or button has the focus. */
    void tabTo(Locator wanted) {
        PlaywrightAssertions.assertThat(wanted).isVisible();
        for (int n = 0; n < MOST_TABS; n++) {
            if (focused(wanted)) return;
            page.keyboard().press("Tab");
        }
        throw new AssertionError("Tab never comes to " + wanted);
    }

    void type(Locator field, String text) {
        tabTo(field);
        page.keyboard().press("Control+a");
        page.keyboard().type(text);
    }

    /** Comes to a group of round buttons with Tab, and goes to the wanted one with the arrows. */
    void pick(String group, String value) {
        var all = page.locator("main input[type=radio][name='" + group + "']");
        for (int n = 0; n < MOST_TABS; n++) {
            if ((Boolean) page.evaluate("g => document.activeElement.name === g", group)) break;
            page.keyboard().press("Tab");
        }
        page.keyboard().press("Space");
        for (int n = 0; n < all.count(); n++) {
            if ((Boolean) page.evaluate(
                    "([g, v]) => document.activeElement.name === g && document.activeElement.value === v && document.activeElement.checked",
                    List.of(group, value))) return;
            page.keyboard().press("ArrowDown");
        }
        throw new AssertionError("no way to " + value + " in " + group);
    }

    private Locator complete() {
        return page.locator("button[data-complete]");
    }

    void press() {
        tabTo(complete());
        page.keyboard().press("Enter");
    }

    /** Carries one step through; the heading changes when it is done. */
    void carry(JsonNode step, Map<String, String> known) {
        String title = step.get("title").asString(),
                type = step.get("gate").get("type").asString();
        PlaywrightAssertions.assertThat(page.locator("main h1")).hasText(title);
        if (!step.get("waiting").isNull()) {
            press();
            PlaywrightAssertions.assertThat(page.getByRole(AriaRole.TIMER).first())
                    .isVisible();
        }
        switch (type) {
            case "CHOICE" -> {
                int n = 1;
                for (var o : step.get("gate").get("options")) {
                    if (o.get("holds").asBoolean()) break;
                    n++;
                }
                page.keyboard().press("" + n);
            }
            case "TYPE_SHEET" -> enterOnDevice(step.get("gate").get("part").asString());
            case "READ_BACK" -> readBack(step.get("gate").get("part").asString());
            case "ADDRESS_SHOWN" -> {
                restartDevice();
                type(page.getByLabel(step.get("gate").get("ask").asString()), known.get("ADDRESS"));
            }
            case "OPENINGS" -> {
                for (var o : book().get("openings")) {
                    var line = page.locator("[data-opening='" + o.get("key").asString() + "']");
                    tabTo(line.getByText("It is closed"));
                    page.keyboard().press("Enter");
                    PlaywrightAssertions.assertThat(
                                    line.getByText("Closed", new Locator.GetByTextOptions().setExact(true)))
                            .isVisible();
                }
            }
            case "WORKSHEET" -> worksheet(step.get("key").asString(), known);
            default -> {}
        }
        for (var input : step.get("gate").get("inputs")) fill(step, input, known);
        press();
        done(step.get("key").asString());
    }

    /** Keys in what is known for the fields of a worksheet: {@code step/label}, with {@code #n} for the row of it. */
    private void worksheet(String step, Map<String, String> known) {
        known.forEach((place, text) -> {
            if (!place.startsWith(step + "/")) return;
            var label = place.substring(step.length() + 1).split("#");
            var fields = page.locator("main").getByLabel(label[0], new Locator.GetByLabelOptions().setExact(true));
            type(fields.nth(label.length == 1 ? 0 : Integer.parseInt(label[1])), text);
        });
    }

    /** Goes to Confirm, has all checks made, and signs off. */
    void sign() {
        var link = page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Go to Confirm"));
        tabTo(link);
        page.keyboard().press("Enter");
        PlaywrightAssertions.assertThat(Demo.key(page, "Space")).isVisible();
        page.waitForResponse(
                r -> r.url().endsWith("/check-runs"), () -> page.keyboard().press("Space"));
        // What was proved before stands there until the answer has come.
        PlaywrightAssertions.assertThat(Demo.key(page, "Space")).isEnabled();
        Technician.look(page);
        PlaywrightAssertions.assertThat(Demo.heading(page, "All checks hold")).isVisible();
        tabTo(Demo.button(page, "Sign off as Imke Rasmund"));
        page.keyboard().press("Enter");
        PlaywrightAssertions.assertThat(page.locator("[data-standing]")).containsText("Proved and signed off");
        page.keyboard().press("g");
        page.keyboard().press("o");
    }

    /** Says what the page said when a step is not done. */
    private void done(String key) {
        try {
            PlaywrightAssertions.assertThat(page.locator("[data-step='" + key + "'] [data-knot=PASSED]"))
                    .isVisible();
        } catch (AssertionError e) {
            throw new AssertionError(
                    key + " is not done, the page says: "
                            + page.locator("main").innerText() + "\n"
                            + page.locator("main input").all().stream()
                                    .map(Locator::inputValue)
                                    .toList(),
                    e);
        }
    }

    private void fill(JsonNode step, JsonNode input, Map<String, String> known) {
        String field = input.get("field").asString(), label = input.get("label").asString();
        switch (input.get("form").asString()) {
            case "TICK" -> {
                tabTo(page.locator("main").getByLabel(label, new Locator.GetByLabelOptions().setExact(true)));
                page.keyboard().press("Space");
            }
            case "PICK" -> {
                String value = signal(step, field);
                if (!value.isEmpty()) pick(field, value);
            }
            case "MOMENT" ->
                type(page.getByLabel(label), (String)
                        page.evaluate("() => document.querySelector('main [role=timer]').textContent.trim()"));
            case "DAY" -> {}
            default -> {
                String text = known.getOrDefault(step.get("key").asString() + "." + field, known.get(field));
                if (text == null && field.equals("beeps")) text = signal(step, field);
                if (text == null && input.get("needed").asBoolean())
                    throw new AssertionError("nothing known for " + field + " at " + step.get("key"));
                if (text != null)
                    type(page.locator("main").getByLabel(label, new Locator.GetByLabelOptions().setExact(true)), text);
            }
        }
    }

    private static String signal(JsonNode step, String field) {
        for (var s : step.get("gate").get("signals"))
            if (s.get("holds").asBoolean()) {
                String value = s.get(field).asString();
                return value.equals("NONE") ? "" : value;
            }
        return "";
    }

    private void readBack(String part) {
        for (var row : book().get("readBack"))
            if (row.get("part").asString().equals(part))
                type(
                        page.locator("main")
                                .getByLabel(
                                        row.get("label").asString(), new Locator.GetByLabelOptions().setExact(true)),
                        row.get("value").asString());
    }

    String bench(String method, String path, String body) {
        return (String) page.evaluate(
                "([m, p, b]) => fetch('/api/bench-panel/' + p, {method: m, body: b || undefined, headers: "
                        + "{'Content-Type': 'application/json', 'X-XSRF-TOKEN': "
                        + "decodeURIComponent(/XSRF-TOKEN=([^;]+)/.exec(document.cookie)[1])}}).then(r => r.text())",
                List.of(method, path, body));
    }

    /** Enters the whole sheet on the device itself, which lies beside the keyboard. */
    private void enterOnDevice(String part) {
        var typed = new LinkedHashMap<String, String>();
        for (var row : book().get("sheet"))
            if (!row.get("value").asString().isEmpty()
                    && row.get("part").asString().equals(part))
                typed.put(row.get("label").asString(), row.get("value").asString());
        // What a partner or a service must know is entered there, and no stand-in is needed for it.
        if (!part.matches("partner|service")) bench("PUT", device + "/menu", JSON.writeValueAsString(typed));
    }

    private void restartDevice() {
        bench("POST", device + "/restart", "");
        for (int n = 0; n < 40; n++) {
            var panel = JSON.readTree((String) page.evaluate("() => fetch('/api/bench-panel').then(r => r.text())"));
            for (var d : panel.get("devices"))
                if (d.get("id").asString().equals(device)
                        && d.get("screen").asString().startsWith("Address")) return;
            page.waitForTimeout(250);
        }
        throw new AssertionError(device + " does not start");
    }
}
