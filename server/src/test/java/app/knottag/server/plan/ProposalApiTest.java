package app.knottag.server.plan;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.stream.IntStream;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** What is proposed for a new endpoint, and what may be overruled. */
class ProposalApiTest {

    private final Api lead = Running.as(Role.LEAD);
    private long[] site = Running.site(lead);

    private String path(String rest) {
        return "/api/sites/" + site[0] + rest;
    }

    private Api sheet() {
        lead.ifMatch = lead.get(path("/sheet"))
                .expect(200)
                .response()
                .headers()
                .firstValue("ETag")
                .orElseThrow();
        return lead;
    }

    private long series(String body) {
        return sheet().put(path("/series/0"), body).expect(200).json().get("id").asLong();
    }

    private JsonNode propose(String query) {
        return lead.get(path("/proposal?segmentId=" + site[1] + "&" + query))
                .expect(200)
                .json();
    }

    private static List<String> texts(JsonNode array) {
        return StreamSupport.stream(array.spliterator(), false)
                .map(JsonNode::asString)
                .toList();
    }

    @DisplayName("A place on the tape brings its number along, or none at all")
    @ParameterizedTest(name = "host {0}, asked {1}: number {2} at {3}")
    @CsvSource(
            nullValues = "-",
            value = {
                "57,  -,        7, 10.7.0.57",
                "77,  -,        -, 10.7.0.77",
                "51,  -,        2, 10.7.0.52",
                "140, -,        2, 10.7.0.52",
                "77,  number=5, 5, 10.7.0.77",
                "-,   number=5, 5, 10.7.0.55",
                "9999,-,        2, 10.7.0.52",
            })
    void placesOnTheTape(Integer host, String asked, Integer number, String address) {
        Running.till(lead, site, 1);
        series("{'name':'PIN pad','counts':'HOST','segmentId':" + site[1]
                + ",'base':70,'portBase':0,'last':15,'perYear':0}");
        var proposal = propose("kind=counter-payment-terminal" + (host == null ? "" : "&host=" + host)
                + (asked == null ? "" : "&" + asked));
        assertThat(
                        proposal.get("number").isNull()
                                ? null
                                : (Integer) proposal.get("number").asInt())
                .isEqualTo(number);
        assertThat(proposal.get("address").asString()).isEqualTo(address);
    }

