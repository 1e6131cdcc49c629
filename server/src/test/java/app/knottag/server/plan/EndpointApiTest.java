package app.knottag.server.plan;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;
import java.util.concurrent.CompletableFuture;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class EndpointApiTest {

    private final Api lead = Running.as(Role.LEAD);

    private static String body(long segment, String name, String address) {
        return String.format(
                "{'segmentId':%d,'kind':'label-printer','name':'%s','address':'%s'}", segment, name, address);
    }

    @Test
    void theNextTillIsProposedWithReasonsAndAdded() {
        long[] site = Running.site(lead);
        Running.till(lead, site, 1);
        var proposal = lead.get(
                        "/api/sites/" + site[0] + "/proposal?kind=counter-payment-terminal&segmentId=" + site[1])
                .expect(200)
                .json();
        assertThat(proposal.get("number").asInt()).isEqualTo(2);
        assertThat(proposal.get("address").asString()).isEqualTo("10.7.0.52");
        assertThat(proposal.get("host").asInt()).isEqualTo(52);
        assertThat(proposal.get("servicePort").asInt()).isEqualTo(7452);
        assertThat(proposal.get("reasons").get(0).asString())
                .isEqualTo("Host 50 + 2, as for every one of “Till”; room to number 49.");
        long id = Running.till(lead, site, 2);
        var view = lead.get("/api/endpoints/" + id).expect(200).json();
        assertThat(view.get("tagCode").asString()).matches("T[A-Z]{2}-T2-[0-9A-Z]{2}");
        assertThat(view.get("station").asString()).isEqualTo("ONBOARD");
        assertThat(view.get("standing").asString()).isEqualTo("Next: Unpack, check the seals");
    }

    @DisplayName("The list goes on page by page and leaves nobody out, with an address or without")
    @Test
    void theListIsWhole() {
        long[] site = Running.site(lead);
        String path = "/api/sites/" + site[0] + "/endpoints";
        var added = new TreeSet<Long>();
        for (int n = 1; n <= 7; n++) {
            String body = n % 2 == 0
                    ? body(site[1], "Printer " + n, "10.7.0.2" + n)
                    : "{'segmentId':" + site[1] + ",'kind':'label-printer','name':'Printer " + n
                            + "','method':'AUTOMATIC'}";
            added.add(lead.post(path, body).expect(201).json().get("id").asLong());
        }
        for (int limit : new int[] {1, 2, 3, 500}) {
            var seen = new ArrayList<Long>();
            for (String after = ""; ; ) {
                var page =
                        lead.get(path + "?limit=" + limit + after).expect(200).json();
                page.forEach(e -> seen.add(e.get("id").asLong()));
                if (page.size() < limit) break;
                var last = page.get(page.size() - 1);
                after = "&afterAddress=" + last.path("address").asString("0.0.0.0") + "&afterId="
                        + last.get("id").asLong();
            }
            assertThat(seen).as("pages of " + limit).doesNotHaveDuplicates().containsExactlyInAnyOrderElementsOf(added);
        }
    }

    @Test
    void sendingACreateTwiceMakesOne() {
        long[] site = Running.site(lead);
        lead.key = "once-" + site[0] + "-abcdef";
        String path = "/api/sites/" + site[0] + "/endpoints", body = body(site[1], "Printer", "10.7.0.20");
        long first = lead.post(path, body).expect(201).json().get("id").asLong();
        assertThat(lead.post(path, body).expect(201).json().get("id").asLong()).isEqualTo(first);
        lead.post(path, body(site[1], "Other", "10.7.0.21")).refused(422, "idempotency-key-reused");
        lead.key = "short";
        lead.post(path, body).refused(400, "idempotency-key-missing");
        lead.key = null;
        assertThat(lead.get("/api/sites/" + site[0] + "/endpoints").json()).hasSize(1);
    }

    @Test
    void ofTwoAtOnceOneWinsAndTheOtherLearnsWhoAndWhatIsFree() {
        long[] site = Running.site(lead);
        var answers = IntStream.range(0, 4)
                .mapToObj(i -> CompletableFuture.supplyAsync(() -> Running.as(Role.TECHNICIAN)
                        .post("/api/sites/" + site[0] + "/endpoints", body(site[1], "Printer " + i, "10.7.0.30"))))
                .toList()
                .stream()
                .map(CompletableFuture::join)
                .toList();
        assertThat(answers).filteredOn(a -> a.status() == 201).hasSize(1);
        assertThat(answers).filteredOn(a -> a.status() == 409).hasSize(3).allSatisfy(a -> {
            assertThat(a.code()).isEqualTo("address-taken");
            assertThat(a.detail())
                    .matches("10\\.7\\.0\\.30 is taken by Printer \\d\\. The next free one is 10\\.7\\.0\\.31\\.");
            assertThat(a.json().get("nextFree").asString()).isEqualTo("10.7.0.31");
            assertThat(a.json().get("pointer").asString()).isEqualTo("/address");
        });
        assertThat(lead.get("/api/sites/" + site[0] + "/endpoints").json()).hasSize(1);
    }

    @DisplayName("Bad input is refused at its field and nothing is added")
    @ParameterizedTest(name = "{0}: {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "/address | 'address':'10.7.0.5.7'               | too-many-groups",
                "/address | 'address':'10.7.0.150'               | in-pool",
                "/address | 'address':'10.7.0.1'                 | is-gateway",
                "/address | 'address':'10.7.0.255'               | broadcast-address",
                "/address | 'address':'10.8.0.20'                | outside-segment",
                "/address | 'address':'2001:db8::1'              | outside-segment",
                "/mac     | 'mac':'00:00:SE:00:53:2B'            | impossible-character",
                "/mac     | 'mac':'01:00:5E:00:53:2B'            | group-address",
                "/serial  | 'serial':'LW-3O418B'                 | other-pattern",
                "/place   | 'place':'PIN: 4711'                  | bad-words",
                "/outlet  | 'outlet':'=HYPERLINK(1)'             | bad-words",
                "/name    | 'name':''                            | bad-words",
                "/number  | 'number':0                           | out-of-range",
                "/partnerAddress | 'partnerName':'Desk'          | missing",
                "/kind    | 'kind':'toaster'                     | no-such-kind",
            })
    void refusesBadInput(String pointer, String field, String code) {
        long[] site = Running.site(lead);
        String base = body(site[1], "Printer", "10.7.0.20"), key = field.substring(0, field.indexOf(':'));
        String changed = base.contains(key + ":")
                ? base.replaceAll(key + ":('[^']*'|\\d+)", field)
                : base.replace("}", "," + field + "}");
        var answer = lead.post("/api/sites/" + site[0] + "/endpoints", changed).refused(422, code);
        assertThat(answer.json().get("errors").get(0).get("pointer").asString()).isEqualTo(pointer);
        assertThat(lead.get("/api/sites/" + site[0] + "/endpoints").json()).isEmpty();
    }

    @Test
    void aChangeNamesTheVersionItWasMadeFrom() {
        long[] site = Running.site(lead);
        long id = Running.till(lead, site, 1);
        lead.patch("/api/endpoints/" + id, "{'place':'Front'}").refused(428, "if-match-missing");
        lead.seen(id).patch("/api/endpoints/" + id, "{'place':'Front'}").expect(200);
        lead.patch("/api/endpoints/" + id, "{'place':'Back'}").refused(412, "changed-meanwhile");
        lead.ifMatch = "nonsense";
        lead.patch("/api/endpoints/" + id, "{'place':'Back'}").refused(400, "if-match-unreadable");
        assertThat(lead.get("/api/endpoints/" + id).json().get("place").asString())
                .isEqualTo("Front");
    }

    @DisplayName("What belongs to one living endpoint is not given to another")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "'mac':'00:00:5E:00:53:01'      | mac-taken     | 00:00:5E:00:53:01 is already registered for Till 1.",
                "'serial':'OC2-AAAA-0001'       | serial-taken  | The serial OC2-AAAA-0001 is on record for Till 1 already.",
                "'name':'TILL 1'                | name-taken    | Another endpoint of this site is called so. Choose another name.",
                "'address':'10.7.0.51'          | address-taken | 10.7.0.51 is taken by Till 1. The next free one is 10.7.0.53.",
            })
    void oneTruth(String change, String code, String message) {
        long[] site = Running.site(lead);
        Running.till(lead, site, 1);
        long second = Running.till(lead, site, 2);
        assertThat(lead.seen(second)
                        .patch("/api/endpoints/" + second, "{" + change + "}")
                        .refused(409, code)
                        .detail())
                .isEqualTo(message);
    }

    @Test
    void retiringFreesWhatItHeldAndKeepsItsLog() {
        long[] site = Running.site(lead);
        long id = Running.till(lead, site, 1);
        lead.seen(id)
                .post("/api/endpoints/" + id + "/retirement", "{'reason':''}")
                .refused(422, "bad-words");
        lead.post("/api/endpoints/" + id + "/retirement", "{'reason':'Screen broken'}")
                .expect(204);
        Running.till(lead, site, 1);
        var log = lead.get("/api/sites/" + site[0] + "/log").json();
        assertThat(log.get(1).get("action").asString()).isEqualTo("endpoint retired");
        assertThat(log.get(1).get("reason").asString()).isEqualTo("Screen broken");
        assertThat(log.get(1).get("before").get("name").asString()).isEqualTo("Till 1");
    }

    @DisplayName("The finder takes any piece in hand")
    @ParameterizedTest(name = "“{0}” finds {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "0.52 | Till 2",
                "5302 | Till 2",
                "53:02 | Till 2",
                "aaaa-0002 | Till 2",
                "till 2 | Till 2",
                "100% | ",
                "x_x | "
            })
    void finds(String piece, String name) {
        long[] site = Running.site(lead);
        Running.till(lead, site, 1);
        Running.till(lead, site, 2);
        var found = lead.get("/api/find?siteId=" + site[0] + "&q=" + URLEncoder.encode(piece, StandardCharsets.UTF_8))
                .expect(200)
                .json();
        var names = IntStream.range(0, found.size())
                .filter(i -> found.get(i).get("siteId").asLong() == site[0])
                .mapToObj(i -> found.get(i).get("name").asString())
                .toList();
        assertThat(names).isEqualTo(name == null ? List.of() : List.of(name));
    }

    @DisplayName("A segment that cannot be is refused at its field")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "'prefix':'10.7.0.128/25'                                           | 409 | /prefix   | 10.7.0.128/25 "
                        + "overlaps Shop, 10.7.0.0/24.",
                "'prefix':'10.9.0.5/24'                                             | 422 | /prefix   | 10.9.0.5/24 "
                        + "names an address inside the network, not the network itself. Did you mean 10.9.0.0/24?",
                "'prefix':'10.9.0.0/24','gateway':'10.7.0.1'                        | 422 | /gateway  | 10.7.0.1 is "
                        + "outside 10.9.0.0/24, which runs from 10.9.0.1 to 10.9.0.254. Did you mean 10.9.0.1?",
                "'prefix':'10.9.0.0/24','gateway':'10.9.0.1','pools':[{'from':'10.9.0.1','to':'10.9.0.9'}] | 422 | "
                        + "/pools/0/from | The pool covers the gateway 10.9.0.1.",
                "'prefix':'10.9.0.0/24','pools':[{'from':'10.9.0.9','to':'10.9.0.4'}] | 422 | /pools/0/to | A pool runs "
                        + "upwards: 10.9.0.4 comes before 10.9.0.9.",
                "'prefix':'10.9.0.0/24','pools':[{'from':'10.9.0.9'}] | 422 | /pools/0/to | A pool needs both ends, or neither.",
                "'prefix':'10.9.0.0/24','pools':[{'from':'10.9.0.9','to':'10.9.0.20'},{'from':'10.9.0.20',"
                        + "'to':'10.9.0.30'}] | 422 | /pools/1/from | It overlaps the pool 10.9.0.9 to 10.9.0.20.",
                "'prefix':'10.9.0.0/24','resolvers':['203.0.113.9','203.0.113.9'] | 422 | /resolvers | The second "
                        + "resolver is the same as the first: 203.0.113.9.",
                "'prefix':'10.9.0.0/24','vlan':4095 | 422 | /vlan | A VLAN id runs from 1 to 4094 (IEEE 802.1Q).",
                "'prefix':'10.9.0.0/24','prefix6':'2001:db8::7/64' | 422 | /prefix6 | 2001:db8::7/64 names an address "
                        + "inside the network. Did you mean 2001:db8::/64?",
                "'prefix':'10.9.0.0/24','prefix6':'2001:db8::/64','gateway6':'2001:db9::1' | 422 | /gateway6 | "
                        + "2001:db9::1 is outside 2001:db8::/64; a router also answers at an address that begins with "
                        + "fe80.",
                "'prefix':'10.9.0.0/24','name':'shop' | 409 | /name | Another segment of this site is called so.",
            })
    void refusesSegments(String fields, int status, String pointer, String message) {
        long[] site = Running.site(lead);
        var answer = lead.post(
                        "/api/sites/" + site[0] + "/segments",
                        fields.contains("'name'") ? "{" + fields + "}" : "{'name':'Second'," + fields + "}")
                .expect(status);
        assertThat(answer.json().get("pointer").asString()).isEqualTo(pointer);
        assertThat(answer.detail()).isEqualTo(message);
    }

    @Test
    void unknownThingsAreProblemsToo() {
        lead.get("/api/endpoints/999999").refused(404, "not-found");
        lead.get("/api/endpoints/abc").refused(400, "bad-value");
        lead.get("/api/nothing").refused(404, "http-404");
        lead.post("/api/mac/read", "{not json").refused(400, "unreadable-request");
        assertThat(lead.post("/api/mac/read", "{'text':'x','colour':'red'}")
                        .refused(400, "unreadable-request")
                        .json()
                        .get("pointer")
                        .asString())
                .isEqualTo("/colour");
    }
}
