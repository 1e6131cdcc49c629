package app.knottag.standins;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.reach.Neighbour;
import app.knottag.core.reach.Outcome;
import app.knottag.core.reach.SiteModel;
import app.knottag.core.reach.SiteModel.Role;
import java.io.IOException;
import java.net.InetAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * All devices of the demo. Their effective state is a {@link SiteModel} with the faults applied; the sockets on
 * loopback are made to agree with it after every change.
 */
final class Bench {

    private final int secondGroup;
    private final Path kept;
    private final Certificates certificates;
    private final DhcpFiles dhcp;
    private final JsonMapper json = new JsonMapper();
    private final Map<String, Device> devices = new LinkedHashMap<>();
    private final Map<String, LineServer> open = new HashMap<>();
    private volatile Duration back = Duration.ZERO;
    private final ScheduledExecutorService later = Executors.newSingleThreadScheduledExecutor(r -> {
        var thread = new Thread(r, "restarts");
        thread.setDaemon(true);
        return thread;
    });

    Bench(int secondGroup, Path kept) throws IOException {
        this.secondGroup = secondGroup;
        this.kept = kept;
        certificates = new Certificates(kept.toAbsolutePath().getParent());
        dhcp = new DhcpFiles(kept.resolveSibling("reservations.conf"));
        GardenCentre.devices().forEach(m -> devices.put(m.station().id(), new Device(m)));
        if (Files.exists(kept)) {
            var states = json.readValue(Files.readString(kept), new TypeReference<Map<String, Device.State>>() {});
            states.forEach((id, state) -> {
                if (devices.containsKey(id)) devices.get(id).restore(state);
            });
        }
        agree();
    }

    /** Lets all clocks of the bench stand back by so much, while the demo makes up what happened some weeks ago. */
    synchronized void back(Duration by) throws IOException {
        back = by;
        agree();
    }

    /** What all clocks of the bench show. */
    Instant time() {
        return Instant.now().minus(back);
    }

    synchronized SiteModel model() {
        var now = time();
        return new SiteModel(devices.values().stream()
                        .filter(d -> d.up(now))
                        .map(Device::station)
                        .map(dhcp::leased)
                        .toList())
                .onTheWire();
    }

    /** Networks that one does not look at from within, because somebody put this machine elsewhere. */
    synchronized String away() {
        return devices.values().stream()
                .map(Device::station)
                .filter(s -> !s.scene().lookedAtFromWithin())
                .map(s -> SiteModel.network(s.leased()))
                .distinct()
                .collect(Collectors.joining("\n"));
    }

    synchronized List<Device.Face> faces() {
        var now = time();
        return devices.values().stream()
                .filter(d -> d.station().role() == Role.ENDPOINT)
                .map(d -> d.face(now, dhcp.leased(d.station())))
                .toList();
    }

    String reservations() {
        return dhcp.reservations();
    }

    /** Takes a reservation file whole or not at all; a device on automatic gets its address with its next start. */
    synchronized void reserve(String file) throws IOException {
        dhcp.take(file);
        agree();
    }

    String leases() {
        return dhcp.leases(
                model().stations().stream()
                        .filter(s -> s.role() == Role.ENDPOINT && s.leasing())
                        .toList(),
                time());
    }

    String neighbours() {
        return Neighbour.writeTable(model().neighbours());
    }

    /** Ports that a firewall bars with a word, one “address port” a line: loopback cannot say that itself. */
    String barred() {
        return model().stations().stream()
                .filter(s -> s.address().isPresent() && s.scene().portState() == Outcome.UNREACHABLE)
                .map(s -> s.address().get() + " " + s.port())
                .collect(Collectors.joining("\n"));
    }

    String holders() {
        return Neighbour.writeTable(model().holders());
    }

    synchronized void change(String id, Consumer<Device> change) throws IOException {
        var device = devices.get(id);
        if (device == null) throw new IllegalArgumentException("There is no device " + id + ".");
        change.accept(device);
        var states = new LinkedHashMap<String, Device.State>();
        devices.forEach((key, value) -> states.put(key, value.state()));
        var fresh = kept.resolveSibling(kept.getFileName() + ".new");
        Files.writeString(fresh, json.writeValueAsString(states));
        Files.move(fresh, kept, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        agree();
        long wait = Duration.between(time(), device.upAt()).toMillis();
        if (wait > 0) later.schedule(this::agreeQuietly, wait + 20, TimeUnit.MILLISECONDS);
    }

    private void agreeQuietly() {
        try {
            agree();
        } catch (IOException e) {
            System.err.println("The stand-ins cannot open a socket: " + e.getMessage());
        }
    }

    InetAddress loopback(Ipv4Address address) throws IOException {
        return InetAddress.getByAddress(
                new byte[] {127, (byte) secondGroup, (byte) address.group(2), (byte) address.group(3)});
    }

    /** Closes what no longer belongs and opens what is missing; each station answers where the model says it is. */
    private synchronized void agree() throws IOException {
        var model = model();
        var wanted = new LinkedHashMap<String, Offer>();
        for (var station : model.stations())
            station.address()
                    .filter(a -> model.at(a).filter(station::equals).isPresent())
                    .map(a -> Offer.of(station, a, Offer.Network.of(model.stations(), a)))
                    .ifPresent(o -> wanted.put(o.key(), o));
        open.entrySet().removeIf(e -> {
            boolean gone = !wanted.containsKey(e.getKey());
            if (gone) e.getValue().close();
            return gone;
        });
        for (var entry : wanted.entrySet())
            if (!open.containsKey(entry.getKey())) open.put(entry.getKey(), new LineServer(this, entry.getValue()));
    }

    Certificates certificates() {
        return certificates;
    }

    /** How the partner's side is set up for the device that has, or should have, an address. */
    synchronized Outcome partnerSide(Ipv4Address address) {
        return devices.values().stream()
                .map(Device::station)
                .filter(s -> s.role() == Role.ENDPOINT && s.planned().equals(address))
                .findFirst()
                .map(s -> s.scene().partnerSide())
                .orElse(Outcome.REACHES);
    }
}
