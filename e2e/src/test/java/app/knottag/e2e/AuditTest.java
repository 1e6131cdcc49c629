package app.knottag.e2e;

import static app.knottag.e2e.Demo.button;
import static app.knottag.e2e.Demo.field;
import static app.knottag.e2e.Demo.heading;
import static app.knottag.e2e.Demo.key;
import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** A table that was pasted shows what has drifted; each of it leads to where it is settled. */
class AuditTest extends InTheDemo {

    private static final LocatorAssertions.ContainsTextOptions LATE =
            new LocatorAssertions.ContainsTextOptions().setTimeout(60_000);

    private static final Locator.GetByTextOptions EXACTLY = new Locator.GetByTextOptions().setExact(true);

    private static Locator line(Page page, String standing) {
        return page.locator("[data-standing=" + standing + "]");
    }

    /** Two at one address, one back on automatic, and a guest. */
    static final String DRIFTED = """
            10.44.16.51 00:00:5e:00:53:11
            10.44.16.51 00:00:5e:00:53:a1
            10.44.16.140 00:00:5e:00:53:c4
            10.44.16.151 00:00:5e:00:53:a3
            """;

    static void paste(Page page, String table) {
        page.evaluate("""
                async table => {
                  const token = document.cookie.split('; ').find(c => c.startsWith('XSRF-TOKEN=')).split('=')[1];
                  const answer = await fetch('/api/sites/1/intakes?source=NEIGHBOURS&preview=false&make=false',
                    {method: 'POST', headers: {'Content-Type': 'text/plain', 'X-XSRF-TOKEN': token}, body: table});
                  if (!answer.ok) throw new Error(await answer.text());
                }""", table);
    }

    @Test
    void whatHasDriftedIsSettled() {
        var page = demo.enter("LEAD");
        page.navigate(demo.url() + "/sites/1/plan");
        assertThat(page.locator("main")).isVisible();
        paste(page, DRIFTED);
        page.reload();
        assertThat(page.locator("main h1").first()).isVisible();
        page.keyboard().press("g");
        page.keyboard().press("a");
        assertThat(heading(page, "What differs from the record")).isVisible();
        readable(page, "what differs");
        assertThat(line(page, "DUPLICATE")).containsText("Unplug 00:00:5E:00:53:A1 first");
        assertThat(line(page, "AUTOMATIC")).containsText("Staff time clock, back on automatic");
        line(page, "STRANGER").locator("button").first().click();
        assertThat(field(page, "MAC")).hasValue("00:00:5E:00:53:A1");
        page.goBack();
        line(page, "STRANGER").locator("button").last().click();
        field(page, "What it is, such as the owner’s phone").fill("password: knot42");
        button(page, "It is none of ours").click();
        assertThat(line(page, "STRANGER").getByText("Knot Tag keeps no secrets"))
                .isVisible();
        field(page, "What it is, such as the owner’s phone").fill("The weather station");
        button(page, "It is none of ours").click();
        assertThat(line(page, "STRANGER")).hasCount(0);
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Others here"))
                .click();
        assertThat(line(page, "KNOWN")).containsText("The weather station, known, none of ours");
        assertThat(line(page, "GUEST")).hasCount(1);
        button(page, "Not so any more").click();
        assertThat(line(page, "KNOWN")).hasCount(0);
        page.navigate(demo.url() + "/sites/1/audit");
        line(page, "AUTOMATIC").getByText("where it was before").click();
        assertThat(page.getByRole(AriaRole.STATUS)).containsText("at 10.44.16.140");
        assertThat(page.getByLabel("What was seen").locator("tbody tr").first()).containsText("Staff time clock");
        readable(page, "where it was");
        field(page, "A MAC, an address or a port").fill("10.44.16.999");
        button(page, "Look back").click();
        assertThat(page.getByText("This is neither a MAC")).isVisible();
        field(page, "A MAC, an address or a port").fill("10.44.16.51");
        field(page, "A MAC, an address or a port").press("Enter");
        assertThat(page.getByRole(AriaRole.STATUS)).containsText("Two had it at the same time");
        page.getByText("who else was there").first().click();
        assertThat(page.getByRole(AriaRole.STATUS)).containsText("devices were there");
        whatIf(page);
        gear(page);
        page.navigate(demo.url() + "/sites/1/audit");
        line(page, "AUTOMATIC").getByText("What happened, and the way back").click();
        assertThat(line(page, "AUTOMATIC")).containsText("Most likely: It was reset, or set to automatic");
        readable(page, "the way back");
        var narrow = demo.enter("TECHNICIAN", 390, 844, ColorScheme.DARK);
        narrow.navigate(demo.url() + "/sites/1/audit");
        assertThat(line(narrow, "STRANGER")).isVisible();
        fits(narrow);
        readable(narrow, "the audit at night");
        narrow.navigate(demo.url() + "/sites/1/audit/past?of=10.44.16.51");
        assertThat(narrow.getByRole(AriaRole.STATUS)).containsText("Two had it at the same time");
        fits(narrow);
        narrow.navigate(demo.url() + "/sites/1/audit/gear");
        assertThat(port(narrow, 16)).containsText("Staff time clock");
        fits(narrow);
        readable(narrow, "routers and switches at night");
        narrow.navigate(demo.url() + "/sites/1/audit/recheck");
        assertThat(narrow.getByRole(AriaRole.STATUS)).hasText("No proof here is old enough to look again.");
        assertThat(narrow.getByLabel("Later").locator("tbody tr")).hasCount(2);
        fits(narrow);
        readable(narrow, "proofs that age at night");
        narrow.navigate(demo.url() + "/sites/1/audit/change?change=PORT&subject=DEVICE:2");
        assertThat(narrow.getByRole(AriaRole.STATUS)).containsText("1 device to prove again");
        fits(narrow);
        readable(narrow, "what if at night");
        page.navigate(demo.url() + "/sites/1/audit/nights");
        nights(page);
        narrow.navigate(demo.url() + "/sites/1/audit/nights");
        assertThat(report(narrow)).containsText("As before");
        fits(narrow);
        readable(narrow, "the nights at night");
    }

