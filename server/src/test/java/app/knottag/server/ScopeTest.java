package app.knottag.server;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.account.Role;
import app.knottag.server.record.SiteOfStore;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/**
 * Whoever works at some sites learns nothing of another, by whichever address they ask: every route of the published description
 * is asked, and what is answered is searched for a name that stands everywhere at the other site.
 */
class ScopeTest {

    private static final String NAME = "Zephyrine";
    private static final String VISIT =
            "{'name':'%s day','begins':'2031-11-25 06:00','walk':1,'people':[{'name':'Mira %s','skills':[]}],"
                    + "'units':[{'endpointId':%d,'bench':true,'first':false}]}";
    private static final Map<String, String> TABLES = Map.of(
            "gear", "gear",
            "interfaces", "interface",
            "nights", "night",
            "packs", "signed_pack",
            "registrations", "registration",
            "registries", "registry",
            "renumberings", "renumbering",
            "swaps", "swap",
            "visits", "visit");
    private static final String PASSWORD = "heron under seven bridges";

    /** What addresses name that belongs to no site. */
    private static final Set<String> OF_NO_SITE = Set.of(
            "bench-panel",
            "firmware-faults",
            "invitations",
            "kinds",
            "label-grids",
            "letters",
            "people",
            "practice",
            "worksheets");

    /** A site with a till that is asked for twice, and with what hangs on it. */
    private record Place(long[] site, Map<String, Long> ids) {
        String in(String path) {
            for (var id : ids.entrySet())
                path = path.replaceFirst("/" + id.getKey() + "/\\{[A-Za-z]+}", "/" + id.getKey() + "/" + id.getValue());
            return path.replace("{segmentId}", "" + site[1])
                    .replace("{endpointId}", "" + ids.get("endpoints"))
                    .replace("{type}", "TECHNICIAN")
                    .replaceAll("\\{[A-Za-z]+}", "1");
        }
    }

    private static final Api LEAD = Running.as(Role.LEAD);
    private static final Api HERS = new Api(Running.url());
    private static Place mine, other;
    private static String tag, feed;

    @BeforeAll
    static void twoSites() throws Exception {
        HERS.get("/api/welcome");
        Running.join("Mo Twoshops", Role.TECHNICIAN, PASSWORD);
        HERS.post("/api/session", "{'name':'Mo Twoshops','password':'%s'}", PASSWORD)
                .expect(200);
        mine = place("Anemone");
        other = place(NAME);
        tag = LEAD.get("/api/endpoints/" + other.ids().get("endpoints"))
                .json()
                .get("tagCode")
                .asString();
        feed = HERS.post("/api/sites/" + other.site()[0] + "/calendar-feeds", "{}")
                .expect(201)
                .json()
                .get("path")
                .asString();
        HERS.get(feed).expect(200);
        works(false, mine.site()[0]).expect(204);
    }

    private static Api.Answer works(boolean everywhere, long... sites) {
        return works("TECHNICIAN", everywhere, sites);
    }

    private static Api.Answer works(String role, boolean everywhere, long... sites) {
        JsonNode mo = LEAD.get("/api/people")
                .json()
                .valueStream()
                .filter(p -> p.get("name").asString().equals("Mo Twoshops"))
                .findFirst()
                .orElseThrow();
        LEAD.ifMatch = "\"" + mo.get("version").asInt() + "\"";
        return LEAD.put(
                "/api/people/" + mo.get("id").asLong(),
                "{'role':'%s','closed':false,'everySite':%s,'sites':%s}",
                role,
                everywhere,
                java.util.Arrays.toString(sites));
    }

