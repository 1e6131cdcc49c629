package app.knottag.server;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.account.Role;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/**
 * Six people at two servers want at the same moment what only one of them can have: the same thing, or two things that exclude
 * one another. One gets it, and each of the others is told why not.
 */
class RacesTest {

    private static final int PEOPLE = 6;

    /** More of them in the bench. */
    private static final int ROUNDS = Integer.getInteger("knot.races", 3);

    private static final String ADDED = "{'segmentId':%d,'kind':'label-printer','name':'%s','address':'%s'}";
    private static final String ANY = "{'segmentId':%d,'kind':'label-printer','name':'%s','method':'AUTOMATIC'%s}";
    private static final String SEGMENT = "{'name':'%s','prefix':'%s','gateway':'%s','pools':[]}";
    private static final String LIST = """
            {'name':'List %d','type':'ACCESS_LIST','naming':'WORDS','longestName':40,'ownerNeeded':false,'sharing':'NONE','most':0,\
            'lifetime':0,'restart':true,'facts':['MAC','NAME'],'leadDays':0,'form':'CSV'}""";
    private static final AtomicInteger COUNT = new AtomicInteger();
    private static final TreeMap<String, Integer> TOLD = new TreeMap<>();
    private static Running.Second second;
    private static ExecutorService pool;
    private static long[] site;

    private final List<Api> people = new ArrayList<>();

    @BeforeAll
    static void another() {
        second = new Running.Second();
        pool = Executors.newFixedThreadPool(PEOPLE);
        site = Running.site(Running.as(Role.LEAD));
    }

    @AfterAll
    static void ends() {
        second.close();
        pool.shutdown();
    }

    @BeforeEach
    void sixOfThem() {
        var here = Running.as(Role.LEAD);
        for (int n = 0; n < PEOPLE; n++) people.add(here.at(n % 2 == 0 ? Running.url() : second.url()));
    }

    /** What one of them does; the six begin at the same moment. */
    private interface Try {
        Api.Answer by(Api api, int person);
    }

    private enum Race {
        ADDRESS("address-taken"),
        MAC("mac-taken"),
        NAME("name-taken"),
        SERIAL("serial-taken"),
        SITE_CODE("code-taken"),
        SEGMENT("segment-overlap"),
        INVITATION("invitation-gone"),
        CHANGE("changed-meanwhile"),
        STEP("changed-meanwhile"),
        SHEET("changed-meanwhile"),
        SWAP("changed-meanwhile", "swap-running"),
        RENUMBERING("renumbering"),
        ENTRY("registered", "MAC_REGISTERED"),
        ACT("changed-meanwhile"),
        PERSON("at-another-visit"),
        ENDPOINT_OR_GATEWAY("is-gateway", "gateway-taken", "address-taken", "changed-meanwhile"),
        ENDPOINT_OR_PARTNER("address-taken", "name-taken", "number-taken"),
        ENDPOINT_OR_NO_SEGMENT("segment-removed", "in-use", "changed-meanwhile", "name-taken", "not-found");

        private final Set<String> losers;

        Race(String... losers) {
            this.losers = Set.of(losers);
        }
    }

    @DisplayName("One gets it, and the others are told why not")
    @ParameterizedTest
    @EnumSource
    void oneWins(Race race) throws Exception {
        for (int round = 0; round < ROUNDS; round++) {
            var one = contest(race, COUNT.incrementAndGet());
            var together = new CyclicBarrier(PEOPLE);
            var all = new ArrayList<Callable<Api.Answer>>();
            for (int n = 0; n < PEOPLE; n++) {
                int person = n;
                all.add(() -> {
                    together.await();
                    return one.by(people.get(person), person);
                });
            }
            var answers = new ArrayList<Api.Answer>();
            for (var answer : pool.invokeAll(all)) answers.add(answer.get());
            var what = race + ", round " + round + ": "
                    + answers.stream().map(Api.Answer::body).toList();
            assertThat(answers.stream().filter(a -> a.status() < 300)).as(what).hasSize(1);
            for (var answer : answers)
                if (answer.status() >= 300) {
                    assertThat(answer.status()).as(what).isBetween(404, 428);
                    assertThat(race.losers).as(what).contains(answer.code());
                    TOLD.merge(answer.code(), 1, Integer::sum);
                }
        }
    }

