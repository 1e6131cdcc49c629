package app.knottag.core.impact;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.impact.ImpactSite.Book;
import app.knottag.core.impact.ImpactSite.Box;
import app.knottag.core.impact.ImpactSite.Calls;
import app.knottag.core.impact.ImpactSite.Device;
import app.knottag.core.impact.ImpactSite.Entry;
import app.knottag.core.impact.ImpactSite.Network;
import app.knottag.core.impact.ImpactSite.Open;
import app.knottag.core.impact.ImpactSite.Partner;
import app.knottag.core.impact.ImpactSite.Plug;
import app.knottag.core.impact.ImpactSite.Service;
import app.knottag.core.impact.ImpactSite.Upkeep;
import app.knottag.core.kind.Protocol;
import app.knottag.core.plan.Method;
import app.knottag.core.reading.ReadingException;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ImpactTest {

    private static Ipv4Address a(String text) {
        return Ipv4Address.parse(text);
    }

    private static Network network(long id, String name, String net, Optional<Integer> vlan, String... resolvers) {
        return new Network(
                id,
                name,
                new Segment(
                        Ipv4Prefix.parse(net + "0/24"),
                        Optional.of(a(net + "1")),
                        List.of(new Pool(a(net + "100"), a(net + "199")))),
                List.of(resolvers).stream().map(ImpactTest::a).toList(),
                vlan);
    }

    /** Words of what it needs: partner, out, clock, mails, watches, a mailbox, and the port that it is plugged into. */
    private static Calls calls(String needs) {
        var words = List.of(needs.split(" "));
        return new Calls(
                words.contains("partner") ? Optional.of(7L) : Optional.empty(),
                words.contains("out"),
                Set.of(),
                words.contains("clock"),
                words.stream().filter(w -> w.contains("@")).findFirst(),
                words.contains("mails"),
                words.contains("watches"),
                words.contains("port") ? Optional.of(new Plug(5, "Shop switch 3")) : Optional.empty());
    }

    private static Device device(long id, String name, long net, String address, Method method, String needs) {
        return new Device(
                id,
                name,
                "",
                net,
                Optional.of(address).filter(t -> !t.isEmpty()).map(ImpactTest::a),
                method,
                id != 5,
                id == 1,
                calls(needs),
                new Upkeep(6, 4, 5, "Do its job once"),
                name.equals("Copier") ? "Workstations print to it." : "");
    }

    /** A shop and its office behind one router that is on no record; Till 2 is only planned. */
    static final ImpactSite SITE = new ImpactSite(
            List.of(
                    network(1, "Shop", "10.7.0.", Optional.of(20), "10.7.0.1", "192.0.2.53"),
                    network(2, "Office", "10.7.1.", Optional.empty(), "10.7.0.1")),
            List.of(
                    device(1, "Till 1", 1, "10.7.0.51", Method.FIXED, "partner port"),
                    device(2, "Copier", 1, "10.7.0.40", Method.FIXED, "out mails Scans@shop.example"),
                    device(3, "Clock", 2, "10.7.1.52", Method.RESERVED, "clock"),
                    device(4, "Kiosk", 1, "", Method.AUTOMATIC, "out"),
                    device(5, "Till 2", 1, "10.7.0.52", Method.FIXED, "port"),
                    device(6, "Outlet", 1, "", Method.AUTOMATIC, "watches"),
                    device(7, "Copier 2", 2, "10.7.1.60", Method.FIXED, "out mails")),
            List.of(new Partner(7, "Till server", a("10.7.0.31"))),
            List.of(new Service(1, "Time", Protocol.NTP, "10.7.0.31", false)),
            List.of(
                    new Book(
                            11,
                            "Reservations",
                            true,
                            Optional.of(2L),
                            List.of(new Entry(3, "clock", Optional.of(a("10.7.1.52")), ""))),
                    new Book(
                            12,
                            "Portal",
                            false,
                            Optional.empty(),
                            List.of(
                                    new Entry(2, "copier-front", Optional.empty(), "Jo"),
                                    new Entry(99, "old-copier", Optional.empty(), "JO "))),
                    new Book(
                            13,
                            "Service list",
                            false,
                            Optional.empty(),
                            List.of(new Entry(1, "till-1", Optional.of(a("10.7.0.51")), "Ann")))),
            List.of(new Box(5, "Shop switch", false, Set.of(1L))),
            List.of(new Open(2, "A weaker sign-in", "jo ")),
            4);

    private static Impact impact(Change change, String subject) {
        return Impact.of(SITE, change, subject);
    }

    /** Written by hand from practice before the code ran: what is touched, in which order. */
    @ParameterizedTest(name = "{0} {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                // a till that talks with a server of its own network does not feel another router
                "ROUTER | ROUTER: | CHANGE The router, MEND Office, MEND Shop, MEND The firewall, MEND Reservations, "
                        + "RENEW Clock, PROVE Clock, PROVE Copier, PROVE Copier 2, RENEW Kiosk, PROVE Kiosk, "
                        + "MEND Outlet, RENEW Outlet, PROVE Outlet",
                "PROVIDER | LINE: | CHANGE The line, MEND The router, PROVE Copier, PROVE Copier 2, PROVE Kiosk",
                // the gateway is the resolver too, and the office asks it; the server is the time server too
                "NETWORK | NETWORK:1 | CHANGE Shop, MEND Office, MEND Shop, MEND Till server, MEND Clock, RENEW Clock, "
                        + "PROVE Clock, MEND Copier, MEND Copier 2, PROVE Copier 2, RENEW Kiosk, RENEW Outlet, PROVE Outlet, "
                        + "MEND Till 1, MEND The firewall, MEND Service list, MEND Till server, PROVE Copier, PROVE Kiosk, "
                        + "MEND Till 1, PROVE Till 1, MEND Labels",
                "NETWORK | NETWORK:2 | CHANGE Office, MEND Reservations, RENEW Clock, PROVE Clock, MEND Copier 2, "
                        + "MEND The firewall, PROVE Copier 2",
                "GATEWAY | NETWORK:1 | CHANGE Shop, MEND Office, MEND Shop, MEND Till server, RENEW Clock, PROVE Clock, "
                        + "MEND Copier, PROVE Copier, MEND Copier 2, PROVE Copier 2, RENEW Kiosk, PROVE Kiosk, RENEW Outlet, "
                        + "PROVE Outlet, MEND Till 1, PROVE Till 1",
                "RESOLVER | RESOLVER:192.0.2.53 | CHANGE 192.0.2.53, MEND Shop, MEND Copier, PROVE Copier, RENEW Kiosk, "
                        + "PROVE Kiosk, RENEW Outlet, PROVE Outlet, MEND Till 1, PROVE Till 1",
                "ADDRESS | DEVICE:1 | CHANGE Till 1, MEND The firewall, MEND Service list, MEND Till server, PROVE Till 1, MEND Labels",
                "ADDRESS | PARTNER:7 | CHANGE Till server, MEND The firewall, MEND Clock, PROVE Clock, MEND Till 1, PROVE Till 1",
                "MAIL_PASSWORD | MAILBOX:scans@shop.example | CHANGE scans@shop.example, MEND Copier, PROVE Copier",
                "TIME_SERVER | SERVICE:1 | CHANGE Time, MEND Clock, PROVE Clock",
                "PERSON | PERSON:jo | CHANGE Jo, MEND Portal, MEND Copier",
                "PERSON | PERSON:ann | CHANGE Ann, MEND Service list",
                "PORT | DEVICE:1 | CHANGE Till 1, PROVE Till 1",
                // what nobody has set up yet has nothing to prove again
                "ADDRESS | DEVICE:5 | CHANGE Till 2",
                "PORT | DEVICE:5 | CHANGE Till 2",
                "SWITCH | GEAR:5 | CHANGE Shop switch, MEND Till 1, PROVE Till 1",
            })
    void touches(Change change, String subject, String expected) {
        assertThat(impact(change, subject).steps().stream()
                        .map(s -> s.act() + " " + s.thing())
                        .collect(Collectors.joining(", ")))
                .isEqualTo(expected);
    }

    @ParameterizedTest(name = "{0} {1}, {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "ROUTER | ROUTER: | MEND Shop | Key it into the new router: address 10.7.0.1, mask 255.255.255.0, handed out "
                        + "10.7.0.100 to 10.7.0.199, resolvers 10.7.0.1 and 192.0.2.53, VLAN 20. | The new one does not know it.",
                "ROUTER | ROUTER: | RENEW Clock | Restart it, and see that it comes back with 10.7.1.52. | "
                        + "It takes its address from the network.",
                "ROUTER | ROUTER: | PROVE Copier | Prove it again: do its job once. | It calls out of its network.",
                "NETWORK | NETWORK:1 | MEND Copier | Key in its new address, mask, gateway and resolver, restart it, and read it "
                        + "back. | It does not learn it: its figures are typed in.",
                "NETWORK | NETWORK:1 | MEND Copier 2 | Key in its new resolver, restart it, and read it back. | "
                        + "It asks 10.7.0.1 for names.",
                "NETWORK | NETWORK:1 | RENEW Kiosk | Restart it, and see that it has its new address. | "
                        + "It takes its address from the network.",
                "NETWORK | NETWORK:1 | MEND The firewall | Change the rules that name Copier, Kiosk, Till 1 and Till server. | "
                        + "It holds the old address.",
                "NETWORK | NETWORK:2 | MEND Reservations | Change its 1 address in Office. | It holds the old address.",
                "ADDRESS | DEVICE:5 | CHANGE Till 2 | Change it in the plan; it is not set up yet. | ''",
                "PERSON | PERSON:jo | MEND Portal | Name somebody else who answers for copier-front and old-copier. | "
                        + "Jo is on record for it.",
                "NETWORK | NETWORK:1 | MEND Clock | Key in the new address of Time. | It is taken to call Time.",
                "PERSON | PERSON:jo | MEND Copier | Name somebody else who closes what stands open: a weaker sign-in. | "
                        + "Jo is on record for it.",
                "SWITCH | GEAR:5 | MEND Till 1 | Plug it in again, into Shop switch 3. | It is plugged into Shop switch.",
            })
    void says(Change change, String subject, String step, String title, String why) {
        assertThat(impact(change, subject).steps())
                .filteredOn(s -> (s.act() + " " + s.thing()).equals(step))
                .first()
                .satisfies(s -> assertThat(s.title()).isEqualTo(title))
                .satisfies(s -> assertThat(s.why()).isEqualTo(why));
    }

    @Test
    void saysHowMuchItIsAndWhatNobodyKnows() {
        var router = impact(Change.ROUTER, "ROUTER:");
        assertThat(router.says())
                .isEqualTo("8 things to set after it, and 5 devices to prove again: about 1 h 05 min of work. "
                        + "Cut off until then: Copier, Copier 2 and Kiosk.");
        assertThat(router.unknown())
                .anySatisfy(u -> assertThat(u).startsWith("No router is on record"))
                .anySatisfy(u -> assertThat(u).endsWith("look at Till server."))
                .contains("Not set up yet, so there is nothing to change on Till 2.");
        assertThat(impact(Change.MAIL_PASSWORD, "MAILBOX:scans@shop.example").unknown())
                .containsExactly("The mailbox of Copier 2 is not on record.");
        assertThat(impact(Change.NETWORK, "NETWORK:1").unknown())
                .as("the clock is only taken to ask the till server for the time")
                .anySatisfy(u -> assertThat(u).startsWith("Which time server a device uses is on no record"));
        assertThat(impact(Change.NETWORK, "NETWORK:2").unknown())
                .noneSatisfy(u -> assertThat(u).startsWith("Which time server"));
        assertThat(impact(Change.PERSON, "PERSON:jo").says())
                .isEqualTo("2 things to set after it: about 11 min of work.");
        assertThat(impact(Change.PORT, "DEVICE:1").says()).isEqualTo("1 device to prove again: about 7 min of work.");
        assertThat(impact(Change.SWITCH, "GEAR:5").unknown())
                .contains("Not set up yet, and only to be plugged in again: Till 2.");
        assertThat(impact(Change.ADDRESS, "DEVICE:2").unknown())
                .containsExactly("Which of them have its address is on no record. Workstations print to it.");
        assertThat(impact(Change.ADDRESS, "DEVICE:1").unknown()).isEmpty();
        assertThat(impact(Change.ADDRESS, "DEVICE:5").unknown())
                .containsExactly("It is not set up yet: who has its address already is on no record.");
        assertThat(impact(Change.PROVIDER, "LINE:").unknown().get(1)).endsWith("Outside here: 192.0.2.53.");
        assertThatThrownBy(() -> impact(Change.SWITCH, "GEAR:99"))
                .isInstanceOf(ReadingException.class)
                .hasMessageContaining("Choose again");
        assertThatThrownBy(() -> impact(Change.SWITCH, "nonsense")).isInstanceOf(ReadingException.class);
    }

    @Test
    void nothingRestsOnWhatNobodyUses() {
        var alone = new ImpactSite(
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(new Box(5, "Switch", false, Set.of())),
                List.of(),
                0);
        assertThat(Impact.of(alone, Change.SWITCH, "GEAR:5").says())
                .isEqualTo("As far as is on record nothing rests on it.");
        assertThat(Change.MAIL_PASSWORD.subjects(alone)).isEmpty();
    }

    @Test
    void errandsGatherWhatIsDoneInOneGo() {
        assertThat(impact(Change.ROUTER, "ROUTER:").errands().stream()
                        .map(e -> e.stage() + " " + e.minutes() + " " + e.title()))
                .containsExactly(
                        "1 15 The router: Put the new one in its place, and see that it has its line.",
                        "2 22 Set anew: Office, Shop, the firewall, Reservations, Outlet",
                        "3 10 Prove again: Copier, Copier 2",
                        "3 18 Restart and prove again: Clock, Kiosk, Outlet");
    }
}
