package app.knottag.e2e;

import static app.knottag.e2e.Demo.button;
import static app.knottag.e2e.Demo.heading;
import static app.knottag.e2e.Demo.key;
import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Proof and causes for every kind of device, over real protocols of the stand-ins. */
class ConfirmTest extends InTheDemo {

    private static final String CALL = """
            async ([method, url, body]) => {
              const token = decodeURIComponent(document.cookie.match(/XSRF-TOKEN=([^;]+)/)[1]);
              const headers = { 'X-XSRF-TOKEN': token, 'Content-Type': 'application/json', 'Idempotency-Key': crypto.randomUUID() };
              const answer = await fetch(url, { method, headers, body: body ? JSON.stringify(body) : undefined });
              return await answer.json();
            }""";

    private static Page page;

    @BeforeAll
    static void enter() {
        page = demo.enter("TECHNICIAN");
    }

    @SuppressWarnings("unchecked")
    private static Map<String, Object> call(String method, String url, Object body) {
        return (Map<String, Object>) page.evaluate(CALL, new Object[] {method, url, body});
    }

    @SuppressWarnings("unchecked")
    private static List<Map<String, Object>> list(Object value) {
        return (List<Map<String, Object>>) value;
    }

    private static String checkStatus(Map<String, Object> line, String check) {
        return list(line.get("checks")).stream()
                .filter(r -> r.get("check").equals(check))
                .map(r -> r.get("status") + " " + r.get("note"))
                .findFirst()
                .orElse("none");
    }

    private static int endpoint(String device) {
        var found = list(call("GET", "/api/bench-panel", null).get("devices")).stream()
                .filter(d -> d.get("id").equals(device))
                .findFirst()
                .orElseThrow();
        for (int site : new int[] {1, 3, 4})
            for (var e : list(page.evaluate(CALL, new Object[] {"GET", "/api/sites/" + site + "/endpoints", null})))
                if (e.get("name").equals(found.get("name"))) return (int) e.get("id");
        throw new AssertionError(device);
    }

