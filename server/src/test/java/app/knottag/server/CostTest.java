package app.knottag.server;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.account.Role;
import java.sql.SQLException;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import org.apache.ibatis.cache.CacheKey;
import org.apache.ibatis.executor.Executor;
import org.apache.ibatis.mapping.BoundSql;
import org.apache.ibatis.mapping.MappedStatement;
import org.apache.ibatis.plugin.Interceptor;
import org.apache.ibatis.plugin.Intercepts;
import org.apache.ibatis.plugin.Invocation;
import org.apache.ibatis.plugin.Signature;
import org.apache.ibatis.session.ResultHandler;
import org.apache.ibatis.session.RowBounds;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** What is asked of the database does not become more questions because a site has grown. */
class CostTest {

    /** Counts what one thread asks of the database. */
    @Intercepts({
        @Signature(
                type = Executor.class,
                method = "query",
                args = {MappedStatement.class, Object.class, RowBounds.class, ResultHandler.class}),
        @Signature(
                type = Executor.class,
                method = "query",
                args = {
                    MappedStatement.class,
                    Object.class,
                    RowBounds.class,
                    ResultHandler.class,
                    CacheKey.class,
                    BoundSql.class
                }),
        @Signature(
                type = Executor.class,
                method = "update",
                args = {MappedStatement.class, Object.class}),
    })
    static final class Questions implements Interceptor {
        private static final Map<String, Integer> ASKED = new ConcurrentHashMap<>();

        @Override
        public Object intercept(Invocation invocation) throws Throwable {
            if (Thread.currentThread().getName().contains("exec"))
                ASKED.merge(((MappedStatement) invocation.getArgs()[0]).getId(), 1, Integer::sum);
            return invocation.proceed();
        }
    }

    private record Site(long id, long segment, long endpoint, long registry) {
        String in(String path) {
            return path.replace("sites/{siteId}", "sites/" + id)
                    .replace("{segmentId}", "" + segment)
                    .replace("endpoints/{id}", "endpoints/" + endpoint)
                    .replace("registries/{id}", "registries/" + registry)
                    .replace("segments/{id}", "segments/" + segment);
        }
    }

    private static final Api LEAD = Running.as(Role.LEAD);
    private static Site small;
    private static Site large;

    @BeforeAll
    static void fill() throws SQLException {
        small = site(10);
        large = site(1_000);
    }

    /** A site whose endpoints hang on ports, stand in two registries of three, and are half set up. */
    private static Site site(int endpoints) throws SQLException {
        long site = Running.site(LEAD)[0];
        try (var db = Running.database("knot_owner");
                var statement = db.createStatement()) {
            statement.execute("""
                    create temporary table made (site bigint, n bigint, segment bigint);
                    insert into made select %1$d, %2$d, null;
                    with s as (insert into segment (site_id, name, prefix, gateway) values (%1$d, 'Wide', '10.40.0.0/16',
                        '10.40.0.1') returning id)
                        update made set segment = s.id from s;
                    insert into place (site_id, name, walk) select site, 'Room ' || i, i from made, generate_series(1, 5) i;
                    insert into gear (site_id, name, type) select site, 'Switch ' || i, 'SWITCH' from made, generate_series(1, 1 + n
                        / 40) i;
                    insert into port (site_id, gear_id, number) select g.site_id, g.id, i from gear g, generate_series(1, 44) i,
                        made where g.site_id = site;
                    insert into endpoint (site_id, segment_id, kind, kind_version, name, address, serial, tag_code, station, status,
                        port_id, place_id)
                        select m.site, m.segment, 'label-printer', 1, 'Printer ' || p.i, '10.40.0.2'::inet + p.i::int * 13, 'SER-' || p.i,
                            (select code from site where id = m.site) || '-L' || p.i || '-X', 'ONBOARD', 'PENDING', p.id, (select
                                min(id) from place where site_id = m.site)
                        from made m, (select id, row_number() over (order by id) i from port where site_id = %1$d) p where p.i <= m.n;
                    with p as (insert into partner (site_id, name, address) select site, 'Desk', '10.40.0.5' from made returning id)
                        update endpoint set partner_id = p.id from p, made where site_id = site;
                    insert into interface (endpoint_id, site_id, mac) select e.id, e.site_id, ('00005e' || lpad(to_hex(e.id), 6,
                        '0'))::macaddr
                        from endpoint e, made where e.site_id = site;
                    insert into registry (site_id, name, type, rules) select site, 'List ' || i, (array['RESERVATIONS',
                        'ACCESS_LIST', 'PORTAL'])[i],
                        '{"naming":"WORDS","longestName":40,"ownerNeeded":false,"sharing":"NONE","most":0,"lifetime":null,\
                        "restart":true,"facts":["MAC","NAME"],"models":[],"waitsFor":"","leadDays":0,"form":"CSV"}'
                        from made, generate_series(1, 3) i;
                    insert into registration (registry_id, site_id, endpoint_id, name, mac, address, asked_at, entered_at)
                        select r.id, r.site_id, e.id, e.name, i.mac, e.address, now() - interval '2 days', now() - interval '1 day'
                        from made, registry r join endpoint e on e.site_id = r.site_id join interface i on i.endpoint_id = e.id
                        where r.site_id = site and (e.id + r.id) %% 3 <> 0;
                    insert into step (endpoint_id, key, status, started_at, ended_at, evidence, findings, reason, by, tries, restarts)
                        select e.id, 'label', 'PASSED', now(), now(), '{}', '[]', '', 'lead', 0, 0 from endpoint e, made where
                            e.site_id = site;
                    """.formatted(site, endpoints));
            var ids = statement.executeQuery("""
                    select segment, (select max(id) from endpoint where site_id = site), (select min(id) from registry where site_id
                        = site) from made""");
            ids.next();
            var made = new Site(site, ids.getLong(1), ids.getLong(2), ids.getLong(3));
            statement.execute("drop table made");
            return made;
        }
    }