    /** One where whatever can be named is there once, and called after it. */
    private static Place place(String name) throws Exception {
        var site = Running.site(LEAD);
        long endpoint = Running.till(LEAD, site, 7);
        Running.till(LEAD, site, 8);
        LEAD.contentType = "text/plain";
        LEAD.send(
                        "POST",
                        "/api/sites/" + site[0] + "/intakes?source=NEIGHBOURS&preview=false&make=false",
                        "10.7.0.57 00:00:5e:00:53:07\n10.7.0.99 00:00:5e:00:53:99\n")
                .expect(200);
        LEAD.contentType = "application/json";
        LEAD.post("/api/sites/" + site[0] + "/visits", VISIT, name, name, endpoint)
                .expect(201);
        LEAD.seen(endpoint)
                .post(
                        "/api/endpoints/" + endpoint + "/swaps",
                        "{'mac':'00:00:5e:00:53:a7','serial':'OC2-BBBB-0001','reason':'Its screen is broken'}")
                .expect(201);
        LEAD.post("/api/sites/" + site[0] + "/segments/" + site[1] + "/renumberings", """
                        {'prefix':'10.7.0.0/24','gateway':'10.7.0.254','pools':[{'from':'10.7.0.100','to':'10.7.0.199'}]}""")
                .expect(201);
        Running.write("""
                update site set name = '%2$s shop' where id = %1$d;
                update segment set name = '%2$s net' where site_id = %1$d;
                update endpoint set name = '%2$s ' || name, status = 'FAILED' where site_id = %1$d;
                update endpoint set station = 'CONFIRM', confirmed_at = now() - interval '9 years'
                  where site_id = %1$d and name like '%%8';
                insert into sign_off (endpoint_id, grade, note, at, by)
                  select id, 'FAIR', '', confirmed_at, '%2$s' from endpoint where site_id = %1$d and confirmed_at is not null;
                insert into step (endpoint_id, key, status, started_at, evidence, findings, reason, by, tries, restarts)
                  values (%3$d, 'restart', 'ACTIVE', now(), '{}', '[]', '', 'lead', 0, 0);
                insert into registry (site_id, name, type, rules) values (%1$d, '%2$s list', 'ACCESS_LIST',
                  '{"naming":"WORDS","longestName":40,"ownerNeeded":false,"sharing":"NONE","most":0,"lifetime":null,"restart":true,\
                "facts":["MAC","NAME"],"models":[],"waitsFor":"","leadDays":0,"form":"CSV"}');
                insert into registration (registry_id, site_id, endpoint_id, name, asked_at)
                  select id, site_id, %3$d, '%2$s line', now() from registry where site_id = %1$d;
                insert into gear (site_id, name, type) values (%1$d, '%2$s switch', 'SWITCH');
                insert into night (site_id, morning, by, started_at, ended_at) values (%1$d, current_date, '%2$s', now(), now());
                insert into signed_pack (site_id, type, signer, at, by, log_id, endpoints, document, sha256)
                  values (%1$d, 'CLIENT', '%2$s', now(), 'lead', 1, 1, '%2$s', '');
                """.formatted(site[0], name, endpoint));
        var ids =
                new TreeMap<>(Map.of("sites", site[0], "segments", site[1], "schemes", site[1], "endpoints", endpoint));
        for (var table : TABLES.entrySet()) ids.put(table.getKey(), latest(table.getValue(), site[0]));
        LEAD.put("/api/firmware-faults", "{'kind':'counter-payment-terminal','mendedIn':'2.4','what':'It hangs'}")
                .expect(200);
        return new Place(site, ids);
    }

    private static long latest(String table, long site) throws Exception {
        try (var db = Running.database("knot_owner");
                var row = db.createStatement()
                        .executeQuery("select max(id) from " + table + " where site_id = " + site)) {
            row.next();
            return row.getLong(1);
        }
    }

    private record Route(String method, String path, String type) {
        String names() {
            return path.split("/")[2];
        }
    }

    private static List<Route> routes() {
        var all = new ArrayList<Route>();
        for (var path : Described.API.get("paths").propertyNames())
            for (var method : Described.API.get("paths").get(path).propertyNames()) {
                var body = Described.API.get("paths").get(path).get(method).at("/requestBody/content");
                all.add(new Route(
                        method.toUpperCase(Locale.ROOT),
                        path,
                        body.isMissingNode()
                                ? "application/json"
                                : body.propertyNames().iterator().next()));
            }
        return all;
    }

    private static Api.Answer ask(Api api, Route route, String path) {
        api.meansWell = false;
        api.ifMatch = "\"1\"";
        api.contentType = route.type();
        try {
            return api.send(route.method(), path, route.method().equals("GET") ? "" : "{}");
        } finally {
            api.meansWell = true;
            api.contentType = "application/json";
        }
    }

    @DisplayName("Whatever an address names is of a site, or of none; nobody has to remember to ask whose it is")
    @Test
    void eachIsOfASiteOrOfNone() {
        var named = routes().stream()
                .filter(r -> r.path().matches("/api/[^/]+/\\{.*"))
                .map(Route::names)
                .collect(Collectors.toSet());
        assertThat(named).containsAll(OF_NO_SITE).containsAll(SiteOfStore.OF_A_SITE.keySet());
        named.removeAll(OF_NO_SITE);
        assertThat(named)
                .isEqualTo(SiteOfStore.OF_A_SITE.keySet())
                .isEqualTo(other.ids().keySet());
    }

