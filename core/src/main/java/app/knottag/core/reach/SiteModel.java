package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
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
        PARTNER
    }

    /**
     * One device.
     *
     * @param linked whether power and cable are in
     * @param automatic whether it takes the leased address instead of the one typed on it
     * @param typed what was typed on the device: its fixed address, or empty while it has none
     * @param leased what the DHCP server would give it
     * @param port where its service listens, 0 for none
     * @param ask line its service understands
     * @param answer line its service gives back, serial filled in
     */
    public record Station(
            String id,
            String name,
            Role role,
            Mac mac,
            String serial,
            boolean linked,
            boolean automatic,
            Optional<Ipv4Address> typed,
            Ipv4Address leased,
            int port,
            String ask,
            String answer) {

        /** Returns the address it answers at: the leased one on automatic or while none was typed. */
        public Ipv4Address address() {
            return automatic ? leased : typed.orElse(leased);
        }

        Station withLinked(boolean on) {
            return new Station(id, name, role, mac, serial, on, automatic, typed, leased, port, ask, answer);
        }

        /** Returns the station with another setting of its address. */
        public Station withAddress(boolean onAutomatic, Optional<Ipv4Address> address) {
            return new Station(id, name, role, mac, serial, linked, onAutomatic, address, leased, port, ask, answer);
        }

        /** Returns the station with another address kept for it by the DHCP server. */
        public Station withLease(Ipv4Address address) {
            return new Station(id, name, role, mac, serial, linked, automatic, typed, address, port, ask, answer);
        }

        /** Returns the station as another unit of the same kind would stand there. */
        Station withUnit(Mac other, String otherSerial) {
            return new Station(
                    id,
                    name,
                    role,
                    other,
                    otherSerial,
                    linked,
                    automatic,
                    typed,
                    leased,
                    port,
                    ask,
                    serial.isEmpty() ? answer : answer.replace(serial, otherSerial));
        }

        Station withPort(int number) {
            return new Station(id, name, role, mac, serial, linked, automatic, typed, leased, number, ask, answer);
        }
    }

    /**
     * Returns the station with this id.
     *
     * @throws IllegalArgumentException if there is none
     */
    public Station station(String id) {
        return stations.stream()
                .filter(s -> s.id().equals(id))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("no station " + id));
    }

    /** Returns the site with one station in place of the one with the same id. */
    public SiteModel with(Station changed) {
        return new SiteModel(stations.stream()
                .map(s -> s.id().equals(changed.id()) ? changed : s)
                .toList());
    }

    SiteModel plus(Station added) {
        var more = new ArrayList<>(stations);
        more.add(added);
        return new SiteModel(more);
    }

    /** Returns who answers at an address; when two hold it, the one that came last wins the neighbour table. */
    public Optional<Station> at(Ipv4Address address) {
        return stations.stream()
                .filter(s -> s.linked() && s.address().equals(address))
                .reduce((first, second) -> second);
    }

    /** Returns the neighbour table as the gateway sees it: one MAC for each address that answers. */
    public List<Neighbour> neighbours() {
        return stations.stream()
                .filter(s -> at(s.address()).filter(s::equals).isPresent())
                .map(s -> new Neighbour(s.address(), s.mac()))
                .toList();
    }
}