    /** What differs of one device. */
    private static Locator of(Page page, String name) {
        return page.locator("[data-standing]").filter(new Locator.FilterOptions().setHasText(name));
    }

    private static void back(Page page) {
        page.navigate(demo.url() + "/sites/5/audit");
        assertThat(heading(page, "What differs from the record")).isVisible();
    }

    /** From what happened through the runbook to the signature, with the keyboard. */
    private static void setUpAgain(Page page, String name, String device, String most, Map<String, String> known) {
        back(page);
        of(page, name).getByText("What happened, and the way back").press("Enter");
        assertThat(of(page, name)).containsText("Most likely: " + most);
        of(page, name).getByText("Open these steps again").press("Enter");
        of(page, name).getByText("Go on in its runbook").press("Enter");
        assertThat(page).hasURL(Pattern.compile("/sites/5/onboard/\\d+$"));
        var keys = new Keys(page, Long.parseLong(page.url().replaceAll(".*/", "")), device);
        for (var step : keys.book().get("steps")) {
            if (step.get("status").asString().equals("PASSED")) continue;
            if (step.get("gate").get("type").asString().equals("CONFIRMED")) keys.sign();
            else keys.carry(Keys.step(keys.book(), step.get("key").asString()), known);
        }
    }

    @Test
    void anOfficeThatDriftedForTwoMonthsIsSettledByFollowingTheScreen() {
        var page = demo.enter("LEAD");
        var hand = new Keys(page, 0, "");
        back(page);
        assertThat(page.getByRole(AriaRole.STATUS)).containsText("9 things differ; 2 as on record");
        readable(page, "an office that drifted");
        setUpAgain(page, "Post scanner", "post-scanner", "It was reset", Map.of("ADDRESS", "10.44.40.21"));
        setUpAgain(page, "Front copier", "front-copier", "Another address", Map.of("ADDRESS", "10.44.40.20"));
        hand.bench("PUT", "brought-tablet/faults/NO_POWER", "");
        back(page);
        assertThat(line(page, "DUPLICATE")).containsText("Unplug 02:5E:10:44:40:18 first");
        line(page, "DUPLICATE").getByText("Check it").press("Enter");
        key(page, "Check again Space").press("Enter");
        assertThat(heading(page, "All checks hold")).isVisible();
        back(page);
        assertThat(line(page, "DUPLICATE")).hasCount(0);
        line(page, "OTHER_INTERFACE").getByText("To its MACs").press("Enter");
        button(page, "Interfaces").press("Enter");
        page.getByRole(AriaRole.DIALOG).getByLabel("MAC").fill("00:00:5E:00:53:35");
        button(page, "Keep the interfaces").press("Enter");
        assertThat(page.getByRole(AriaRole.DIALOG)).isHidden();
        back(page);
        of(page, "File room door reader, silent")
                .getByText("It was replaced", EXACTLY)
                .press("Enter");
        button(page, "Replace the unit").press("Enter");
        field(page, "New MAC").fill("00:00:5E:00:53:4E");
        field(page, "New serial").fill("DR-410999");
        field(page, "Why").fill("Somebody hung another one there");
        button(page, "Begin the swap").press("Enter");
        assertThat(page.getByRole(AriaRole.DIALOG)).isHidden();
        hand.bench("DELETE", "partner-phone/faults/NO_POWER", "");
        for (var what : List.of(
                Map.entry("00:00:5E:00:53:5A", "The kitchen screen"),
                Map.entry("02:5E:10:44:40:18", "A tablet that went home"))) {
            back(page);
            assertThat(line(page, "STRANGER").first()).containsText(what.getKey());
            line(page, "STRANGER").first().getByText("Say what it is", EXACTLY).press("Enter");
            field(page, "What it is, such as the owner’s phone").fill(what.getValue());
            field(page, "What it is, such as the owner’s phone").press("Enter");
            assertThat(field(page, "What it is, such as the owner’s phone")).hasCount(0);
        }
        page.getByText("Look again").press("Enter");
        assertThat(heading(page, "Who is there")).isVisible();
        key(page, "Ask again").press("Enter");
        assertThat(page.locator("[data-swept=AS_PLANNED]")
                        .filter(new Locator.FilterOptions().setHasText("Phone of the partners")))
                .isVisible();
        back(page);
        assertThat(page.getByRole(AriaRole.STATUS)).containsText("Nothing differs; 8 as on record.");
        firmware(page);
    }

