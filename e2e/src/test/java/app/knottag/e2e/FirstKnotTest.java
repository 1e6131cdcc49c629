package app.knottag.e2e;

import static app.knottag.e2e.Demo.button;
import static app.knottag.e2e.Demo.field;
import static app.knottag.e2e.Demo.heading;
import static app.knottag.e2e.Demo.key;
import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.google.gson.JsonObject;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.nio.file.Files;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * The whole story in a real browser, on two servers behind a balancer: one terminal from plan to proof, upset and mended, taken out
 * and brought in.
 */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class FirstKnotTest extends InTheDemo {

    @BeforeAll
    static void two() throws Exception {
        demo.onTwoServers();
    }

    @Test
    @Order(1)
    void oneTerminalFromPlanToProof() {
        var page = demo.enter("TECHNICIAN");
        page.keyboard().press("n");
        assertThat(heading(page, "It goes to 10.44.16.54")).isVisible();
        assertThat(page.locator("[data-reasons]"))
                .containsText("Host 50 + 4, as for every one of “Till”; room to number 20.");
        field(page, "MAC").fill("00:00:SE:00:53:2B");
        assertThat(page.getByText("“S” cannot stand in a MAC; 5 looks like it."))
                .isVisible();
        readable(page, "new endpoint with a finding");
        button(page, "00:00:5E:00:53:2B").click();
        assertThat(field(page, "MAC")).hasValue("00:00:5E:00:53:2B");
        field(page, "Serial").fill("OC2-7H41-0031");
        assertThat(page.getByText("OC2-7H41-0031 is already on record for another endpoint."))
                .isVisible();
        key(page, "Plan it here").click();
        assertThat(page.getByText("The serial OC2-7H41-0031 is on record for Till 1 payment terminal already."))
                .isVisible();
        assertThat(field(page, "MAC")).hasValue("00:00:5E:00:53:2B");
        var technician = new Technician(page, 4);
        field(page, "Serial").fill("OC2-7H41-0093");
        key(page, "Plan it here").click();
        readable(page, "a choice");
        technician.upToTheSheet("0093");
        assertThat(page.locator("main dl")).containsText("10.44.16.54");
        readable(page, "type sheet");
        technician.typeIntoDevice(technician.sheet());
        key(page, "Entered and saved").click();
        // One of the two servers loses its power; nobody notices.
        demo.killSecond();
        var slipped = new HashMap<>(technician.sheet());
        slipped.put("Address", "10.44.16.45");
        technician.readBack(slipped);
        assertThat(page.getByRole(AriaRole.ALERT)
                        .filter(new Locator.FilterOptions()
                                .setHasText("Address: Two figures swapped in the last group: 45 typed, 54 planned.")))
                .isVisible();
        page.reload();
        assertThat(field(page, "Address")).hasValue("10.44.16.45");
        technician.readBack(technician.sheet());
        technician.restart();
        key(page, "Run the checks").click();
        assertThat(heading(page, "Not proved yet: look for yourself")).isVisible();
        readable(page, "look now");
        Technician.look(page);
        assertThat(heading(page, "All checks hold")).isVisible();
        Assertions.assertThat(page.locator("[data-step] [data-knot=PASSED]").count())
                .isEqualTo(12);
        assertThat(page.getByText("Firm: every check was made and holds.").first())
                .isVisible();
        readable(page, "all checks hold");
        button(page, "Sign off as Joris Teel").click();
        assertThat(page.locator("[data-standing] [data-knot=PASSED]")).isVisible();
        assertThat(page.locator("[data-standing]")).hasText("Proved and signed off by Joris Teel, to be handed over");
    }

    @DisplayName("A server that lost its power comes back, and both are at work")
    @Test
    @Order(2)
    void both() throws Exception {
        demo.secondAgain();
        var before = demo.takenByEach();
        for (var role : new String[] {"TECHNICIAN", "LEAD", "OFFICE"})
            demo.enter(role).context().close();
        for (int n = 0; n < 2; n++)
            Assertions.assertThat(demo.takenByEach().get(n)).as("server " + n).isGreaterThan(before.get(n));
    }

    @ParameterizedTest(name = "{0} fails at “{1}”")
    @Order(3)
    @CsvSource(
            delimiter = '|',
            value = {
                "It has no power                     | The address answers      | Its MAC is seen nowhere on the network.",
                "It is still on automatic            | The address answers      | seen at 10.44.16.131 instead, in the "
                        + "pool: it is back on automatic.",
                "Another device took its address     | Who answers there        | Two devices have this address:",
                "Its service listens on another port | Its service port is open | It refuses port 7454",
                "Its service is switched off         | Its service port is open | It refuses port 7454",
                "Its own firewall swallows it        | Its service port is open | Port 7454 stays silent",
                "Another unit stands here            | Who answers there        | 00:00:5E:00:53:4E answers, not 00:00:5E:00:53:2B.",
            })
    void upsetItFailsAtTheRightCheckAndLeadsToItsCause(String fault, String check, String seen) {
        var page = demo.enter("TECHNICIAN");
        page.keyboard().press("/");
        page.getByLabel("Any piece you have in hand").fill("53:2b");
        page.keyboard().press("Enter");
        assertThat(heading(page, "Till 4 payment terminal").first()).isVisible();
        page.keyboard().press("g");
        page.keyboard().press("c");
        var technician = new Technician(page, 4);
        var shown = technician.upset(fault, true);
        key(page, "Check again").click();
        assertThat(heading(page, "Till 4 payment terminal does not reach its service"))
                .isVisible();
        assertThat(technician.check(check).locator("[data-knot=FAILED]")).isVisible();
        assertThat(technician.check(check)).containsText(seen);
        assertThat(page.locator("[data-step] [data-knot=FAILED]")).hasCount(1);
        assertThat(page.locator("[data-standing] [data-knot=FAILED]")).isVisible();
        readable(page, "a failed check");
        answered(page, shown);
        assertThat(page.locator("[data-suspect]").first()).containsText(fault);
        readable(page, "the cause");
        technician.upset(fault, false);
        key(page, "Check again").click();
        assertThat(heading(page, "All checks hold")).isVisible();
        page.context().close();
    }

    /** Follows the screen alone: answers what is asked by what the bench shows, until nothing more is asked. */
    private static void answered(Page page, Map<String, String> shown) {
        var ask = page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("Try now"));
        assertThat(page.locator("[data-suspect]").first()).isVisible();
        for (int n = 0; n < 12 && ask.count() > 0; n++) {
            String question = ask.locator("h3").innerText();
            ask.getByRole(AriaRole.BUTTON)
                    .filter(new Locator.FilterOptions().setHasText(shown.getOrDefault(question, "Cannot tell")))
                    .first()
                    .click();
            page.waitForFunction(
                    "q => document.querySelector('section[aria-label=\"Try now\"] h3')?.innerText !== q", question);
        }
    }

    @Test
    @Order(5)
    void theRegisterGoesOutAndIntoAnEmptySite() throws Exception {
        var page = demo.enter("LEAD");
        page.keyboard().press("g");
        page.keyboard().press("r");
        assertThat(heading(page, "Labels")).isVisible();
        readable(page, "register");
        var json = page.waitForDownload(() -> page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("JSON"))
                .click());
        Assertions.assertThat(Files.readString(json.path()))
                .contains("\"knot-tag-register/1\"")
                .contains("00:00:5E:00:53:2B");
        var csv = page.waitForDownload(() -> page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("CSV"))
                .click());
        var broken = Files.createTempFile("broken", ".csv");
        Files.writeString(broken, Files.readString(csv.path()).replace("10.44.16.54", "10.44.16.5.4"));
        page.locator("summary").getByText("Pellworth Garden Barn").click();
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Pellworth Farm Kitchen"))
                .click();
        assertThat(heading(page, "Pellworth Farm Kitchen has no segment yet")).isVisible();
        readable(page, "empty site");
        page.getByLabel("Register file (CSV, UTF-8)").setInputFiles(broken);
        assertThat(page.getByText("One thing is wrong; nothing was taken")).isVisible();
        assertThat(page.getByText("Five groups of figures: 10.44.16.5.4.")).isVisible();
        page.getByLabel("Register file (CSV, UTF-8)").setInputFiles(csv.path());
        button(page, "Bring in 14").click();
        assertThat(heading(page, "Shop floor")).isVisible();
        assertThat(page.getByText("9 on record")).isVisible();
    }

    @Test
    @Order(4)
    void anotherTerminalOnANarrowScreenAtNight() {
        var page = demo.enter("TECHNICIAN", 390, 844, ColorScheme.DARK);
        readable(page, "plan, narrow, at night");
        fits(page);
        var technician = new Technician(page, 5);
        technician.add("00005E00533D", "OC2-7H41-0107");
        fits(page);
        technician.upToTheSheet("0107");
        fits(page);
        readable(page, "type sheet, narrow, at night");
        technician.fromSheetToConfirm();
        technician.prove();
        assertThat(heading(page, "All checks hold")).isVisible();
        fits(page);
        button(page, "Sign off as Joris Teel").click();
        assertThat(page.locator("main")
                        .getByText("Signed off by Joris Teel", new Locator.GetByTextOptions().setExact(true)))
                .isVisible();
        assertThat(page.locator("[data-tag-strip]")).containsText("10.44.16.55");
        readable(page, "confirm, narrow, at night");
    }

    @Test
    @Order(6)
    void theOfficeLooksOnAndAWrongPasswordIsSaidKindly() {
        var page = demo.window(1280, 800, ColorScheme.LIGHT);
        page.navigate(demo.url() + "/sites/1/plan");
        readable(page, "sign in");
        page.getByLabel("Name").fill("Pia Onwald");
        page.getByLabel("Password").fill("not it");
        button(page, "Enter").click();
        assertThat(page.getByText("Name and password do not go together. Type them again."))
                .isVisible();
        page.getByLabel("Password").fill("tie-it-well-3");
        button(page, "Enter").click();
        assertThat(heading(page, "You are looking on")).isVisible();
        assertThat(key(page, "New endpoint")).hasCount(0);
        assertThat(button(page, "Bench")).hasCount(0);
        fits(page);
    }

    @DisplayName(
            "A lead lets a colleague in, sees them work, closes their account in the middle, and lets them in again with a new password")
    @Test
    @Order(7)
    void people() {
        var lead = demo.enter("LEAD", 390, 844, ColorScheme.DARK);
        lead.locator("summary", new Page.LocatorOptions().setHasText("Imke R.")).click();
        lead.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("People"))
                .click();
        button(lead, "Invite a colleague").click();
        button(lead, "Make a link").click();
        var link = lead.getByRole(AriaRole.DIALOG).locator("p.font-mono");
        assertThat(link).isVisible();
        var colleague = demo.window(1280, 800, ColorScheme.LIGHT);
        colleague.navigate(link.textContent());
        lead.keyboard().press("Escape");
        assertThat(lead.getByText("Invitation as technician")).isVisible();
        field(colleague, "Name").fill("Noor Vance");
        field(colleague, "Password").fill("password");
        button(colleague, "Make the account").click();
        assertThat(colleague.getByText("A password has 10 to 128 characters; this has 8."))
                .isVisible();
        field(colleague, "Password").fill("heron under seven bridges");
        button(colleague, "Make the account").click();
        signIn(colleague, "heron under seven bridges");
        colleague.navigate(demo.url() + "/sites/1/plan/new");
        field(colleague, "Serial").fill("OC2-7H41-0777");

        lead.reload();
        var noor = lead.locator("[data-person]").filter(new Locator.FilterOptions().setHasText("Noor Vance"));
        assertThat(noor).containsText("signed in now");
        noor.getByText("Close the account").click();
        readable(lead, "people, narrow, at night");
        fits(lead);
        noor.getByText("Close it").click();
        assertThat(noor).containsText("Closed since");
        // The next thing the colleague does ends it, and what was typed stays where it was.
        field(colleague, "MAC").fill("00:00:5E:00:53:77");
        assertThat(colleague.getByText("Your session has ended.")).isVisible();
        assertThat(field(colleague, "Serial")).hasValue("OC2-7H41-0777");
        colleague.getByLabel("Name").last().fill("Noor Vance");
        colleague.getByLabel("Password").fill("heron under seven bridges");
        button(colleague, "Enter").click();
        assertThat(colleague.getByText("Your account is closed. A lead can open it again."))
                .isVisible();

        noor.getByText("Open the account again").click();
        noor.getByText("New password").click();
        var anew = demo.window(1280, 800, ColorScheme.LIGHT);
        anew.navigate(noor.locator("p.font-mono").textContent());
        field(anew, "Password").fill("kettle of quiet thunder");
        readable(anew, "a new password");
        button(anew, "Keep it").click();
        signIn(anew, "kettle of quiet thunder");
        anew.getByText("Noor V.").click();
        button(anew, "Your sign-in").click();
        assertThat(anew.getByText("This machine")).isVisible();
        readable(anew, "your sign-in");
    }

    @DisplayName(
            "A passkey of the browser's own opens the door where the page has a name, and no longer once it is removed")
    @Test
    @Order(8)
    void passkey() {
        var page = demo.enter("TECHNICIAN");
        own(page);
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(demo.named()))
                .click();
        // A phone that sees for itself who holds it.
        var device = page.context().newCDPSession(page);
        device.send("WebAuthn.enable");
        var options = new JsonObject();
        options.addProperty("protocol", "ctap2");
        options.addProperty("transport", "internal");
        for (var able :
                List.of("hasResidentKey", "hasUserVerification", "isUserVerified", "automaticPresenceSimulation"))
            options.addProperty(able, true);
        var added = new JsonObject();
        added.add("options", options);
        String phone = device.send("WebAuthn.addVirtualAuthenticator", added)
                .get("authenticatorId")
                .getAsString();
        page.getByLabel("Name").fill("Joris Teel");
        page.getByLabel("Password").fill("tie-it-well-2");
        button(page, "Enter").click();
        own(page);
        var name = page.getByLabel("Name of the new passkey");
        name.fill("Blue phone");
        page.getByLabel("Your password, so").fill("not it");
        button(page, "Add a passkey").click();
        assertThat(page.getByText("This is not your password. Type it again.")).isVisible();
        assertThat(name).hasValue("Blue phone");
        page.getByLabel("Your password, so").fill("tie-it-well-2");
        button(page, "Add a passkey").click();
        assertThat(page.getByText("“Blue phone” is good from now on.")).isVisible();
        readable(page, "passkeys");
        out(page);
        button(page, "Enter with a passkey").click();
        own(page);
        button(page, "Remove Blue phone").click();
        assertThat(button(page, "Remove Blue phone")).hasCount(0);
        out(page);
        button(page, "Enter with a passkey").click();
        assertThat(page.getByText("This passkey is not good here, or no longer."))
                .isVisible();
        var gone = new JsonObject();
        gone.addProperty("authenticatorId", phone);
        device.send("WebAuthn.clearCredentials", gone);
        button(page, "Enter with a passkey").click();
        assertThat(page.getByText(
                        "No passkey was used: it was cancelled, took too long, or the device has none for here."))
                .isVisible();
        readable(page, "sign in with passkeys");
    }

    private static void own(Page page) {
        page.locator("summary", new Page.LocatorOptions().setHasText("Joris T."))
                .click();
        button(page, "Your sign-in").click();
        assertThat(page.getByText("This machine")).isVisible();
    }

    private static void out(Page page) {
        page.keyboard().press("Escape");
        page.locator("summary", new Page.LocatorOptions().setHasText("Joris T."))
                .click();
        button(page, "Sign out").click();
        assertThat(button(page, "Enter")).isVisible();
    }

    private static void signIn(Page page, String password) {
        assertThat(button(page, "Enter")).isVisible();
        page.getByLabel("Name").fill("Noor Vance");
        page.getByLabel("Password").fill(password);
        button(page, "Enter").click();
        assertThat(page.getByText("Noor V.")).isVisible();
    }
}
