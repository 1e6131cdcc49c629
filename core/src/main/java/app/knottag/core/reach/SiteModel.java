package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.hardware.Mac;
import app.knottag.core.kind.Protocol;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * The stations of a site as they stand on the wire. The stand-ins are driven by it, and the checks can be made
 * against it without any network.
 */
public record SiteModel(List<Station> stations) {

    public SiteModel {
        stations = List.copyOf(stations);
    }

    /** What a station does on the network. */
    public enum Role {
        GATEWAY,
        ENDPOINT,
        PARTNER,
        RELAY
    }

    /** MAC of the made-up stranger, from the block for documentation (RFC 7042). */
    public static final Mac STRANGER = Mac.parse("00:00:5E:00:53:4E");

    private static final int DEMO_LENGTH = 24;

    /** Where the demo's machine stands in each segment. */
    private static final int LOOKING = 250;

    /** Serial of the unit that stands there by mistake. */
    public static final String OTHER_SERIAL = "XX-0000-0000";

    /**
     * One device.
     *
     * @param automatic whether it takes the leased address instead of the one typed on it
     * @param typed what was typed on the device: its fixed address, or empty while it has none
     * @param leased what the DHCP server would give it
     * @param port where its service listens, 0 for none
     * @param ask line its service understands
     * @param answer line its service gives back, serial filled in
     * @param protocol how its service is spoken with
     * @param traits what it is meant to have
     * @param faults what is wrong with it or on its way
     */
    public record Station(
            String id,
            String name,
            Role role,
            Mac mac,
            String serial,
            boolean automatic,
            Optional<Ipv4Address> typed,
            Ipv4Address leased,
            int port,
            String ask,
            String answer,
            Protocol protocol,
            NetworkState.Traits traits,
            List<Fault> faults) {

        public Station {
            faults = List.copyOf(faults);
        }

        /** Returns how it and all between it and its service stand. */
        public NetworkState scene() {
            var state = intended();
            for (var fault : faults) state = fault.apply(state);
            return state;
        }

        /** Returns how it is meant to stand. */
        public NetworkState intended() {
            return NetworkState.intended(traits, layout());
        }

        /** The demo's segments are all made alike. */
        private NetworkState.Layout layout() {
            var prefix = Ipv4Prefix.around(leased, DEMO_LENGTH);
            var router = prefix.lowestUsable();
            return new NetworkState.Layout(
                    prefix,
                    Optional.of(router).filter(r -> !r.equals(planned())),
                    planned(),
                    List.of(new Pool(leased, leased)),
                    Optional.empty(),
                    Optional.of(router),
                    Optional.of(prefix.network().plus(LOOKING)),
                    automatic || typed.isEmpty());
        }

        /** Returns the address it answers at, or empty when it stands nowhere on the wire of its segment. */
        public Optional<Ipv4Address> address() {
            return scene().address();
        }

        /** Whether it has its address from the DHCP server. */
        public boolean leasing() {
            return address().filter(leased::equals).isPresent();
        }

        /** Returns the address that it has when all is well: the leased one on automatic or while none was typed. */
        public Ipv4Address planned() {
            return automatic ? leased : typed.orElse(leased);
        }

        /** Returns the MAC that answers: that of the unit and interface that really stand there. */
        public Mac answering() {
            return scene().unit() == NetworkState.Unit.SWAPPED
                    ? STRANGER
                    : scene().siblingMac() ? new Mac(mac.bits() ^ 1) : mac;
        }

        /** Returns what its service says. */
        public String says() {
            return switch (scene().unit()) {
                case OWN -> answer;
                case SWAPPED -> serial.isEmpty() ? answer : answer.replace(serial, OTHER_SERIAL);
                case VARIANT -> "HELLO";
            };
        }

        /** Returns the station with another setting of its address. */
        public Station withAddress(boolean onAutomatic, Optional<Ipv4Address> address) {
            return new Station(
                    id,
                    name,
                    role,
                    mac,
                    serial,
                    onAutomatic,
                    address,
                    leased,
                    port,
                    ask,
                    answer,
                    protocol,
                    traits,
                    faults);
        }

        /** Returns the station with another address kept for it by the DHCP server. */
        public Station withLease(Ipv4Address address) {
            return new Station(
                    id, name, role, mac, serial, automatic, typed, address, port, ask, answer, protocol, traits,
                    faults);
        }

        /** Returns the station with something wrong, beside what is wrong already. */
        public Station with(Fault fault) {
            var more = new ArrayList<>(faults);
            more.add(fault);
            return new Station(
                    id, name, role, mac, serial, automatic, typed, leased, port, ask, answer, protocol, traits, more);
        }
    }

    /**
     * Returns the site as it stands on the wire with what is wrong at its stations: with the strangers that hold an
     * address, and the routers that are down for all behind them.
     */
    public SiteModel onTheWire() {
        var wire = new ArrayList<Station>();
        for (var s : stations) {
            var near = stations.stream()
                    .filter(o -> network(o.leased()).equals(network(s.leased())))
                    .map(Station::scene)
                    .toList();
            boolean down = s.role() == Role.GATEWAY && near.stream().anyMatch(o -> !o.gatewayUp());
            wire.add(down ? s.with(Fault.NO_POWER) : s);
        }
        for (var s : stations)
            if (s.scene().strangerHolds())
                // The later device wins the neighbour table, as the last answer does on a real wire.
                wire.add(new Station(
                        s.id() + "-stranger",
                        "A stranger",
                        Role.ENDPOINT,
                        STRANGER,
                        "",
                        false,
                        Optional.of(s.planned()),
                        s.leased(),
                        0,
                        "",
                        "",
                        Protocol.LINE,
                        new NetworkState.Traits(false, false, false, false),
                        List.of()));
        return new SiteModel(wire);
    }

    /** The network of the demo's sites is a /24. */
    public static String network(Ipv4Address address) {
        return address.toString().replaceAll("\\d+$", "");
    }

    /** Returns who answers at an address; when two hold it, the one that came last wins the neighbour table. */
    public Optional<Station> at(Ipv4Address address) {
        return stations.stream()
                .filter(s -> s.address().filter(address::equals).isPresent())
                .reduce((first, second) -> second);
    }

    /** Returns the neighbour table as the gateway sees it: one MAC for each address that answers. */
    public List<Neighbour> neighbours() {
        return stations.stream()
                .flatMap(s -> s
                        .address()
                        .filter(a -> at(a).filter(s::equals).isPresent())
                        .map(a -> new Neighbour(a, s.answering()))
                        .stream())
                .toList();
    }

    /** Returns everybody who answers the question whose an address is, two where two have it. */
    public List<Neighbour> holders() {
        return stations.stream()
                .flatMap(s -> s.address().map(a -> new Neighbour(a, s.answering())).stream())
                .toList();
    }
}