    private Try contest(Race race, int n) {
        var lead = people.get(0);
        String path = "/api/sites/" + site[0], endpoints = path + "/endpoints";
        String free = "10.7.0." + (2 + n % 20), name = "Race " + n;
        return switch (race) {
            case ADDRESS -> {
                long[] own = Running.site(lead);
                yield (api, person) -> api.post(
                        "/api/sites/" + own[0] + "/endpoints", ADDED, own[1], name + " of " + person, "10.7.0.77");
            }
            case MAC ->
                (api, person) -> api.post(
                        endpoints,
                        ANY,
                        site[1],
                        name + " of " + person,
                        String.format(",'mac':'00:00:5E:00:53:%02X'", n % 256));
            case NAME ->
                (api, person) -> api.post(endpoints, ANY, site[1], person % 2 == 0 ? name : name.toUpperCase(), "");
            case SERIAL ->
                (api, person) -> api.post(
                        endpoints, ANY, site[1], name + " of " + person, String.format(",'serial':'LW-%05dA'", n));
            case SITE_CODE -> {
                String code = "R" + (char) ('A' + n / 26 % 26) + (char) ('A' + n % 26);
                yield (api, person) -> api.post(
                        "/api/sites", "{'name':'%s of %d','code':'%s','zone':'Europe/Berlin'}", name, person, code);
            }
            case SEGMENT -> {
                long[] own = Running.site(lead);
                yield (api, person) -> api.post(
                        "/api/sites/" + own[0] + "/segments",
                        SEGMENT,
                        "Net " + person,
                        "10.9.0.0/" + (20 + person),
                        "10.9.0.1");
            }
            case INVITATION -> {
                String token = lead.post("/api/invitations", "{'role':'TECHNICIAN'}")
                        .expect(201)
                        .json()
                        .get("path")
                        .asString()
                        .replace("/join/", "");
                var doors = IntStream.range(0, PEOPLE)
                        .mapToObj(i -> i % 2 == 0
                                ? Running.stranger()
                                : Running.stranger().at(second.url()))
                        .toList();
                yield (api, person) -> doors.get(person)
                        .post(
                                "/api/invitations/acceptance",
                                "{'token':'%s','name':'Racer %s %d','password':'%s'}",
                                token,
                                name,
                                person,
                                Running.PASSWORD);
            }
            case CHANGE -> {
                long id = added(name);
                people.forEach(p -> p.seen(id));
                yield (api, person) -> api.patch("/api/endpoints/" + id, "{'model':'M-%d'}", person);
            }
            case STEP -> {
                long id = till(n);
                people.forEach(p -> p.seen(id));
                yield (api, person) -> api.put(
                        "/api/endpoints/" + id + "/runbook/steps/unpack",
                        "{'action':'OVERRIDE','reason':'Seen by %d'}",
                        person);
            }
            case SHEET -> {
                people.forEach(p -> p.seenSite(site[0]));
                yield (api, person) -> api.put(path + "/places/0", "{'name':'%s of %d','walk':1}", name, person);
            }
            case SWAP -> {
                long id = till(n);
                people.forEach(p -> p.seen(id));
                yield (api, person) -> api.post(
                        "/api/endpoints/" + id + "/swaps",
                        "{'mac':'00:00:5e:00:53:a%d','serial':'OC2-BBBB-000%d','reason':'Its screen is broken'}",
                        person,
                        person);
            }
            case RENUMBERING -> {
                long[] own = Running.site(lead);
                yield (api, person) -> api.post(
                        "/api/sites/" + own[0] + "/segments/" + own[1] + "/renumberings",
                        "{'prefix':'10.7.0.0/24','gateway':'10.7.0.25%d','pools':[]}",
                        person % 4);
            }
            case ENTRY -> {
                long id = added(name, mac(n)), list = registry(n);
                yield (api, person) -> api.post("/api/registries/" + list + "/registrations", "{'endpointId':%d}", id);
            }
            case ACT -> {
                long id = added(name, mac(n)), list = registry(n);
                lead.post("/api/registries/" + list + "/registrations", "{'endpointId':%d}", id)
                        .expect(201);
                var line = lead.get("/api/endpoints/" + id + "/registrations")
                        .expect(200)
                        .json()
                        .valueStream()
                        .filter(l -> l.get("registryId").asLong() == list)
                        .findFirst()
                        .orElseThrow();
                people.forEach(p -> p.ifMatch = "\"" + line.get("version").asInt() + "\"");
                yield (api, person) ->
                        api.post("/api/registrations/" + line.get("id").asLong() + "/acts", "{'act':'ENTER'}");
            }
            case PERSON -> {
                long id = added(name);
                yield (api, person) -> api.post(
                        path + "/visits",
                        "{'name':'%s of %d','begins':'2031-11-25 06:00','walk':1,'people':[{'name':'Mira %1$s','skills':[]}],"
                                + "'units':[{'endpointId':%3$d,'bench':true,'first':false}]}",
                        name,
                        person,
                        id);
            }
            case ENDPOINT_OR_GATEWAY -> {
                long[] own = Running.site(lead);
                people.forEach(p -> p.seenSite(own[0]));
                yield (api, person) -> person % 2 == 0
                        ? api.post("/api/sites/" + own[0] + "/endpoints", ADDED, own[1], name + " of " + person, free)
                        : api.put("/api/sites/" + own[0] + "/segments/" + own[1], SEGMENT, "Shop", "10.7.0.0/24", free);
            }
            case ENDPOINT_OR_PARTNER -> {
                long[] own = Running.site(lead);
                yield (api, person) -> person % 2 == 0
                        ? api.post("/api/sites/" + own[0] + "/endpoints", ADDED, own[1], name + " of " + person, free)
                        : api.post(
                                "/api/sites/" + own[0] + "/endpoints",
                                "{'segmentId':%d,'kind':'counter-payment-terminal','number':7,'name':'Till 7',"
                                        + "'partnerName':'Desk','partnerAddress':'%s','partnerTestPort':7500}",
                                own[1],
                                free);
            }
            case ENDPOINT_OR_NO_SEGMENT -> {
                long[] own = Running.site(lead);
                long segment = lead.post(
                                "/api/sites/" + own[0] + "/segments", SEGMENT, "Back", "10.8.0.0/24", "10.8.0.1")
                        .expect(201)
                        .json()
                        .get("id")
                        .asLong();
                people.forEach(p -> p.seenSite(own[0]));
                yield (api, person) -> person % 2 == 0
                        ? api.post("/api/sites/" + own[0] + "/endpoints", ANY, segment, name, "")
                        : api.delete("/api/sites/" + own[0] + "/segments/" + segment);
            }
        };
    }

    private static String mac(int n) {
        return String.format(",'mac':'00:00:5E:01:%02X:%02X'", n / 256, n % 256);
    }

    private long added(String name, String... more) {
        return people.get(0)
                .post("/api/sites/" + site[0] + "/endpoints", ANY, site[1], name, String.join("", more))
                .expect(201)
                .json()
                .get("id")
                .asLong();
    }

    private long till(int n) {
        return Running.till(people.get(0), Running.site(people.get(0)), 1 + n % 40);
    }

    private long registry(int n) {
        return people.get(0)
                .seenSite(site[0])
                .put("/api/sites/" + site[0] + "/registries/0", LIST, n)
                .expect(200)
                .json()
                .get("id")
                .asLong();
    }

    @AfterAll
    static void say() {
        int races = ROUNDS * Race.values().length;
        System.out.printf(
                "| %-38s | %12s | %-20s | %s |%n",
                "raced for, six people at two servers",
                "1 winner",
                "of each of " + races,
                "told to the others: " + TOLD);
    }
}
