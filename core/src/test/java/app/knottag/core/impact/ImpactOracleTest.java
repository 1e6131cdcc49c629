package app.knottag.core.impact;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Segment;
import app.knottag.core.impact.Bond.Act;
import app.knottag.core.impact.ImpactSite.Book;
import app.knottag.core.impact.ImpactSite.Calls;
import app.knottag.core.impact.ImpactSite.Device;
import app.knottag.core.impact.ImpactSite.Entry;
import app.knottag.core.impact.ImpactSite.Network;
import app.knottag.core.impact.ImpactSite.Partner;
import app.knottag.core.impact.ImpactSite.Service;
import app.knottag.core.impact.ImpactSite.Upkeep;
import app.knottag.core.kind.Protocol;
import app.knottag.core.plan.Method;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The walk against plain rules of the job, read off the facts with no graph, at random sites. */
class ImpactOracleTest {

    private final Random dice = new Random();

    private static Ipv4Address at(long net, int host) {
        return Ipv4Address.parse("10.7." + net + "." + host);
    }

    private boolean often() {
        return dice.nextInt(3) > 0;
    }

    private ImpactSite site() {
        int nets = 1 + dice.nextInt(3);
        var networks = new ArrayList<Network>();
        for (long n = 1; n <= nets; n++) {
            var segment = new Segment(Ipv4Prefix.parse("10.7." + n + ".0/24"), Optional.of(at(n, 1)), List.of());
            var resolvers = new ArrayList<Ipv4Address>();
            if (often()) resolvers.add(at(1 + dice.nextInt(nets), often() ? 1 : 30));
            if (often()) resolvers.add(Ipv4Address.parse("192.0.2.53"));
            networks.add(new Network(n, "Net " + n, segment, resolvers, Optional.empty()));
        }
        var partners = IntStream.rangeClosed(1, 2)
                .mapToObj(p -> new Partner(p, "Partner " + p, at(1 + dice.nextInt(nets), 29 + p)))
                .toList();
        var devices = new ArrayList<Device>();
        for (long d = 1; d <= 12; d++) devices.add(device(d, 1 + dice.nextInt(nets)));
        var entries = devices.stream()
                .filter(d -> d.method() == Method.RESERVED && often())
                .map(d -> new Entry(d.id(), d.name(), d.address(), ""))
                .toList();
        Optional<Long> listed = often() ? Optional.of(1L) : Optional.empty();
        return new ImpactSite(
                networks,
                devices,
                partners,
                List.of(
                        new Service(1, "Time", Protocol.NTP, at(1, 30).toString(), !often()),
                        new Service(2, "Files", Protocol.FILE, "files.shop.example", true)),
                List.of(new Book(9, "List", true, listed, entries)),
                List.of(),
                List.of(),
                dice.nextInt(3));
    }

    private Device device(long id, long net) {
        return new Device(
                id,
                "D" + id,
                "",
                net,
                Optional.of(at(net, 40 + (int) id)),
                Method.values()[dice.nextInt(4)],
                often(),
                often(),
                new Calls(
                        often() ? Optional.of(1L + dice.nextInt(2)) : Optional.empty(),
                        !often(),
                        often() ? Set.of() : Set.of(1L),
                        !often(),
                        Optional.empty(),
                        false,
                        !often(),
                        Optional.empty()),
                new Upkeep(1, 1, 1, "Work"),
                "");
    }

    /** What the rules say is touched: "set" or "prove" and the name. */
    private static final class Rules {
        private final ImpactSite site;
        private final Set<String> touched = new TreeSet<>();
        private final Set<Ipv4Address> moved = new HashSet<>();
        private final Set<Long> told = new HashSet<>();

        private Rules(ImpactSite site) {
            this.site = site;
        }

        private void set(Device d) {
            touched.add("set " + d.name());
            touched.add("prove " + d.name());
        }

        private Network net(Device d) {
            return site.networks().get((int) d.network() - 1);
        }

