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
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.assertj.core.api.Assertions;
import org.assertj.core.api.InstanceOfAssertFactories;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

/** Two people at work on the same things, each with an own browser. */
class TogetherTest extends InTheDemo {

    /** So soon a colleague's change shows. */
    private static final LocatorAssertions.IsVisibleOptions SOON =
            new LocatorAssertions.IsVisibleOptions().setTimeout(2_000);

    /** What a page fetches anew at most of what one change touches. */
    private static final int FETCHED = 8;

    /** Counts what is told of any site. */
    private static final String TOLD = "window.told = 0; new EventSource('/api/live').addEventListener('changed', e => "
            + "{ if (JSON.parse(e.data).sites.length) window.told++; });";

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
        lead.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(Pattern.compile("^Check-in kiosk 1")))
                .first()
                .click();
        assertThat(lead.getByText(Pattern.compile("^Step \\d+ of"))).isVisible();
        String runbook = lead.url();
        var step = lead.locator("main h1").textContent();
        var technician = demo.enter("TECHNICIAN");
        technician.navigate(runbook);
        assertThat(heading(technician, step)).isVisible();
        // By then the devices that wait are taken along.
        lead.waitForTimeout(8_000);
        lead.evaluate(TOLD);
        lead.waitForTimeout(1_000);
        var idle = asked(lead);
        lead.waitForTimeout(25_000);
        // A wait of the demo that becomes ready just then is told, and asked for.
        int told = (Integer) lead.evaluate("window.told");
        Assertions.assertThat(idle).hasSizeLessThanOrEqualTo(told == 0 ? 1 : told * FETCHED);
        button(technician, "Leave this step out").click();
        technician.getByLabel("Why").fill("No need here");
        button(technician, "Leave it out").click();
        assertThat(lead.getByText("did this step just now")).isVisible(SOON);
        assertThat(heading(lead, step)).isVisible();
        badge(lead, "^Go on").click();
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
        // From when it is kept.
        assertThat(other.locator("main").getByText("Barn and Garden")).isVisible();
        assertThat(lead.locator("main").getByText("Barn and Garden")).isVisible(SOON);
    }

    private static final String KEPT =
            "caches.open('knot-answers').then(c => c.keys()).then(k => k.filter(r => r.url.endsWith('/runbook')).length)";

    /** Waits until the page, and the runbooks of its site, lie on the device. */
    private static void takenAlong(Page page) {
        page.waitForFunction("() => navigator.serviceWorker.controller && " + KEPT + ".then(n => n >= 8)");
    }

    private static void atKiosk(Page page, String url) {
        page.navigate(url);
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(Pattern.compile("^Check-in kiosk 2")))
                .first()
                .click();
        assertThat(page.getByText(Pattern.compile("^Step \\d+ of"))).isVisible();
    }

    private static Locator badge(Page page, String says) {
        return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile(says)));
    }

    private static void leaveOut(Page page, String why) {
        if (button(page, "It is ready already").count() > 0)
            button(page, "It is ready already").click();
        button(page, "Leave this step out").click();
        page.getByLabel("Why").fill(why);
        button(page, "Leave it out").click();
        assertThat(page.getByRole(AriaRole.DIALOG)).hasCount(0);
    }

    @DisplayName(
            "Without network a runbook goes on, over a reload too; then it is sent in order, and what a colleague did meanwhile is settled")
    @Test
    void cellar() {
        String board = demo.url() + "/sites/3/onboard";
        var technician = demo.enter("TECHNICIAN");
        atKiosk(technician, board);
        var lead = demo.enter("LEAD", 390, 844, ColorScheme.DARK);
        atKiosk(lead, board);
        takenAlong(lead);
        lead.context().setOffline(true);
        for (int n = 1; n <= 10; n++) {
            String at = lead.locator("main h1").textContent();
            leaveOut(lead, "No need of it, " + n);
            assertThat(heading(lead, at)).isHidden();
            if (n == 5) lead.reload();
            assertThat(badge(lead, "^No network. " + n + " not sent yet")).isVisible();
        }
        firstStep(lead);
        lead.getByLabel(FED).selectOption("modem");
        assertThat(badge(lead, "^No network. 11 not sent yet")).isVisible();
        assertThat(lead.getByLabel(FED)).hasValue("modem");
        readable(lead, "without network");
        fits(lead);
        leaveOut(technician, "Seen by me as well");
        lead.context().setOffline(false);
        badge(lead, "1 to settle").click();
        assertThat(lead.getByText("Somebody else did this meanwhile.")).isVisible();
        assertThat(lead.getByText("No need of it, 1").first()).isVisible();
        readable(lead, "to settle");
        fits(lead);
        button(lead, "Theirs counts").click();
        assertThat(lead.getByText("All of it is sent.")).isVisible();
        assertThat(technician.getByText("Seen by me as well")).isVisible();
        assertThat(technician.getByText("No need of it, 10")).isVisible();
        assertThat(technician.getByText("No need of it, 1", new Page.GetByTextOptions().setExact(true)))
                .hasCount(0);
        firstStep(technician);
        assertThat(technician.getByLabel(FED)).hasValue("modem");
    }

    private static final String FED = "How is the router of the kiosks fed?";

    private static void firstStep(Page page) {
        page.getByLabel("Steps of the runbook").locator("button").first().click();
    }

    @DisplayName("What is looked at without network is kept, shown as not sent, and counts from when it was seen")
    @Test
    void looksInTheCellar() {
        var page = demo.enter("TECHNICIAN", 390, 844, ColorScheme.LIGHT);
        page.navigate(demo.url() + "/sites/1/confirm/2");
        page.waitForFunction("() => navigator.serviceWorker.controller");
        page.reload();
        var job = page.locator("[data-step=REAL_JOB]");
        assertThat(job).isVisible();
        page.context().setOffline(true);
        job.getByRole(AriaRole.BUTTON).click();
        var look = page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("Look now"));
        String says = look.getByRole(AriaRole.BUTTON)
                .first()
                .innerText()
                .replaceAll("\\s+\\d*$", "")
                .strip();
        look.getByRole(AriaRole.BUTTON).first().click();
        assertThat(badge(page, "^No network. 1 not sent yet")).isVisible();
        assertThat(job).containsText(says + ". Not sent yet.");
        assertThat(heading(page, "Not judged yet: what was seen is not sent")).isVisible();
        page.reload();
        assertThat(job).containsText("Not sent yet.");
        readable(page, "a look that is not sent");
        fits(page);
        page.context().setOffline(false);
        assertThat(page.getByText("Not sent yet.")).hasCount(0);
        assertThat(job).containsText(says + ".");
    }

    /** A lead says where somebody works, with the keyboard; from then on nothing of another site is there for him. */
    @Test
    void where() {
        var lead = demo.enter("LEAD", 390, 844, ColorScheme.LIGHT);
        lead.navigate(demo.url() + "/people");
        var works = button(lead, "Where Joris Teel works: At every site");
        works.press("Enter");
        var dialog = lead.getByRole(AriaRole.DIALOG);
        dialog.getByText("Only at some").click();
        assertThat(button(lead, "Keep it so")).isDisabled();
        dialog.getByRole(AriaRole.CHECKBOX).first().press("Space");
        fits(lead);
        readable(lead, "where somebody works");
        String name = dialog.getByRole(AriaRole.LISTITEM)
                .first()
                .innerText()
                .split(",")[0]
                .strip();
        button(lead, "Keep it so").press("Enter");
        assertThat(dialog).isHidden();
        var only = button(lead, "Where Joris Teel works: Only at " + name);
        assertThat(only).isVisible();
        var his = demo.enter("TECHNICIAN");
        his.navigate(demo.url() + "/today");
        assertThat(his.locator("main")).containsText(name);
        assertThat(his.locator("main")).not().containsText("Clinic");
        for (int site = 2; site <= 5; site++) {
            his.navigate(demo.url() + "/sites/" + site + "/plan");
            assertThat(heading(his, "There is no such site")).isVisible();
        }
        his.navigate(demo.url() + "/sites/1/plan");
        assertThat(heading(his, "Shop floor")).isVisible();
        only.press("Enter");
        dialog.getByText("At every site").click();
        button(lead, "Keep it so").press("Enter");
        assertThat(works).isVisible();
    }

    @DisplayName(
            "Without network a slip in what is read back is found on the device, in the server's words, and not noted as done")
    @Test
    void slip() {
        var page = demo.enter("TECHNICIAN");
        var technician = new Technician(page, 4);
        technician.add("00:00:5E:00:53:2B", "OC2-7H41-0093");
        technician.upToTheSheet("0093");
        technician.typeIntoDevice(technician.sheet());
        key(page, "Entered and saved").click();
        page.reload();
        page.waitForFunction("() => navigator.serviceWorker.controller && sessionStorage.getItem('knot-taken-1')");
        page.context().setOffline(true);
        String said = "Two figures swapped in the last group: 45 typed, 54 planned.";
        field(page, "Address").fill("10.44.16.45");
        assertThat(page.getByText(said, new Page.GetByTextOptions().setExact(true)))
                .isVisible();
        var slipped = new HashMap<>(technician.sheet());
        slipped.put("Address", "10.44.16.45");
        technician.readBack(slipped);
        assertThat(page.getByText("Address: " + said)).isVisible();
        assertThat(badge(page, "^No network. 0 not sent yet")).isVisible();
        technician.readBack(technician.sheet());
        assertThat(badge(page, "^No network. 1 not sent yet")).isVisible();
        page.context().setOffline(false);
        assertThat(badge(page, "not sent yet")).hasCount(0);
        assertThat(key(page, "Start the wait")).isVisible();
    }

    /** What is left of all runbooks of some sites, and of ten devices more, up to the sign-off. */
    private static final String LEFT = """
            (async () => {
              const get = path => fetch('/api/' + path).then(r => r.json());
              const token = decodeURIComponent(/XSRF-TOKEN=([^;]+)/.exec(document.cookie)[1]);
              const segmentId = (await get('sites/1/sheet')).segments[0].id;
              const devices = [];
              for (let n = 1; n <= 10; n++) {
                const name = 'Spare printer ' + n;
                const body = JSON.stringify({ segmentId, kind: 'label-printer', name, address: '10.44.16.' + (200 + n) });
                const headers = { 'X-XSRF-TOKEN': token, 'Content-Type': 'application/json',
                  'Idempotency-Key': crypto.randomUUID() };
                const made = await fetch('/api/sites/1/endpoints', { method: 'POST', headers, body });
                devices.push({ siteId: 1, endpoint: (await made.json()).id, name });
              }
              for (const siteId of [1, 3, 4])
                devices.push(...(await get(`sites/${siteId}/board`)).lines.map(l => ({ siteId, ...l })));
              const left = new Map();
              for (const { siteId, endpoint, name } of devices)
                for (const s of (await get(`endpoints/${endpoint}/runbook`)).steps) {
                  if (s.gate.type === 'CONFIRMED') break;
                  if (s.status === 'PASSED' || s.status === 'SKIPPED') continue;
                  left.set(endpoint + s.key, { siteId, endpointId: endpoint, endpoint: name, key: s.key, title: s.title });
                }
              return [...left.values()];
            })()""";

    /** Notes steps as left out, as the page does without network. */
    private static final String NOTE = """
            ({ steps, person }) => new Promise((done, no) => {
              const open = indexedDB.open('knot-outbox');
              open.onsuccess = () => {
                const work = open.result.transaction('unsent', 'readwrite');
                steps.forEach((s, i) => {
                  const id = Date.now() + i;
                  const did = { what: 'step', key: s.key, title: s.title, action: 'OVERRIDE', evidence: {},
                    reason: 'Left out by ' + person };
                  const { siteId, endpointId, endpoint } = s;
                  const at = new Date().toISOString();
                  work.objectStore('unsent').put({ id, person, siteId, endpointId, endpoint, at, did, state: 'waits',
                    says: '' }, id);
                });
                work.oncomplete = () => { open.result.close(); done(1); };
                work.onerror = no;
              };
            })""";

    /** By whom each of the steps was left out, and how often the log says so of their endpoints. */
    private static final String WHO = """
            async steps => {
              const get = path => fetch('/api/' + path).then(r => r.json());
              const who = [];
              for (const s of steps)
                who.push((await get(`endpoints/${s.endpointId}/runbook`)).steps
                  .find(x => x.key === s.key && x.status === 'SKIPPED' && x.reason === 'Left out by ' + x.by)?.by ?? s.key);
              return who;
            }""";

    @DisplayName("Two hundred changes of two people without network: each counts once or is settled, and none is lost")
    @Test
    @SuppressWarnings("unchecked")
    void twoHundred() {
        var lead = demo.enter("LEAD");
        var technician = demo.enter("TECHNICIAN");
        var steps = (List<Map<String, Object>>) lead.evaluate(LEFT);
        int both = 20, each = 100, all = 2 * each - both;
        Assertions.assertThat(steps).hasSizeGreaterThanOrEqualTo(all);
        noted(lead, steps.subList(0, each), "LEAD");
        noted(technician, steps.subList(each - both, all), "TECHNICIAN");
        var pages = List.of(lead, technician);
        pages.forEach(p -> p.context().setOffline(false));
        int settled = 0;
        for (long end = System.nanoTime() + 240_000_000_000L;
                badge(lead, "not sent yet").count()
                                + badge(technician, "not sent yet").count()
                        > 0; ) {
            Assertions.assertThat(System.nanoTime()).as("all is sent in time").isLessThan(end);
            for (var page : pages) if (settle(page)) settled++;
            lead.waitForTimeout(100);
        }
        Assertions.assertThat(settled).isEqualTo(both);
        Assertions.assertThat(lead.evaluate(WHO, steps.subList(0, all)))
                .asInstanceOf(InstanceOfAssertFactories.list(String.class))
                .hasSize(all)
                .allMatch(List.of(name("LEAD"), name("TECHNICIAN"))::contains);
    }

    private static String name(String role) {
        for (var person : demo.people())
            if (person.get("role").asString().equals(role))
                return person.get("name").asString();
        throw new IllegalArgumentException(role);
    }

    private static void noted(Page page, List<Map<String, Object>> steps, String role) {
        page.navigate(demo.url() + "/sites/3/onboard");
        takenAlong(page);
        page.context().setOffline(true);
        page.evaluate(NOTE, Map.of("steps", steps, "person", name(role)));
        page.reload();
        assertThat(badge(page, "^No network. " + steps.size() + " not sent yet"))
                .isVisible();
    }

    /** Lets theirs count, where somebody else was first; sends again what had to wait for somebody else. */
    private static boolean settle(Page page) {
        if (badge(page, "to settle").count() == 0) return false;
        if (page.getByRole(AriaRole.DIALOG).count() == 0)
            badge(page, "to settle").click();
        if (button(page, "Send it again").count() > 0)
            button(page, "Send it again").first().click();
        if (button(page, "Theirs counts").count() == 0) return false;
        button(page, "Theirs counts").first().click();
        return true;
    }
}