    private static Map<String, Integer> asked(Runnable work) {
        Questions.ASKED.clear();
        work.run();
        return Map.copyOf(Questions.ASKED);
    }

    /** Every route that reads, of sites, segments, endpoints and registries. */
    static Stream<String> reads() {
        return Described.API.get("paths").propertyNames().stream()
                .filter(p -> Described.API.get("paths").get(p).has("get"))
                .filter(p -> p.matches("/api/(sites/\\{siteId}|endpoints/\\{id}|registries/\\{id}|segments/\\{id}).*"))
                // Nothing has failed there.
                .filter(p -> !p.endsWith("/diagnosis"))
                .map(p -> p.endsWith("/proposal")
                        ? p + "?kind=label-printer&segmentId={segmentId}"
                        : p.endsWith("/free")
                                ? p + "?address=10.40.9.9"
                                : p.endsWith("/list")
                                        ? p + "?form=CSV&onlyChanges=false"
                                        : p.endsWith("/past")
                                                ? p + "?of=10.40.0.9"
                                                : p.endsWith("/impact")
                                                        ? p + "?change=PROVIDER&subject=LINE:"
                                                        : p.replace("{type}", "TECHNICIAN"));
    }

    @DisplayName("A page of a site of a thousand asks no more questions than one of ten")
    @ParameterizedTest
    @MethodSource("reads")
    void noMoreQuestions(String route) {
        var few = asked(() -> LEAD.get(small.in(route)));
        var many = asked(() -> LEAD.get(large.in(route)));
        assertThat(few).isNotEmpty();
        assertThat(many).isEqualTo(few);
    }

    @DisplayName("Reading what is typed, key by key, asks as little at a site of a thousand as at one of ten")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "/api/mac/read     | {'text':'00:00:5e:00:53:0','siteId':%1$d,'endpointId':%3$d}",
                "/api/mac/read     | {'text':'00:00:5e:00:53:0a','siteId':%1$d,'endpointId':%3$d}",
                "/api/serial/read  | {'text':'SER-999','kind':'label-printer','siteId':%1$d,'endpointId':%3$d}",
                "/api/address/read | {'text':'10.40.0.9','purpose':'ADDRESS','segmentId':%2$d,'endpointId':%3$d}",
            })
    void noMoreQuestionsForAKey(String route, String body) {
        var few = asked(() -> LEAD.post(route, body.formatted(small.id(), small.segment(), small.endpoint())));
        var many = asked(() -> LEAD.post(route, body.formatted(large.id(), large.segment(), large.endpoint())));
        assertThat(few).isNotEmpty();
        assertThat(many).isEqualTo(few);
    }
}