    @DisplayName("Every protocol is really spoken with its stand-in")
    @ParameterizedTest(name = "{0}: {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "clinic-copier    | SERVICE | PASSED It takes print data.",
                "ledger-store     | SERVICE | PASSED It offers shared folders: “dialect 2.1”.",
                "accounts-scanner | SERVICE | Its page answers (200).",
                "line-outlet      | SERVICE | Serial WO110473.",
                "staff-clock      | SERVICE | PASSED Serial TK204417.",
                "clinic-copier    | NAMES   | PASSED 10.44.24.1 knows names.",
                "clinic-copier    | FAR_SERVICE | PASSED Mail relay: The mail server greets, upgrades to TLS and offers "
                        + "a sign-in. Its certificate is good until",
            })
    void protocols(String device, String check, String seen) {
        var line = call("POST", "/api/endpoints/" + endpoint(device) + "/check-runs", null);
        Assertions.assertThat(checkStatus(line, check)).contains(seen);
    }

    @Test
    void aDeviceThatShowsAWrongTimeByTheWayIsToldSo() {
        String at = "/api/bench-panel/ledger-store/faults/CLOCK_WRONG";
        call("PUT", at, null);
        try {
            var line = call("POST", "/api/endpoints/" + endpoint("ledger-store") + "/check-runs", null);
            Assertions.assertThat(checkStatus(line, "SERVICE"))
                    .isEqualTo("PASSED It offers shared folders: “dialect 2.1”. Its clock is 40 days behind ours.");
        } finally {
            call("DELETE", at, null);
        }
    }

    @DisplayName(
            "What is switched on at a stand-in shows at the right check, and the screen's own questions lead to it")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "till-1        | CABLE_OUT_AT_WALL        | ANSWERS",
                "till-1        | WAN_SOCKET               | ANSWERS",
                "till-1        | NOT_SAVED                | ANSWERS",
                "till-1        | PARTNER_OTHER_PORT       | PARTNER",
                "till-1        | CROSSED_PAIR             | PARTNER",
                "till-1        | OWN_VANTAGE              | ANSWERS",
                "till-1        | GATEWAY_DOWN             | GATEWAY",
                "staff-clock   | ALLOW_LIST               | SERVICE",
                "staff-clock   | WRONG_VARIANT            | SERVICE",
                "back-door     | HELD_BY_OLDER            | WHO_ANSWERS",
                "back-door     | OTHER_INTERFACE_ON_RECORD | WHO_ANSWERS",
                "ledger-store  | DEVICE_FIREWALL          | PORT_OPEN",
                "ledger-store  | MASK_WRONG               | PORT_OPEN",
                "clinic-copier | RESOLVER_DOWN            | NAMES",
                "clinic-copier | PROVIDER_FILTER          | FAR_SERVICE",
                "clinic-copier | SERVER_DOWN              | FAR_SERVICE",
                "clinic-copier | UPLINK_DOWN              | NAMES",
                "clinic-copier | SIGN_IN                  | REAL_JOB",
                "clinic-copier | CLOCK_WRONG              | REAL_JOB",
                "clinic-copier | RESOLVER_MISSING         | REAL_JOB",
                "kennel-camera | ADDRESS_SLIP             | ANSWERS",
                "accounts-scanner | NOT_REGISTERED        | ANSWERS",
                "accounts-scanner | MISTYPED_AT_REGISTRY  | ANSWERS",
                "accounts-scanner | NOT_RESTARTED         | ANSWERS",
            })
    void faultsLeadToTheirCause(String device, String fault, String check) {
        int id = endpoint(device);
        String at = "/api/bench-panel/" + device + "/faults/" + fault;
        var panel = call("PUT", at, null);
        try {
            var line = call("POST", "/api/endpoints/" + id + "/check-runs", null);
            var looks = list(list(panel.get("devices")).stream()
                    .filter(d -> d.get("id").equals(device))
                    .findFirst()
                    .orElseThrow()
                    .get("questions"));
            if (check.equals("REAL_JOB"))
                line = call(
                        "POST",
                        "/api/endpoints/" + id + "/observations",
                        Map.of("check", check, "outcome", outcome(looks, line, check), "evidence", "SEEN"));
            Assertions.assertThat(checkStatus(line, check)).startsWith("FAILED");
            var d = call("GET", "/api/endpoints/" + id + "/diagnosis", null);
            var asked = new ArrayList<String>();
            for (int n = 0; n < 14 && d.get("next") != null; n++) {
                @SuppressWarnings("unchecked")
                var next = (Map<String, Object>) d.get("next");
                asked.add((String) next.get("question"));
                d = call(
                        "PUT",
                        "/api/endpoints/" + id + "/diagnosis/answers",
                        Map.of("question", next.get("question"), "outcome", answer(looks, next)));
            }
            var first = list(d.get("suspects")).get(0);
            var group = list(d.get("suspects")).stream()
                    .filter(s -> s.get("group").equals(first.get("group")))
                    .map(s -> s.get("title"))
                    .toList();
            String title = list(panel.get("faults")).stream()
                    .filter(f -> f.get("fault").equals(fault))
                    .map(f -> (String) f.get("label"))
                    .findFirst()
                    .orElseThrow();
            Assertions.assertThat(group).as("asked " + asked).contains(title);
        } finally {
            call("DELETE", at, null);
            if (check.equals("REAL_JOB"))
                call(
                        "POST",
                        "/api/endpoints/" + id + "/observations",
                        Map.of("check", check, "outcome", "DONE", "evidence", "SEEN"));
        }
    }

    /** The outcome whose words stand on the bench panel for the same question. */
    private static String answer(List<Map<String, Object>> looks, Map<String, Object> next) {
        String seen = looks.stream()
                .filter(l -> l.get("question").equals(next.get("question")))
                .map(l -> (String) l.get("seen"))
                .findFirst()
                .orElse("");
        return list(next.get("outcomes")).stream()
                .filter(o -> o.get("words").equals(seen))
                .map(o -> (String) o.get("outcome"))
                .findFirst()
                .orElse("CANNOT_BE_TOLD");
    }

    private static String outcome(List<Map<String, Object>> looks, Map<String, Object> line, String check) {
        var checkStatus = list(line.get("checks")).stream()
                .filter(r -> r.get("check").equals(check))
                .findFirst()
                .orElseThrow();
        return answer(looks, Map.of("question", check, "outcomes", checkStatus.get("outcomes")));
    }

    @DisplayName(
            "Three tills on a dead switch are one case: it says on what they hang, asks twice, and says what to do")
    @Test
    void threeTillsOnOneSwitchAreOneCase() {
        var tills = List.of("till-1", "till-2", "till-3");
        for (var till : tills) call("PUT", "/api/bench-panel/" + till + "/faults/SWITCH_DEAD", null);
        try {
            page.navigate(demo.url() + "/sites/1/confirm/together");
            button(page, "All: counter payment terminal").click();
            key(page, "Check 3 together").click();
            var one = page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("One case"));
            assertThat(one).containsText("fail together: all hang on Shop switch.");
            assertThat(one).containsText("This looks like one case");
            readable(page, "one case");
            fits(page);
            assertThat(one).containsText("Is the small light at its network plug lit?");
            button(page, "Dark").click();
            assertThat(one).containsText("Do the other devices beside it work?");
            button(page, "No, none on this switch").click();
            assertThat(one).containsText("It is one case");
            assertThat(one).containsText("Look at its power light and its power unit.");
            String seen = call("GET", "/api/endpoints/" + endpoint("till-1") + "/diagnosis", null)
                    .get("seen")
                    .toString();
            Assertions.assertThat(seen).contains("OTHERS_HERE");
            // Somebody checks again; a page that stays open and weighs anew says nothing of that.
            call("POST", "/api/endpoints/" + endpoint("till-1") + "/check-runs", null);
            page.waitForResponse(
                    r -> r.url().endsWith("/case"),
                    () -> page.evaluate("() => window.dispatchEvent(new Event('visibilitychange'))"));
            seen = call("GET", "/api/endpoints/" + endpoint("till-1") + "/diagnosis", null)
                    .get("seen")
                    .toString();
            Assertions.assertThat(seen).doesNotContain("OTHERS_HERE");
        } finally {
            for (var till : tills) call("DELETE", "/api/bench-panel/" + till + "/faults/SWITCH_DEAD", null);
        }
    }

    @Test
    void aWholeSegmentIsSweptAndSeveralAreCheckedTogether() {
        page.navigate(demo.url() + "/sites/3/confirm/sweep");
        key(page, "Ask every address").click();
        assertThat(page.locator("[data-swept=MOVED]").first()).containsText("in the pool: it is on automatic");
        assertThat(page.locator("[data-swept=AS_PLANNED]")
                        .filter(new Locator.FilterOptions().setHasText("Reception copier")))
                .containsText("There, with its own MAC.");
        readable(page, "who is there");
        fits(page);
        page.navigate(demo.url() + "/sites/1/confirm/together");
        assertThat(key(page, "Choose some below")).isDisabled();
        button(page, "All: counter payment terminal").click();
        key(page, "Check 3 together").click();
        assertThat(page.getByText("2 of 3 without a fault.")).isVisible();
        assertThat(page.locator("[data-one='Till 3 payment terminal']")).containsText("it is back on automatic");
        readable(page, "several together");
        var narrow = demo.enter("TECHNICIAN", 390, 844, ColorScheme.DARK);
        for (String sight : List.of("sweep", "together", "" + endpoint("clinic-copier"))) {
            narrow.navigate(demo.url() + "/sites/3/confirm/" + sight);
            assertThat(narrow.locator("main h1")).isVisible();
            fits(narrow);
            readable(narrow, sight + ", narrow, at night");
        }
    }

    @Test
    void theOfficeSaysItsOwnWord() {
        int till = endpoint("till-2");
        call("POST", "/api/endpoints/" + till + "/check-runs", null);
        var office = demo.enter("OFFICE");
        office.navigate(demo.url() + "/sites/1/confirm/" + till);
        assertThat(heading(office, "Not proved yet: look for yourself")).isVisible();
        assertThat(office.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("Look now")))
                .hasCount(0);
        button(office, "I do not reach it").click();
        assertThat(office.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("From the office")))
                .containsText("Neither here nor at the office");
        readable(office, "the office's word");
    }
}
