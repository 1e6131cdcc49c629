package app.knottag.e2e;

import static app.knottag.e2e.Demo.button;
import static app.knottag.e2e.Demo.field;
import static app.knottag.e2e.Demo.key;
import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.regex.Pattern;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Onboarding of other kinds than terminals: with the keyboard alone, with things going wrong, and with kinds of one's own. */
class OnboardTest extends InTheDemo {

    /** Goes to an endpoint of any site with the finder. */
    private static void find(Page page, String name) {
        page.keyboard().press("Escape");
        page.keyboard().press("/");
        page.getByLabel("Any piece you have in hand").fill(name);
        page.keyboard().press("Enter");
        assertThat(page.locator("[data-tag-strip]:visible, aside h2:visible")
                        .filter(new Locator.FilterOptions().setHasText(name)))
                .isVisible();
        page.keyboard().press("Escape");
        page.keyboard().press("g");
        page.keyboard().press("o");
        assertThat(page.locator("main").getByText(Pattern.compile("^Step \\d+ of")))
                .isVisible();
    }

    private static long id(Page page) {
        return Long.parseLong(page.url().replaceAll(".*/", ""));
    }

    private static Map<String, String> known(String text) {
        var known = new HashMap<String, String>();
        Arrays.stream(text.split("; ")).map(p -> p.split("=", 2)).forEach(p -> known.put(p[0].strip(), p[1].strip()));
        return known;
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "Hall time clock       | hall-clock      | unit=0058; model=TK-40; ADDRESS=10.44.32.22; count=3",
                "Front door reader     | front-door      | unit=0077; model=DR-200; ADDRESS=10.44.32.25; count=2; person=Lore Winter; "
                        + "supply/Supply, amperes on its label (A)=2; supply/Held for long (A)#2=0,5; "
                        + "run/Length of the run, one way (m)=12; run/Cross-section of one lead (mm²)=0.75; "
                        + "run/Most that it draws (A)=600 mA",
                "Check-in kiosk 2      | kiosk-2         | unit=0018; model=Q-1; ADDRESS=10.44.24.29; seals.read=551804 551803; "
                        + "case.first=K-2; case.second=K-2; count=4; "
                        + "strips/Each draws (W)#0=65; strips/How many#0=4; pad-name.first=Check-in kiosk 2; "
                        + "pad-name.second=check-in kiosk 2; case=K-2; pack-away.read=660001 660002",
                "Archive label printer | archive-printer | unit=611D; restart.ADDRESS=10.44.32.26; "
                        + "ADDRESS=10.44.32.126; MASK=255.255.255.0; GATEWAY=10.44.32.1",
            })
    void fromFirstToLastStepWithTheKeyboardAlone(String name, String device, String facts) {
        var page = demo.enter("LEAD");
        find(page, name);
        var keys = new Keys(page, id(page), device);
        var known = known(facts);
        for (var step : keys.book().get("steps")) {
            String at = step.get("key").asString();
            if (step.get("gate").get("type").asString().equals("CONFIRMED")) {
                keys.sign();
                continue;
            }
            var here = new HashMap<>(known);
            if (at.equals("restart") && known.containsKey("restart.ADDRESS"))
                here.put("ADDRESS", known.get("restart.ADDRESS"));
            keys.carry(Keys.step(keys.book(), at), here);
        }
        assertThat(page.locator("[data-standing]")).containsText("Proved and signed off by Imke Rasmund");
    }

    @Test
    void whatGoesWrongIsNamedAndThreeFailuresOfferAnotherWay() {
        var page = demo.enter("TECHNICIAN");
        find(page, "Staff fingerprint reader");
        assertThat(page.getByText("It failed three times. Another way:")).isVisible();
        readable(page, "ways out");
        find(page, "Reception PIN pad");
        field(page, "Address").fill("10.44.24.17");
        field(page, "Contactless").fill("Off");
        key(page, "Step done").click();
        assertThat(page.getByText("Contactless: “Off” instead of “On”.").first())
                .isVisible();
        assertThat(page.getByText("Two figures swapped in the last group: 17 typed, 71 planned.")
                        .first())
                .isVisible();
        page.reload();
        assertThat(field(page, "Contactless")).hasValue("Off");
        find(page, "Kennel yard camera");
        page.getByLabel("Date and time it shows").fill("2001-01-01 10:00");
        key(page, "Step done").click();
        assertThat(page.getByText("certificates and sign-ins fail with that").first())
                .isVisible();
        assertThat(page.getByLabel("Last day its time was known to be right")).isVisible();
        readable(page, "a clock that is wrong");
    }

    @Test
    void anOpeningIsLentToSomebodyAndAResetOpensItAgain() {
        var page = demo.enter("LEAD");
        find(page, "Ledger store");
        button(page, "It was reset, or has to be").click();
        assertThat(page.getByText("Everything on its drives, Its shares")).isVisible();
        readable(page, "a reset");
        button(page, "It was reset: open these steps again").click();
        page.getByLabel("Why").fill("Nobody knew the password");
        button(page, "It was reset: open these steps again").click();
        assertThat(page.locator("main h1")).hasText("Enter the address");
        page.locator("[data-step=secure] button").click();
        var firewall = page.locator("[data-opening=firewall-open]");
        firewall.getByText("Later, by somebody").click();
        field(page, "Who closes it").fill("Joris Teel");
        field(page, "By which day").fill("31.1.2099");
        button(page, "Keep it so").click();
        assertThat(firewall).containsText("Joris Teel closes it by 31.01.2099");
        page.keyboard().press("Escape");
        page.keyboard().press("g");
        page.keyboard().press("c");
        assertThat(page.getByText("The hand-over waits")).isVisible();
        assertThat(page.getByText("Firewall open: Joris Teel closes it by 31.01.2099."))
                .isVisible();
        readable(page, "the hand-over waits");
    }

    @Test
    void aKindOfOnesOwnIsCheckedByLineAndTakenIntoUse() {
        var page = demo.enter("LEAD");
        page.navigate(demo.url() + "/sites/1/onboard/kinds");
        page.getByRole(AriaRole.LISTITEM)
                .filter(new Locator.FilterOptions().setHasText("Label printer"))
                .getByText("Copy")
                .click();
        assertThat(page.getByLabel("The kind as YAML")).containsText("id: label-printer-own");
        String yaml = ((String) page.evaluate("() => fetch('/api/kinds/label-printer/file').then(r => r.text())"))
                .replaceFirst("(?m)^id: .*$", "id: label-printer-own")
                .replaceFirst("(?m)^version: .*$", "version: 1")
                .replace("name: Label printer", "name: Badge printer");
        bring(page, yaml.replace("after: { address:", "after: { adress:"));
        assertThat(page.getByText("Step read-back waits for “adress”, which is no step."))
                .isVisible();
        assertThat(button(page, "Keep this version")).isDisabled();
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Line \\d+")))
                .click();
        Assertions.assertThat((String) page.evaluate(
                        "() => String(document.querySelector('[data-editor]').shadowRoot.getSelection())"))
                .contains("adress");
        bring(page, yaml);
        assertThat(page.getByText("Nothing speaks against it.")).isVisible();
        readable(page, "kinds");
        button(page, "Keep this version").click();
        assertThat(page.getByText("Badge printer, version 1, is kept.")).isVisible();
        page.keyboard().press("Escape");
        page.navigate(demo.url() + "/sites/1/plan/new");
        page.getByLabel("Kind").first().selectOption("Badge printer");
        assertThat(page.getByLabel("Kind").first()).hasValue("label-printer-own");
    }

    private static void bring(Page page, String yaml) {
        page.locator("main input[type=file]")
                .setInputFiles(
                        new FilePayload("badge.yaml", "application/yaml", yaml.getBytes(StandardCharsets.UTF_8)));
    }

    @Test
    void aWorksheetCatchesWhatTheLabelInvitesAndTheStepWaitsForIt() {
        var page = demo.enter("LEAD");
        find(page, "Router outlet");
        assertThat(page.locator("main h1")).hasText("Set its times");
        // The router was timed at 20 s; a hand that is in a hurry lets it look again at once, and every three seconds.
        field(page, "It looks every (s)").fill("3");
        field(page, "It waits before it looks again (s)").fill("5 s");
        assertThat(page.locator("[data-finding=LOOP]")).containsText("switched off again after 11 s");
        key(page, "Step done").click();
        assertThat(page.locator("[data-step='times'] [data-knot=FAILED]")).isVisible();
        assertThat(page.locator("main h1")).hasText("Set its times");
        field(page, "It waits before it looks again (s)").fill("five");
        assertThat(page.getByText("“five” is no figure").first()).isVisible();
        field(page, "It waits before it looks again (s)").fill("2 min");
        assertThat(page.getByText("It goes like this.")).isVisible();
        readable(page, "a worksheet at its step");
        key(page, "Step done").click();
        assertThat(page.locator("main h1")).hasText("What hangs on it");
        page.setViewportSize(390, 844);
        fits(page);
        page.navigate(demo.url() + "/sites/1/onboard/worksheets?sheet=drives");
        field(page, "Bay or serial").fill("Bay 1");
        field(page, "Size on its label (TB)").fill("4");
        button(page, "Add another").click();
        field(page, "Bay or serial").nth(1).fill("Bay 2");
        field(page, "Size on its label (TB)").nth(1).fill("3");
        assertThat(page.locator("[data-finding=MISMATCH]")).containsText("1 TB lie idle");
        fits(page);
        readable(page, "the worksheet of drives");
        button(page, "Keep these figures").click();
        assertThat(page.getByText("Kept.")).isVisible();
        page.reload();
        assertThat(field(page, "Size on its label (TB)").nth(1)).hasValue("3");
    }

    @Test
    void theNightIsSharedOutOnANarrowScreen() {
        var page = demo.enter("LEAD", 390, 844, ColorScheme.DARK);
        page.navigate(demo.url() + "/sites/1/onboard/night");
        page.getByLabel("From").fill("07:00");
        page.getByLabel("Until").fill("20:00");
        page.getByLabel("What happens then").fill("=cmd");
        button(page, "Add these hours").click();
        assertThat(page.getByText("It may not begin with “=”").first()).isVisible();
        page.getByLabel("What happens then").fill("The shop is open");
        button(page, "Add these hours").click();
        assertThat(page.getByText("07:00–20:00")).isVisible();
        button(page, "Put these hours on the type sheets").click();
        assertThat(button(page, "Put these hours on the type sheets")).hasCount(0);
        fits(page);
        readable(page, "restarts at night");
        for (String name :
                new String[] {"X-ray picture store", "Check-in kiosk 1", "Router outlet", "Front desk scanner"}) {
            find(page, name);
            fits(page);
            readable(page, name);
        }
    }
}