    @DisplayName("What is at another site is answered, word for word, like what nobody has, whatever is done to it")
    @Test
    void notThere() {
        var nowhere = new Place(mine.site(), new TreeMap<>(other.ids()));
        nowhere.ids().replaceAll((what, id) -> 999_999_999L);
        var tried = new TreeSet<String>();
        for (var route : routes()) {
            if (!SiteOfStore.OF_A_SITE.containsKey(route.names())
                    || !route.path().contains("{")) continue;
            var answer = ask(HERS, route, other.in(route.path()));
            String what = route.method() + " " + route.path() + ": " + answer.body();
            // What only leads may do is refused before anybody looks what it is.
            if (answer.status() == 403) continue;
            assertThat(answer.status()).as(what).isEqualTo(404);
            assertThat(answer.detail())
                    .as(what)
                    .isEqualTo(ask(HERS, route, nowhere.in(route.path())).detail());
            tried.add(route.method() + " " + route.path());
        }
        assertThat(tried).hasSizeGreaterThan(150);
    }

    @DisplayName("What is hers she sees as a lead does; of the other site no answer has so much as a name")
    @Test
    void noNameIsTold() {
        var told = new TreeSet<String>();
        int seen = 0;
        for (var route : routes()) {
            if (!route.method().equals("GET") || route.path().equals("/api/live")) continue;
            for (var asked : asked(mine.in(route.path()))) {
                var lead = ask(LEAD, route, asked);
                var hers = ask(HERS, route, asked);
                assertThat(lead.status()).as(asked).isLessThan(500);
                if (hers.status() != 403) assertThat(hers.status()).as(asked).isEqualTo(lead.status());
                if (hers.status() == 200) seen++;
                assertThat(hers.body()).as(asked).doesNotContain(NAME);
                if (lead.body().contains(NAME)) told.add(route.path());
            }
        }
        assertThat(seen).isGreaterThan(70);
        assertThat(told)
                .as("what tells a lead of several sites")
                .contains(
                        "/api/find",
                        "/api/running",
                        "/api/schemes",
                        "/api/sites",
                        "/api/sites/{siteId}/firmware",
                        "/api/sites/{siteId}/past",
                        "/api/sites/{siteId}/rechecks",
                        "/api/today",
                        "/api/visits");
    }

    /** What an address wants to be asked with. */
    private static List<String> asked(String path) {
        if (path.equals("/api/find"))
            return List.of(path + "?q=till", path + "?q=" + NAME, path + "?q=00:00:5e:00:53:07");
        if (path.endsWith("/past")) return List.of(path + "?of=00:00:5E:00:53:99", path + "?of=10.7.0.57");
        if (path.endsWith("/proposal"))
            return List.of(path + "?kind=counter-payment-terminal&segmentId=" + mine.site()[1]);
        if (path.endsWith("/free")) return List.of(path + "?address=10.7.0.57");
        if (path.endsWith("/impact")) return List.of(path + "?change=PROVIDER&subject=LINE:");
        if (path.endsWith("/list")) return List.of(path + "?form=CSV&onlyChanges=false");
        if (path.startsWith("/api/schemes/")) return List.of(path + "?prefix=10.9.0.0/24");
        return List.of(path);
    }

    @DisplayName("No other way to write a number leads to another site")
    @ParameterizedTest
    @CsvSource({"0x%x", "%%3%d", "%%20%d", "+%d", "00%d", "%d;a=b", "%d%%20", "-0%d"})
    void otherWaysToWriteIt(String written) {
        long id = other.ids().get("endpoints");
        String number = written.startsWith("%%3")
                ? id < 10 ? "%3" + id : "%3" + ("" + id).charAt(0) + ("" + id).substring(1)
                : written.formatted(id);
        assertThat(HERS.get("/api/endpoints/" + number).status()).isIn(400, 404);
        assertThat(HERS.get("/api/endpoints/" + number + "/runbook").body()).doesNotContain(NAME);
    }

