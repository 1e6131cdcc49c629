package app.knottag.server.live;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import app.knottag.server.web.Scope;
import java.net.http.HttpResponse;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What an open page hears of what others change, over the wire. */
class LiveApiTest {

    private static final JsonMapper JSON = new JsonMapper();
    private final Api lead = Running.as(Role.LEAD);

    private record Event(String id, JsonNode changed) {
        boolean of(long site) {
            return changed.get("everywhere").asBoolean()
                    || changed.get("sites").valueStream().anyMatch(s -> s.asLong() == site);
        }
    }

    /** A page that listens; its events as they come. */
    private record Page(HttpResponse<Stream<String>> response, BlockingQueue<Event> events) implements AutoCloseable {

        static Page open(Api api, String last) {
            var response = api.stream("/api/live", last.isEmpty() ? Map.of() : Map.of("Last-Event-ID", last));
            var page = new Page(response, new LinkedBlockingQueue<>());
            var reader = new Thread(page::read);
            reader.setDaemon(true);
            reader.start();
            return page;
        }

        private void read() {
            var id = new ArrayList<String>();
            response.body().forEach(line -> {
                if (line.startsWith("id:")) id.add(line.substring(3));
                if (line.startsWith("data:"))
                    events.add(new Event(id.get(id.size() - 1), JSON.readTree(line.substring(5))));
            });
        }

        /** Everything that is told of a site until something is. */
        Event of(long site) throws InterruptedException {
            for (; ; ) {
                var event = events.poll(2, TimeUnit.SECONDS);
                assertThat(event).as("told within two seconds").isNotNull();
                if (event.of(site)) return event;
            }
        }

        @Override
        public void close() {
            response.body().close();
        }
    }

    private static List<Long> numbers(Event event, String of) {
        return event.changed().get(of).valueStream().map(JsonNode::asLong).toList();
    }

    @DisplayName("A colleague's change is told within two seconds: of which endpoint, or of the site as a whole")
    @Test
    void told() throws InterruptedException {
        long[] site = Running.site(lead);
        long till = Running.till(lead, site, 1);
        try (var page = Page.open(Running.as(Role.OFFICE), "")) {
            assertThat(page.response().headers().firstValue("Content-Type"))
                    .hasValueSatisfying(t -> assertThat(t).startsWith("text/event-stream"));
            assertThat(page.events().poll(2, TimeUnit.SECONDS))
                    .satisfies(e -> assertThat(e.changed().get("everywhere").asBoolean())
                            .isFalse());
            lead.seen(till)
                    .patch("/api/endpoints/" + till, "{'name':'Till one'}")
                    .expect(200);
            var tie = page.of(site[0]);
            assertThat(numbers(tie, "endpoints")).contains(till);
            assertThat(numbers(tie, "whole")).doesNotContain(site[0]);
            lead.ifMatch = null;
            lead.post(
                            "/api/sites/" + site[0] + "/segments",
                            "{'name':'Back','prefix':'10.8.0.0/24','gateway':'10.8.0.1'}")
                    .expect(201);
            assertThat(numbers(page.of(site[0]), "whole")).contains(site[0]);
        }
    }

    @DisplayName("Who was away is told what was changed meanwhile; where nobody knows, that it may be anything")
    @ParameterizedTest
    @CsvSource({"last, false", "'', false", "another server 3, true", "ahead, true", "x, true"})
    void resumed(String last, boolean everywhere) throws InterruptedException, SQLException {
        long[] site = Running.site(lead);
        String id;
        try (var page = Page.open(lead, "")) {
            Running.till(lead, site, 1);
            id = page.of(site[0]).id();
        }
        try (var other = Page.open(lead, "")) {
            Running.till(lead, site, 2);
            other.of(site[0]);
        }
        String from = last.equals("last") ? id : last.equals("ahead") ? id.split(" ")[0] + " 999999999" : last;
        try (var page = Page.open(lead, from)) {
            var first = page.events().poll(2, TimeUnit.SECONDS);
            assertThat(first).isNotNull();
            assertThat(first.changed().get("everywhere").asBoolean()).isEqualTo(everywhere);
            if (last.equals("last")) assertThat(numbers(first, "sites")).contains(site[0]);
        }
    }

    @DisplayName("A wait that becomes ready is told, though nobody changed anything")
    @Test
    void byClock() throws InterruptedException, SQLException {
        long[] site = Running.site(lead);
        long till = Running.till(lead, site, 1);
        Running.write("""
                insert into step (endpoint_id, key, status, started_at, evidence, findings, reason, by, tries, restarts)
                values (%d, 'boot', 'ACTIVE', now(), '{}', '[]', '', 'lead', 0, 0)""".formatted(till));
        try (var page = Page.open(lead, "")) {
            var heard = page.events().poll(8, TimeUnit.SECONDS);
            while (heard != null && !numbers(heard, "endpoints").contains(till))
                heard = page.events().poll(8, TimeUnit.SECONDS);
            assertThat(heard).as("the wait is told").isNotNull();
        }
    }

    @DisplayName("Nobody who is not signed in hears anything, and nobody opens more pages than one can look at")
    @Test
    void bounded() {
        assertThat(new Api(Running.url()).stream("/api/live", Map.of()).statusCode())
                .isEqualTo(401);
        var api = Running.as(Role.TECHNICIAN);
        var pages = IntStream.range(0, 30)
                .mapToObj(i -> api.stream("/api/live", Map.of()))
                .collect(Collectors.groupingBy(HttpResponse::statusCode));
        assertThat(pages.get(200)).hasSize(24);
        assertThat(pages.get(429)).hasSize(6);
        pages.get(200).forEach(p -> p.body().close());
    }

    @DisplayName("Whoever works at some sites is told of those alone, and of another not even a number")
    @ParameterizedTest(name = "{0}: {1}, {2}, {3}")
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "4 9     | [4] | []  | [9]",
                "5 9     | []  | []  | []",
                "4 9,5 8 | [4] | [4] | []",
                "4,5     | [4] | [4] | []",
            })
    void within(String told, String sites, String whole, String endpoints) {
        var changed = Stream.of(told.split(",")).map(Changed::read).reduce(Changed.NOTHING, Changed::and);
        var hers = changed.within(Scope.of(List.of(4L, 6L)));
        assertThat(hers.sites()).hasToString(sites);
        assertThat(hers.whole()).hasToString(whole);
        assertThat(hers.endpoints()).hasToString(endpoints);
        assertThat(changed.within(Scope.EVERYWHERE)).isEqualTo(changed);
        assertThat(Changed.EVERYWHERE.within(Scope.of(List.of())).everywhere()).isTrue();
    }

    @DisplayName("Many endpoints at once are told as their sites")
    @Test
    void many() {
        var all = IntStream.rangeClosed(1, 201)
                .mapToObj(i -> Changed.read("4 " + i))
                .reduce(Changed.NOTHING, Changed::and);
        assertThat(all.endpoints()).isEmpty();
        assertThat(all.whole()).containsExactly(4L);
        assertThat(List.of(Changed.read(" "), Changed.read(""), Changed.read("x y"), Changed.read("4")))
                .extracting(Changed::everywhere)
                .containsExactly(true, true, true, false);
    }
}