    @DisplayName("Who keeps the address follows the segment, unless that cannot work")
    @ParameterizedTest(name = "{0}, can reserve {1}: {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "FIXED     | true  | FIXED    | Fixed on the device, outside the pool: it survives another router. "
                        + "Workstations print to it, so its address must not move.",
                "RESERVED  | true  | RESERVED | Reserved by its MAC, as in this whole segment: it survives a factory reset.",
                "RESERVED  | false | FIXED    | The DHCP server here cannot reserve, so the device keeps its own "
                        + "address. Workstations print to it, so its address must not move.",
                "AUTOMATIC | true  | RESERVED | Something connects to it, so its address must stay: reserved by its MAC.",
            })
    void methods(String habit, boolean canReserve, String method, String reason) {
        sheet().put(
                        path("/segments/" + site[1]),
                        "{'name':'Shop','prefix':'10.7.0.0/24','gateway':'10.7.0.1','method':'%s','canReserve':%s}",
                        habit,
                        canReserve)
                .expect(204);
        var proposal = propose("kind=copier");
        assertThat(proposal.get("method").asString()).isEqualTo(method);
        assertThat(texts(proposal.get("reasons"))).contains(reason);
    }

    @Test
    void onePartnerForAllGivesEachItsOwnListeningPortAndTheKioskItsLanPort() {
        long till = sheetSeries("Till");
        series("{'name':'Listening','counts':'LISTENING_PORT','followsId':" + till
                + ",'base':7500,'portBase':0,'last':0,'perYear':0}");
        long gear = sheet().put(
                        path("/gear/0"),
                        "{'name':'Till "
                                + "switch','type':'SWITCH','ports':[{'number':1,'role':'UPLINK','poe':false},"
                                + "{'number':2,'role':'LAN','poe':false},{'number':3,'role':'LAN',"
                                + "'poe':false}]}")
                .expect(200)
                .json()
                .get("id")
                .asLong();
        series("{'name':'Till cable','counts':'GEAR_PORT','gearId':" + gear + ",'followsId':" + till
                + ",'base':0,'portBase':0,'last':0,'perYear':0}");
        Running.till(lead, site, 1);
        lead.post(
                        path("/endpoints"),
                        "{'segmentId':%d,'kind':'copier','name':'Copier','address':'10.7.0.40','partnerName':'Till 2 "
                                + "server','partnerAddress':'10.7.0.30'}",
                        site[1])
                .expect(201);
        var proposal = propose("kind=counter-payment-terminal");
        assertThat(proposal.get("number").asInt()).isEqualTo(2);
        assertThat(proposal.get("partnerName").asString()).isEqualTo("Till 2 server");
        assertThat(proposal.get("partnerPort").asInt()).isEqualTo(7502);
        assertThat(proposal.get("switchPort").asString()).isEqualTo("Till switch 3");
        assertThat(propose("kind=counter-payment-terminal&number=3")
                        .get("switchPort")
                        .asString())
                .isEmpty();
    }

    @DisplayName("Tills that all hang on one server are joined by the next one, which listens on a port of its own")
    @Test
    void aServerOfAllTillsIsThePartnerOfTheNext() {
        for (int n = 1; n <= 2; n++)
            lead.post(
                            path("/endpoints"),
                            "{'segmentId':%d,'kind':'counter-payment-terminal','number':%d,'name':'Till %d',"
                                    + "'address':'10.7.0.%d','partnerName':'Terminal server','partnerAddress':'10.7.0.30'}",
                            site[1],
                            n,
                            n,
                            50 + n)
                    .expect(201);
        var proposal = propose("kind=counter-payment-terminal");
        assertThat(proposal.get("number").asInt() + " "
                        + proposal.get("partnerName").asString() + " "
                        + proposal.get("partnerAddress").asString() + " "
                        + proposal.get("servicePort").asInt())
                .isEqualTo("3 Terminal server 10.7.0.30 7453");
    }

    private long sheetSeries(String name) {
        return StreamSupport.stream(
                        lead.get(path("/sheet")).json().get("series").spliterator(), false)
                .filter(s -> s.get("name").asString().equals(name))
                .findFirst()
                .orElseThrow()
                .get("id")
                .asLong();
    }

    @Test
    void anotherNamingRuleAndASegmentThatIsFull() {
        sheet().put(path(""), "{'name':'Surgery %d','zone':'UTC','nameRule':'{place}-{kind}{number}'}", site[0])
                .expect(204);
        assertThat(propose("kind=copier&place=Reception%20desk").get("hostName").asString())
                .isEqualTo("reception-copy1");
        long small = lead.post(
                        path("/segments"),
                        "{'name':'Small','prefix':'10.8.0.0/30','gateway':'10.8.0.1','pools':[{'from':'10.8.0.2','to':'10.8.0.2'}]}")
                .expect(201)
                .json()
                .get("id")
                .asLong();
        var refused = lead.get(path("/proposal?kind=copier&segmentId=" + small))
                .expect(200)
                .json();
        assertThat(refused.get("address").isNull()).isTrue();
        assertThat(refused.get("refused").asString())
                .isEqualTo("No address is left to fix in 10.8.0.0/30: every one is taken or in a pool.");
        assertThat(refused.get("leastChange").asString()).startsWith("Shorten the pool 10.8.0.2 to 10.8.0.2");
    }

    @DisplayName("What is typed beside the proposal is judged")
    @ParameterizedTest(name = "{0}: {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "'hostName':'Front_Desk'        | 422 | /hostName   | A host name has small letters, digits and "
                        + "hyphens, no hyphen at an end: “front_desk”.",
                "'hostName':'a-name-far-too-long' | 422 | /hostName | A host name has at most 15 characters; "
                        + "“a-name-far-too-long” has 19. Old file sharing would cut it.",
                "'switchPort':'Shop switch'     | 422 | /switchPort | Name the gear and the number of its port, such as “Shop switch 11”.",
                "'partnerName':'Till PC'        | 422 | /partnerAddress | Type the partner's address.",
                "'place':'password is hunter2!' | 422 | /place      | This looks like a password, PIN or key. Knot Tag "
                        + "keeps no secrets: write down only where it is kept.",
                "'hostName':'taken'             | 409 | /hostName   | First has the host name taken. Leave it empty to have one made.",
            })
    void judges(String fields, int status, String pointer, String message) {
        String first = "{'segmentId':%d,'kind':'copier','name':'%s','address':'%s',%s}";
        lead.post(path("/endpoints"), String.format(first, site[1], "First", "10.7.0.40", "'hostName':'taken'"))
                .expect(201);
        var answer = lead.post(
                        path("/endpoints"),
                        String.format(first, site[1], "Second", "10.7.0.41", fields)
                                .replace("%", "%%"))
                .expect(status);
        assertThat(answer.json().get("errors").get(0).get("pointer").asString()).isEqualTo(pointer);
        assertThat(answer.detail()).isEqualTo(message);
        assertThat(lead.get(path("/endpoints")).json()).hasSize(1);
    }

    @Test
    void twoWhoMakeTheSameEightAtOnceMakeEight() {
        String body = String.format("{'kind':'counter-payment-terminal','segmentId':%d,'numbers':'1 to 8'}", site[1]);
        var answers = IntStream.range(0, 3)
                .mapToObj(i -> CompletableFuture.supplyAsync(
                        () -> Running.as(Role.TECHNICIAN).post(path("/endpoint-batches?preview=false"), body)))
                .toList()
                .stream()
                .map(CompletableFuture::join)
                .toList();
        assertThat(answers).filteredOn(a -> a.status() == 200).hasSize(1);
        assertThat(answers).filteredOn(a -> a.status() == 409).hasSize(2);
        assertThat(lead.get(path("/endpoints")).json()).hasSize(8);
    }

    @Test
    void anotherShopIsLaidOutAlike() {
        long other = lead.post(
                        "/api/sites", "{'name':'Copy of %d','code':'C%s','zone':'UTC'}", site[0], letters(site[0]))
                .expect(201)
                .json()
                .get("id")
                .asLong();
        var filled = lead.get("/api/schemes/" + site[1] + "?prefix=10.7.1.0/24")
                .expect(200)
                .json();
        assertThat(filled.get("gateway").asString()).isEqualTo("10.7.1.1");
        assertThat(filled.get("resolvers").get(0).asString()).isEqualTo("10.7.1.1");
        assertThat(filled.get("pools").get(0).get("to").asString()).isEqualTo("10.7.1.199");
        assertThat(texts(filled.get("series"))).containsExactly("Till");
        assertThat(lead.get("/api/schemes/" + site[1] + "?prefix=10.7.1.0/25")
                        .expect(422)
                        .detail())
                .startsWith("This scheme is for a /24, the prefix found is 10.7.1.0/25");
        lead.get("/api/schemes/" + site[1] + "?prefix=10.7").refused(422, "bad-prefix");
        lead.post(
                        "/api/sites/" + other + "/segments",
                        "{'name':'Shop','prefix':'10.7.1.0/24','likeSegmentId':%d}",
                        site[1])
                .expect(201);
        assertThat(lead.get("/api/sites/" + other + "/sheet")
                        .json()
                        .get("series")
                        .get(0)
                        .get("hostBase")
                        .asInt())
                .isEqualTo(50);
    }

    private static String letters(long n) {
        return "" + (char) ('A' + n / 26 % 26) + (char) ('A' + n % 26) + 'X';
    }
}