    @DisplayName("A number of the other site in what is sent leads nowhere either")
    @ParameterizedTest(name = "{0} {1}")
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "/api/sites/%1$d/segments | {'name':'New','prefix':'10.8.0.0/24','likeSegmentId':%4$d} | 404",
                "/api/sites/%1$d/endpoints | {'segmentId':%4$d,'kind':'label-printer','name':'x'} | 404",
                "/api/mac/read | {'text':'00:00:5e:00:53:07','siteId':%3$d,'endpointId':%5$d} | 404",
                "/api/serial/read | {'text':'OC2-AAAA-0007','kind':'counter-payment-terminal','siteId':%3$d,'endpointId':0} | 404",
                "/api/address/read | {'text':'10.7.0.57','purpose':'ADDRESS','segmentId':%4$d} | 404",
                "/api/registries/%2$d/registrations | {'endpointId':%5$d,'name':'x'} | 404",
                "/api/registries/%2$d/judgement | {'endpointId':%5$d,'name':'x'} | 404",
                "/api/sites/%1$d/case | {'members':[{'endpointId':%5$d,'word':'SILENT'}],'answers':[]} | 404",
            })
    void bodies(String path, String body, int status) {
        HERS.meansWell = false;
        Object[] ids = {
            mine.site()[0],
            mine.ids().get("registries"),
            other.site()[0],
            other.site()[1],
            other.ids().get("endpoints")
        };
        var answer = HERS.post(
                path.strip().formatted(ids), body.strip().formatted(ids).replace("%", "%%"));
        HERS.meansWell = true;
        assertThat(answer.status()).as(answer.body()).isIn(status, 422);
        assertThat(answer.body()).doesNotContain(NAME);
    }

    @DisplayName("A tag of the other site, its calendar and its MAC tell her nothing but that it is elsewhere")
    @Test
    void elsewhere() {
        assertThat(HERS.get("/api/tag?code=" + tag).refused(404, "not-found").body())
                .doesNotContain(NAME);
        LEAD.get("/api/tag?code=" + tag).expect(200);
        new Api(Running.url()).get(feed).expect(404);
        var said = HERS.post(
                        "/api/mac/read",
                        "{'text':'00:00:5e:00:53:08','siteId':%d,'endpointId':%d}",
                        mine.site()[0],
                        mine.ids().get("endpoints"))
                .expect(200);
        assertThat(said.body())
                .contains("is on record at a site where you do not work")
                .doesNotContain(NAME);
        // Busy there, and nobody is told with what.
        assertThat(HERS.post(
                                "/api/sites/" + mine.site()[0] + "/visits",
                                VISIT,
                                "Also",
                                NAME,
                                mine.ids().get("endpoints"))
                        .refused(422, "at-another-visit")
                        .detail())
                .contains("is at another visit at that time");
        HERS.post(
                        "/api/sites/" + mine.site()[0] + "/visits",
                        VISIT,
                        "Further",
                        "Nobody",
                        other.ids().get("endpoints"))
                .refused(422, "not-here");
    }

    @DisplayName("A visit that goes to both sites is seen by whoever works at both")
    @Test
    void both() throws Exception {
        long visit = LEAD.post(
                        "/api/sites/" + mine.site()[0] + "/visits",
                        VISIT.replace("2031", "2032"),
                        "Round",
                        "Ida",
                        other.ids().get("endpoints"))
                .expect(201)
                .json()
                .get("id")
                .asLong();
        HERS.get("/api/visits/" + visit).refused(404, "not-found");
        assertThat(HERS.get("/api/sites/" + mine.site()[0] + "/visits").body()).doesNotContain("Round");
        assertThat(HERS.get("/api/today").body()).doesNotContain("Round");
        works(false, mine.site()[0], other.site()[0]).expect(204);
        HERS.get("/api/visits/" + visit).expect(200);
        assertThat(HERS.get("/api/sites/" + mine.site()[0] + "/visits").body()).contains("Round");
        assertThat(HERS.get("/api/sites").json()).hasSize(2);
        works(true).expect(204);
        assertThat(HERS.get("/api/sites").json())
                .hasSizeGreaterThanOrEqualTo(2)
                .hasSameSizeAs(LEAD.get("/api/sites").json());
        works(false, mine.site()[0]).expect(204);
        assertThat(HERS.get("/api/sites").json()).hasSize(1);
        // Made a lead, and a technician again: nobody gets more sites by that.
        works("LEAD", false, mine.site()[0]).expect(204);
        assertThat(HERS.get("/api/sites").json()).hasSizeGreaterThan(1);
        works(false, mine.site()[0]).expect(204);
        assertThat(LEAD.get("/api/people")
                        .json()
                        .valueStream()
                        .filter(w -> w.get("name").asString().equals("Mo Twoshops"))
                        .map(w -> w.get("everySite").asBoolean()))
                .containsExactly(false);
        assertThat(HERS.get("/api/sites").json()).hasSize(1);
        works(false).refused(422, "no-site");
        works(false, 999_999_999L).refused(422, "no-such-site");
        assertThat(HERS.get("/api/sites").json()).hasSize(1);
    }
}