    /** A fault becomes known, and two scanners are there: of one the version was read, of the other not. */
    private static void firmware(Page page) {
        sight(page, "Sights of Audit", "Firmware");
        page.getByLabel("Kind").selectOption("document-scanner");
        var unit = page.locator("[data-unit]").filter(new Locator.FilterOptions().setHasText("Post scanner"));
        unit.getByText("Key in what it shows").press("Enter");
        field(page, "Version").fill("newest");
        field(page, "Version").press("Enter");
        assertThat(unit).containsText("A version has a figure in it");
        field(page, "Version").fill("1.9.9");
        field(page, "Version").press("Enter");
        assertThat(unit).containsText("1.9.9, read");
        button(page, "A fault became known").press("Enter");
        field(page, "First version without it").fill("2.0");
        field(page, "What it does").fill("It forgets its address");
        field(page, "What it does").press("Enter");
        var fault = page.locator("[data-fault]");
        assertThat(fault).containsText("Document scanner before 2.0: It forgets its address");
        assertThat(fault).containsText(Pattern.compile("Has it:\\s*Post scanner \\(1\\.9\\.9\\)"));
        assertThat(fault).containsText(Pattern.compile("Not read yet:\\s*Second desk scanner"));
        readable(page, "firmware");
        var narrow = demo.enter("TECHNICIAN", 390, 844, ColorScheme.DARK);
        narrow.navigate(demo.url() + "/sites/5/audit/firmware");
        assertThat(narrow.locator("[data-fault]")).containsText("It forgets its address");
        fits(narrow);
        readable(narrow, "firmware at night");
    }

