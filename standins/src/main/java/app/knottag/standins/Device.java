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
import app.knottag.core.reach.FaultBook;
import app.knottag.core.reach.NetworkState;
import app.knottag.core.reach.Outcome;
import app.knottag.core.reach.Question;
import app.knottag.core.reach.SiteModel;
import app.knottag.core.reach.SiteModel.Station;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** One device on the bench: what is typed in its menu takes hold with the next restart. */
final class Device {

    private static final int RESTART_SECONDS = 3;
    private static final int CLOCK_BEHIND = 40 * 86_400;
    private static final String UNSET = "Automatic";
    private static final ZoneId ZONE = ZoneId.of("Europe/Berlin");
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm:ss");

    /** What is mended when the menu is filled in anew and the device restarted. */
    private static final Set<Fault> IN_THE_MENU = EnumSet.of(
            Fault.STILL_AUTOMATIC,
            Fault.NOT_SAVED,
            Fault.ADDRESS_SLIP,
            Fault.MASK_WRONG,
            Fault.GATEWAY_WRONG,
            Fault.RESOLVER_WRONG,
            Fault.RESOLVER_MISSING,
            Fault.OTHER_PORT,
            Fault.DEVICE_POINTS_ELSEWHERE);

    private static final FaultBook BOOK = FaultBook.shipped();

    private final Optional<Kind> kind;
    private final Map<String, String> menu = new LinkedHashMap<>();
    private final EnumSet<Fault> faults = EnumSet.noneOf(Fault.class);
    private boolean typedAnew;
    private Station station;
    private Instant startedAt = Instant.EPOCH;

    Device(GardenCentre.Made made) {
        station = made.station();
        kind = made.kind();
        kind.ifPresent(k -> own(k).forEach(f -> menu.put(f.label(), made.setUp() ? setUp(f) : factory(f))));
    }

    /** The fields of its own menus; what its partner or a service must know is typed there. */
    private static List<MenuField> own(Kind kind) {
        return kind.menu().stream().filter(f -> !f.elsewhere()).toList();
    }

    private String setUp(MenuField field) {
        return switch (field.field()) {
            case OTHER -> field.text();
            case ADDRESS -> station.planned().toString();
            case MASK -> "255.255.255.0";
            case GATEWAY, RESOLVER_1 -> station.planned().toString().replaceAll("\\d+$", "1");
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

    /** Returns the device as it stands, with what is wrong about it. */
    Station station() {
        var standing = station;
        for (var fault : faults) standing = standing.with(fault);
        return standing;
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
            var field = own(kind.orElseThrow()).stream()
                    .filter(f -> f.label().equals(label))
                    .findFirst()
                    .orElseThrow(() -> new IllegalArgumentException("There is no field " + label + " in this menu."));
            if (field.field().figures() && !text.isBlank() && read(text).isEmpty())
                throw new IllegalArgumentException(
                        "The device beeps and does not take “" + text + "” for " + label + ".");
        });
        menu.replaceAll((label, text) -> typed.getOrDefault(label, text).strip());
        typedAnew = true;
    }

    private static Optional<Ipv4Address> read(String text) {
        return Optional.ofNullable(AddressReader.read(text, Purpose.RESOLVER, AddressContext.NONE)
                        .value())
                .filter(v -> !v.contains(":"))
                .map(Ipv4Address::parse);
    }

    /** Starts anew with what the menu says; what was typed anew is right afterwards. */
    void restart(Instant now) {
        startedAt = now.plusSeconds(RESTART_SECONDS);
        if (kind.isEmpty()) return;
        var fields = own(kind.get());
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
        faults.remove(Fault.NOT_RESTARTED);
        if (typedAnew) faults.removeAll(IN_THE_MENU);
        typedAnew = false;
    }

    /** One way to look at it, and what one sees. */
    record Seen(Question question, String words, String seen) {}

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
            List<Fault> faults,
            List<Fault> possible,
            List<Seen> questions) {}

    Face face(Instant now, Station standing) {
        var scene = standing.scene();
        boolean dark = shows(scene, Question.POWER) == Outcome.OFF;
        String screen = dark ? "Dark" : !up(now) ? "Starting…" : screen(standing, shows(scene, Question.ADDRESS_SHOWN));
        boolean swapped = shows(scene, Question.LABEL) == Outcome.OTHER;
        return new Face(
                station.id(),
                station.name(),
                kind.map(Kind::id).orElse(""),
                (swapped ? standing.answering() : standing.mac()).toString(),
                swapped ? SiteModel.OTHER_SERIAL : standing.serial(),
                station.leased().toString().replaceAll("\\.\\d+$", ""),
                screen,
                lights(shows(scene, Question.LINK).equals("lit")),
                up(now) && !dark ? CLOCK.format(shown(scene, now).atZone(ZONE)) : "",
                kind.isPresent(),
                menu,
                faults(),
                possible(),
                questions(scene));
    }

    private static String screen(Station standing, Outcome shown) {
        String planned = standing.planned().toString();
        return switch (shown) {
            case POOL -> "Address " + standing.leased();
            case SELF -> "Address 169.254.77." + planned.replaceAll(".*\\.", "");
            case FOREIGN -> "Address 192.0.2." + planned.replaceAll(".*\\.", "");
            case SLIP -> "Address " + slipped(planned);
            case IN_USE -> "Address in use";
            case NOTHING -> "Dark";
            default -> "Address " + planned;
        };
    }

    /** The slip of the hand: two figures of the third group swapped. */
    private static String slipped(String address) {
        return address.replaceAll("\\.(\\d)(\\d)\\.(\\d+)$", ".$2$1.$3");
    }

    /** What its own clock shows. */
    static Instant shown(NetworkState scene, Instant now) {
        return scene.clockRight() ? now : now.minusSeconds(CLOCK_BEHIND);
    }

    private static Outcome shows(NetworkState scene, Question question) {
        int seen = scene.observe(question);
        return question.outcomes().get(Math.max(0, seen));
    }

    /** What eyes see, look by look, in the words in which the question is asked. */
    private static List<Seen> questions(NetworkState scene) {
        return Arrays.stream(Question.values())
                .filter(l -> l.by() == Question.By.EYES && scene.possible(l))
                .map(l -> new Seen(
                        l,
                        l.words(),
                        scene.observe(l) == NetworkState.ANYTHING ? "Cannot be told" : BOOK.words(l, shows(scene, l))))
                .toList();
    }

    /** The faults that would show at it. */
    private List<Fault> possible() {
        var intended = station.intended();
        return Arrays.stream(Fault.values())
                .filter(c -> c != Fault.NOTHING && c.showsAnywhere(intended))
                .toList();
    }

    /** What its lights show: as they should, or, with no link, as the table has it for nothing. */
    private List<String> lights(boolean linked) {
        var shown = new LinkedHashMap<String, String>();
        for (var signal : kind.map(Kind::signals).orElse(List.of()))
            if (linked
                    ? signal.holds()
                    : signal.steadiness() == Steadiness.OFF || signal.means().equals("no link"))
                shown.putIfAbsent(signal.part(), signal.part() + ": " + signal.words());
        return List.copyOf(shown.values());
    }
}
