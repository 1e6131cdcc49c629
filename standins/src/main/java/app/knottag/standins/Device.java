package app.knottag.standins;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Purpose;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kind.Field;
import app.knottag.core.kind.Kind.MenuField;
import app.knottag.core.kind.Signal.Steadiness;
import app.knottag.core.reach.Fault;
import app.knottag.core.reach.SiteModel.Station;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** One device on the bench: what is typed in its menu takes hold with the next restart. */
final class Device {

    private static final int RESTART_SECONDS = 3;
    private static final String UNSET = "Automatic";
    private static final ZoneId ZONE = ZoneId.of("Europe/Berlin");
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm:ss");

    private final Optional<Kind> kind;
    private final Map<String, String> menu = new LinkedHashMap<>();
    private final EnumSet<Fault> faults = EnumSet.noneOf(Fault.class);
    private Station station;
    private Instant startedAt = Instant.EPOCH;

    Device(GardenCentre.Made made) {
        station = made.station();
        kind = made.kind();
        kind.ifPresent(k -> k.menu().forEach(f -> menu.put(f.label(), made.setUp() ? setUp(f) : factory(f))));
    }

    private String setUp(MenuField field) {
        return switch (field.field()) {
            case OTHER -> field.text();
            case ADDRESS -> station.address().toString();
            case MASK -> "255.255.255.0";
            case GATEWAY, RESOLVER_1 -> station.address().toString().replaceAll("\\d+$", "1");
            case RESOLVER_2 -> "203.0.113.9";
            default -> field.text();
        };
    }

    private static String factory(MenuField field) {
        if (field.field().figures()) return "";
        return field.leaveAlone() || field.field() != Field.OTHER ? field.text() : UNSET;
    }

    /** What is kept when the demo is stopped. */
    record State(Map<String, String> menu, boolean automatic, String typed, List<Fault> faults) {}

    State state() {
        return new State(
                Map.copyOf(menu),
                station.automatic(),
                station.typed().map(Ipv4Address::toString).orElse(""),
                List.copyOf(faults));
    }

    void restore(State state) {
        menu.replaceAll((label, text) -> state.menu().getOrDefault(label, text));
        station = station.withAddress(
                state.automatic(),
                state.typed().isEmpty() ? Optional.empty() : Optional.of(Ipv4Address.parse(state.typed())));
        faults.clear();
        faults.addAll(state.faults());
    }

    Station station() {
        return station;
    }

    List<Fault> faults() {
        return new ArrayList<>(faults);
    }

    boolean up(Instant now) {
        return !now.isBefore(startedAt);
    }

    Instant upAt() {
        return startedAt;
    }

    void upset(Fault fault, boolean on) {
        if (on) faults.add(fault);
        else faults.remove(fault);
    }

    /** Saves what was typed; like a real small screen it refuses what is no address at all, and nothing else. */
    void type(Map<String, String> typed) {
        typed.forEach((label, text) -> {
            var field = kind.orElseThrow().menu().stream()
                    .filter(f -> f.label().equals(label))
                    .findFirst()
                    .orElseThrow(() -> new IllegalArgumentException("There is no field " + label + " in this menu."));
            if (field.field().figures() && !text.isBlank() && read(text).isEmpty())
                throw new IllegalArgumentException(
                        "The device beeps and does not take “" + text + "” for " + label + ".");
        });
        menu.replaceAll((label, text) -> typed.getOrDefault(label, text).strip());
    }

    private static Optional<Ipv4Address> read(String text) {
        return Optional.ofNullable(AddressReader.read(text, Purpose.RESOLVER, AddressContext.NONE)
                        .value())
                .filter(v -> !v.contains(":"))
                .map(Ipv4Address::parse);
    }

    /** Starts anew with what the menu says. Mended by hand: a restart on automatic ends that fault. */
    void restart(Instant now) {
        startedAt = now.plusSeconds(RESTART_SECONDS);
        if (kind.isEmpty()) return;
        var fields = kind.get().menu();
        boolean fixed = fields.stream()
                .filter(f -> f.field() == Field.OTHER && !f.leaveAlone())
                .findFirst()
                .map(f -> menu.get(f.label()).equalsIgnoreCase(f.text()))
                .orElse(true);
        var address = fields.stream()
                .filter(f -> f.field() == Field.ADDRESS)
                .findFirst()
                .flatMap(f -> read(menu.get(f.label())));
        station = station.withAddress(!fixed || address.isEmpty(), address);
        faults.remove(Fault.BACK_ON_AUTOMATIC);
    }

    /** The device as one stands before it. */
    record Face(
            String id,
            String name,
            String kind,
            String mac,
            String serial,
            String net,
            String screen,
            List<String> lights,
            String clock,
            boolean settable,
            Map<String, String> typed,
            List<Fault> faults) {}

    Face face(Instant now, Station standing) {
        String screen =
                faults.contains(Fault.UNPLUGGED) ? "Dark" : !up(now) ? "Starting…" : "Address " + standing.address();
        return new Face(
                station.id(),
                station.name(),
                kind.map(Kind::id).orElse(""),
                standing.mac().toString(),
                standing.serial(),
                station.leased().toString().replaceAll("\\.\\d+$", ""),
                screen,
                lights(),
                up(now) && !faults.contains(Fault.UNPLUGGED) ? CLOCK.format(now.atZone(ZONE)) : "",
                kind.isPresent(),
                menu,
                faults());
    }

    /** What its lights show: as they should, or, with its plug pulled, as the table has it for nothing. */
    private List<String> lights() {
        boolean linked = !faults.contains(Fault.UNPLUGGED);
        var shown = new LinkedHashMap<String, String>();
        for (var signal : kind.map(Kind::signals).orElse(List.of()))
            if (linked
                    ? signal.holds()
                    : signal.steadiness() == Steadiness.OFF || signal.means().equals("no link"))
                shown.putIfAbsent(signal.part(), signal.part() + ": " + signal.words());
        return List.copyOf(shown.values());
    }
}