    /** Told beforehand what the router's replacement asks for, and made a visit of, with the keyboard alone. */
    private static void whatIf(Page page) {
        page.navigate(page.url().replaceFirst("/audit.*", "/audit"));
        line(page, "AUTOMATIC").getByText("What happened, and the way back").click();
        line(page, "AUTOMATIC").getByText("Make it a visit").click();
        assertThat(page.getByRole(AriaRole.STATUS)).containsText("to prove again");
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("What if"))
                .press("Enter");
        var what = page.getByLabel("What changes");
        what.focus();
        page.keyboard().type("The router");
        page.keyboard().press("Enter");
        assertThat(page.getByRole(AriaRole.STATUS)).containsText("Cut off until then");
        var steps = page.getByLabel("What to do, in this order").locator("li");
        assertThat(steps.first()).containsText("Put the new one in its place");
        assertThat(steps.last()).containsText("Prove it again");
        readable(page, "what if");
        field(page, "When it begins").fill("soon");
        button(page, "Plan the visit").press("Enter");
        assertThat(page.locator("[aria-invalid=true]")).hasCount(1);
        field(page, "When it begins").fill("3 Mar 2031, 17:30");
        field(page, "When it begins").press("Enter");
        assertThat(heading(page, "The router is replaced")).isVisible();
        assertThat(page.getByText("Begins 3 Mar 2031, 17:30")).isVisible();
    }

    private static Locator port(Page page, int number) {
        return page.locator("[data-port='Shop switch " + number + "']");
    }

    /** A wrong community first, then the one that the switch takes. */
    static void gear(Page page) {
        page.navigate(page.url().replaceFirst("/(onboard|audit)\\b.*", "/audit/gear"));
        page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("Shop switch"))
                .getByText("Read it")
                .press("Enter");
        field(page, "Its own address").fill("10.44.99.2");
        field(page, "Community").fill("anybody");
        field(page, "Community").press("Enter");
        assertThat(page.getByText("10.44.99.2 is in none of this site's segments"))
                .isVisible();
        field(page, "Its own address").fill("10.44.16.2");
        field(page, "Community").press("Enter");
        assertThat(page.getByText("10.44.16.2 did not answer.")).isVisible();
        field(page, "Community").fill("barn-read");
        field(page, "Community").press("Enter");
        assertThat(page.getByText("3 ports need a hand")).isVisible();
        assertThat(port(page, 15)).containsText("Staff time clock is on record here, and hangs at Shop switch 16.");
        port(page, 16).getByText("Shop switch 16").click();
        assertThat(page.getByRole(AriaRole.STATUS))
                .containsText("Nobody but Staff time clock was heard there, last heard");
    }

    private static Locator report(Page page) {
        return page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("Report"));
    }

    /** Looks twice: what is new the first time stands as before the second; hours that are no night are refused. */
    private static void nights(Page page) {
        button(page, "Make these looks now").press("Enter");
        assertThat(report(page)).containsText("things are new", LATE);
        assertThat(report(page).getByLabel("New")).containsText("Till 3 payment terminal: back on automatic");
        button(page, "Make these looks now").press("Enter");
        assertThat(report(page)).containsText("stand as before", LATE);
        assertThat(report(page).getByLabel("As before")).containsText("Till 3 payment terminal: back on automatic");
        readable(page, "the nights");
        field(page, "Until").fill("01:10");
        field(page, "Until").press("Enter");
        assertThat(page.getByText("From 01:00 until 01:10 are 10 minutes.")).isVisible();
        field(page, "Until").fill("04:30");
        field(page, "Until").press("Enter");
        assertThat(page.getByText("Every night, 01:00 to 04:30")).isVisible();
        button(page, "Send it by mail").click();
        field(page, "Relay").fill("mail.barn.example");
        field(page, "Sender").fill("imke");
        field(page, "Recipients").fill("imke@barn.example");
        field(page, "Recipients").press("Enter");
        assertThat(page.getByText("“imke” is not a")).isVisible();
    }
}