        private boolean leaves(Device d) {
            return d.calls().out()
                    || site.partners().stream()
                            .anyMatch(p -> d.calls()
                                            .partner()
                                            .filter(id -> id == p.id())
                                            .isPresent()
                                    && !net(d).segment().prefix().contains(p.address()));
        }

        private Set<String> router() {
            for (var d : site.devices()) {
                if (!d.keyed()) continue;
                if (!d.method().onDevice() || d.calls().watches()) set(d);
                else if (leaves(d)) touched.add("prove " + d.name());
            }
            return touched;
        }

        /** Whoever has one of these addresses has another now. */
        private Set<String> follow() {
            for (var n : site.networks()) if (n.resolvers().stream().anyMatch(moved::contains)) told.add(n.id());
            for (var d : site.devices()) {
                if (!d.keyed()) continue;
                boolean asks = d.method().onDevice() && told.contains(d.network());
                boolean lent = !d.method().onDevice() && told.contains(d.network());
                boolean partner = site.partners().stream()
                        .anyMatch(p ->
                                d.calls().partner().filter(id -> id == p.id()).isPresent()
                                        && moved.contains(p.address()));
                var time = site.services().get(0);
                boolean calls = d.calls().services().contains(1L)
                        || !time.said() && d.calls().clock();
                boolean service = calls && moved.contains(Ipv4Address.parse(time.host()));
                if (asks || lent || partner || service) set(d);
            }
            return touched;
        }

        private Set<String> network(long id) {
            var n = site.networks().get((int) id - 1);
            n.segment().gateway().ifPresent(moved::add);
            for (var p : site.partners()) if (n.segment().prefix().contains(p.address())) moved.add(p.address());
            for (var d : site.devices()) if (d.keyed() && d.network() == id) set(d);
            return follow();
        }

        private Set<String> address(Ipv4Address a) {
            moved.add(a);
            return follow();
        }
    }

    private static Set<String> walked(Impact impact) {
        return impact.steps().stream()
                .filter(s -> s.device() > 0)
                .map(s -> (s.act() == Act.PROVE ? "prove " : "set ") + s.thing())
                .collect(Collectors.toCollection(TreeSet::new));
    }

    private static void inOrder(Impact impact) {
        var steps = impact.steps();
        for (int i = 0; i < steps.size(); i++) {
            int at = i;
            assertThat(steps.get(i).after()).allMatch(n -> n <= at);
            if (steps.get(i).act() != Act.PROVE) continue;
            for (int j = i + 1; j < steps.size(); j++)
                assertThat(steps.get(j).thing())
                        .as("nothing is set on what was proved")
                        .isNotEqualTo(steps.get(i).thing());
        }
        var errands = impact.errands();
        assertThat(errands).allMatch(e -> e.title().length() <= 120 && e.minutes() <= 240);
        assertThat(errands.stream().mapToInt(Impact.Errand::minutes).sum())
                .isEqualTo(steps.stream().mapToInt(Impact.ImpactStep::minutes).sum());
    }

    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {1, 2, 3, 4})
    @DisplayName("Five hundred random sites: what plain rules say is touched is touched, and nothing else")
    void touchesWhatTheRulesSay(long seed) {
        dice.setSeed(seed);
        int proved = 0;
        for (int i = 0; i < 500; i++) {
            var site = site();
            var router = Impact.of(site, Change.ROUTER, "ROUTER:");
            assertThat(walked(router)).as("router of " + site).isEqualTo(new Rules(site).router());
            inOrder(router);
            long net = 1 + dice.nextInt(site.networks().size());
            var network = Impact.of(site, Change.NETWORK, "NETWORK:" + net);
            assertThat(walked(network)).as(net + " of " + site).isEqualTo(new Rules(site).network(net));
            inOrder(network);
            var partner = site.partners().get(0);
            var address = Impact.of(site, Change.ADDRESS, "PARTNER:1");
            assertThat(walked(address)).as("partner of " + site).isEqualTo(new Rules(site).address(partner.address()));
            inOrder(address);
            proved += router.steps().size();
        }
        assertThat(proved).isGreaterThan(2_000);
    }
}
