package app.knottag.server.plan;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Purpose;
import app.knottag.core.hardware.Mac;
import app.knottag.core.hardware.MacReader;
import app.knottag.core.hardware.MakerPrefixes;
import app.knottag.core.hardware.SerialReader;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.log.Words;
import app.knottag.core.plan.NameRule;
import app.knottag.core.reach.Bond.Change;
import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Finding.Code;
import app.knottag.core.reading.Reading;
import app.knottag.core.series.Series.Counts;
import app.knottag.core.tag.TagCode;
import app.knottag.server.hardware.InterfaceStore;
import app.knottag.server.hardware.InterfaceStore.InterfaceRow;
import app.knottag.server.hardware.Interfaces;
import app.knottag.server.hardware.Wires;
import app.knottag.server.log.Log;
import app.knottag.server.plan.EndpointStore.Written;
import app.knottag.server.reach.RoundStore;
import app.knottag.server.runbook.Runbooks;
import app.knottag.server.site.SiteStore;
import app.knottag.server.site.SiteStore.SeriesRow;
import app.knottag.server.site.Sites;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Problem;
import app.knottag.server.web.Problem.FieldError;
import java.time.Clock;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Adds, changes and retires endpoints; every text is read by core's readers first. */
@Service
public class Endpoints {

    private final EndpointStore store;
    private final SiteStore siteStore;
    private final Sites sites;
    private final Runbooks runbooks;
    private final Wires wires;
    private final Interfaces interfaces;
    private final InterfaceStore interfaceStore;
    private final RoundStore rounds;
    private final Conflicts conflicts;
    private final Kinds kinds;
    private final Log log;
    private final Clock clock;

    Endpoints(
            EndpointStore store,
            SiteStore siteStore,
            Sites sites,
            Runbooks runbooks,
            Wires wires,
            Interfaces interfaces,
            InterfaceStore interfaceStore,
            RoundStore rounds,
            Conflicts conflicts,
            Kinds kinds,
            Log log,
            Clock clock) {
        this.store = store;
        this.siteStore = siteStore;
        this.sites = sites;
        this.runbooks = runbooks;
        this.wires = wires;
        this.interfaces = interfaces;
        this.interfaceStore = interfaceStore;
        this.rounds = rounds;
        this.conflicts = conflicts;
        this.kinds = kinds;
        this.log = log;
        this.clock = clock;
    }

    public EndpointStore.Row get(long id) {
        return Optional.ofNullable(store.find(id)).orElseThrow(() -> Problem.notFound("There is no such endpoint."));
    }

    /** The series that an endpoint is numbered in: the one asked for, none for 0, else that of its kind's name. */
    Optional<SeriesRow> seriesOf(long siteId, Kind kind, Long wanted) {
        return siteStore.series(siteId).stream()
                .filter(s -> wanted != null ? s.id() == wanted : s.name().equals(kind.series()))
                .findFirst();
    }

    /** The series that count along with another one, such as listening ports with the tills. */
    List<SeriesRow> following(SeriesRow main) {
        return siteStore.series(main.siteId()).stream()
                .filter(s -> Objects.equals(s.followsId(), main.id()))
                .toList();
    }

    /** Context for reading an address of this endpoint, or of a new one (id 0). */
    public AddressContext context(long siteId, long segmentId, long endpointId) {
        var taken = store.holders(siteId).stream()
                .filter(h -> h.id() != endpointId)
                .map(EndpointStore.Holder::address)
                .filter(Objects::nonNull)
                .toList();
        return new AddressContext(
                Optional.of(sites.plain(sites.segment(segmentId))), Set.copyOf(taken), Optional.empty());
    }

    public Reading readMac(long siteId, long endpointId, String text) {
        return readMac(siteId, endpointId, Optional.empty(), text);
    }

    /** Reads a MAC for an endpoint and judges it by everything on record, other sites included. */
    public Reading readMac(long siteId, long endpointId, Optional<String> kind, String text) {
        var all = interfaceStore.ofSite(siteId);
        var known = all.stream()
                .filter(i -> i.endpointId() != endpointId)
                .map(InterfaceRow::mac)
                .toList();
        var reading = MacReader.read(text, known, Optional.empty());
        if (reading.value() == null) return reading;
        var mac = Mac.parse(reading.value());
        // What was looked at and kept is not asked about again.
        if (all.stream().anyMatch(i -> i.endpointId() == endpointId && i.mac().equals(mac) && i.counts()))
            reading = MacReader.read(text, known, Optional.of(mac));
        var more = new ArrayList<>(reading.findings());
        more.replaceAll(f ->
                f.code() == Code.KNOWN ? Finding.of(f.code(), mac + " is on record for " + holder(all, mac) + ".") : f);
        all.stream()
                .filter(i -> i.endpointId() == endpointId && i.mac().equals(mac) && !i.counts())
                .findFirst()
                .ifPresent(i -> more.add(Finding.of(
                        Code.NEIGHBOUR_INTERFACE,
                        mac + " is its " + i.medium().words() + " interface. Is that the one in use?")));
        Optional.ofNullable(store.elsewhere(siteId, mac))
                .ifPresent(e -> more.add(Finding.of(
                        Code.OTHER_SITE,
                        mac + " is on record at " + e.site() + " for " + e.name()
                                + ". Has the unit moved here? Then retire it there.")));
        kind.or(() -> Optional.ofNullable(store.find(endpointId)).map(EndpointStore.Row::kind))
                .flatMap(k -> makers(siteId, endpointId).oddFor(mac, k))
                .ifPresent(said -> more.add(Finding.of(Code.ODD_MAKER, said)));
        return new Reading(reading.value(), reading.notes(), more, reading.slip());
    }

    private String holder(List<InterfaceRow> all, Mac mac) {
        return all.stream()
                .filter(i -> i.mac().equals(mac))
                .findFirst()
                .map(i -> store.find(i.endpointId()).name()
                        + (i.counts() ? "" : ", as its " + i.medium().words() + " interface"))
                .orElse("another endpoint");
    }

    private MakerPrefixes makers(long siteId, long except) {
        return new MakerPrefixes(store.all(siteId).stream()
                .filter(e -> e.mac() != null && e.id() != except)
                .map(e -> new MakerPrefixes.Known(e.mac(), e.kind()))
                .toList());
    }

    public Reading readSerial(long siteId, String kind, long endpointId, String text) {
        return SerialReader.read(text, kinds.get(kind).serialPattern(), store.serials(siteId, kind, endpointId));
    }

    @Transactional
    public long add(long siteId, EndpointRequest wanted, String by) {
        var kind = kinds.find(wanted.kind())
                .orElseThrow(() -> Problem.field("kind", "no-such-kind", "There is no kind “" + wanted.kind() + "”."));
        var segment = sites.segmentOf(siteId, wanted.segmentId());
        var series = seriesOf(siteId, kind, wanted.seriesId());
        var input = new Input(wanted.reason());
        String name = input.words("name", wanted.name(), true);
        var address = input.read("address", wanted.address(), addressReader(siteId, wanted.segmentId(), 0));
        var mac = input.read("mac", wanted.mac(), t -> readMac(siteId, 0, t));
        var serial = input.read("serial", wanted.serial(), t -> readSerial(siteId, kind.id(), 0, t));
        String model = input.words("model", wanted.model(), false);
        var partner = input.partner(wanted.partnerName(), wanted.partnerAddress());
        var number = wanted.number();
        if (number != null && (number < 1 || number > 9999))
            input.add("number", "out-of-range", "A number runs from 1 to 9999.");
        var ends = input.ends(wanted.place(), wanted.outlet(), wanted.switchPort());
        String hostName = input.hostName(wanted.hostName());
        input.refuse();
        if (address != null) conflicts.refuseReserved(siteId, wanted.segmentId(), Ipv4Address.parse(address), name);
        var numbered = number == null ? Optional.<SeriesRow>empty() : series;
        // Names and codes are made here, so that two at once never make the same.
        store.oneAtATime(siteId);
        Long placeId = wires.place(siteId, ends.place());
        long id = store.add(new Written(
                0,
                siteId,
                wanted.segmentId(),
                kind.id(),
                kind.version(),
                name,
                hostName.isEmpty() ? hostName(siteId, kind, numbered, number, ends.place()) : hostName,
                numbered.map(SeriesRow::id).orElse(null),
                number,
                address == null ? null : Ipv4Address.parse(address),
                wanted.method() == null ? segment.method() : wanted.method().name(),
                wanted.servicePort() != null ? wanted.servicePort() : servicePort(kind, numbered, number),
                partner.map(p -> sites.keepPartner(siteId, p.name(), p.address(), wanted.partnerTestPort()))
                        .orElse(null),
                partner.flatMap(p -> partnerPort(numbered, number)).orElse(null),
                serial == null ? "" : serial,
                model,
                placeId,
                wires.outlet(siteId, ends.outlet(), placeId),
                wires.port(siteId, ends.port()),
                tagCode(siteId, kind, number)));
        interfaces.count(siteId, id, mac == null ? null : Mac.parse(mac));
        runbooks.stand(id);
        log.write(Log.entry(by, "endpoint added").at(siteId, id).after(get(id)).because(input.reason()));
        return id;
    }

    private Function<String, Reading> addressReader(long siteId, long segmentId, long id) {
        return t -> AddressReader.read(t, Purpose.ADDRESS, context(siteId, segmentId, id));
    }

    Integer servicePort(Kind kind, Optional<SeriesRow> series, Integer number) {
        return series.flatMap(s -> Sites.plain(s).port(number).stream().boxed().findFirst())
                .orElse(kind.service().defaultPort());
    }

    /** The port on which the partner listens for this one, when a series of listening ports counts along. */
    Optional<Integer> partnerPort(Optional<SeriesRow> series, Integer number) {
        return series.flatMap(main -> following(main).stream()
                .filter(s -> s.counts().equals(Counts.LISTENING_PORT.name()))
                .flatMap(s -> Sites.plain(s).port(number).stream().boxed())
                .findFirst());
    }

    /** The host name that the site's rule gives. */
    String hostName(long siteId, Kind kind, Optional<SeriesRow> series, Integer number, String place) {
        var site = sites.site(siteId);
        return new NameRule(site.nameRule())
                .name(
                        Map.of(
                                "site",
                                site.code(),
                                "kind",
                                kind.shortName(),
                                "series",
                                series.map(SeriesRow::name).orElse(""),
                                "number",
                                number == null ? "" : "" + number,
                                "place",
                                place),
                        store.hostNames(siteId));
    }

    private String tagCode(long siteId, Kind kind, Integer number) {
        String site = sites.site(siteId).code();
        var used = store.tagCodes(site + "-" + kind.codeLetter());
        for (int n = number == null ? 1 : number; ; n++) {
            String code = TagCode.of(site, kind.codeLetter() + n);
            if (!used.contains(code)) return code;
        }
    }

    @Transactional
    public void change(long id, int expected, ChangeRequest change, String by) {
        var was = get(id);
        var input = new Input(change.reason());
        String name = change.name() == null ? was.name() : input.words("name", change.name(), true);
        var address = input.changed(
                "address", change.address(), was.address(), addressReader(was.siteId(), was.segmentId(), id));
        var mac = input.changed("mac", change.mac(), was.mac(), t -> readMac(was.siteId(), id, t));
        var serial = input.changed(
                "serial", change.serial(), was.serial(), t -> readSerial(was.siteId(), was.kind(), id, t));
        String model = change.model() == null ? was.model() : input.words("model", change.model(), false);
        var ends = input.ends(
                kept(change.place(), was.place()),
                kept(change.outlet(), was.outlet()),
                kept(change.switchPort(), was.switchPort()));
        String hostName = change.hostName() == null ? was.hostName() : input.hostName(change.hostName());
        Long partnerId = was.partnerId();
        if (change.partnerName() != null)
            partnerId = input.partner(change.partnerName(), change.partnerAddress())
                    .map(p -> sites.keepPartner(was.siteId(), p.name(), p.address(), null))
                    .orElse(null);
        input.refuse();
        var next = address == null ? null : Ipv4Address.parse(address);
        if (next != null && !next.equals(was.address()))
            conflicts.refuseReserved(was.siteId(), was.segmentId(), next, name);
        Long placeId = wires.place(was.siteId(), ends.place());
        var row = new Written(
                id,
                was.siteId(),
                was.segmentId(),
                was.kind(),
                was.kindVersion(),
                name,
                hostName,
                was.seriesId(),
                was.number(),
                next,
                change.method() == null ? was.method() : change.method().name(),
                was.servicePort(),
                partnerId,
                partnerId == null ? null : was.partnerPort(),
                serial == null ? "" : serial,
                model,
                placeId,
                wires.outlet(was.siteId(), ends.outlet(), placeId),
                wires.port(was.siteId(), ends.port()),
                was.tagCode());
        if (store.change(row, expected) == 0) throw Etags.stale();
        boolean macChanged =
                !Objects.equals(mac, was.mac() == null ? null : was.mac().toString());
        if (macChanged) interfaces.count(was.siteId(), id, mac == null ? null : Mac.parse(mac));
        runbooks.undo(was, changes(was, row, macChanged, moved(was, ends)));
        if (moved(was, ends)) rounds.addChange(was.id(), RoundStore.Change.MOVE, by);
        changed(was, "endpoint changed", input.reason(), by);
    }

    private static Set<Change> changes(EndpointStore.Row was, Written is, boolean macChanged, boolean moved) {
        var changes = EnumSet.noneOf(Change.class);
        if (!Objects.equals(is.address(), was.address())) changes.add(Change.ADDRESS);
        if (!is.method().equals(was.method())) changes.add(Change.SETTINGS);
        if (macChanged || !is.serial().equals(was.serial())) changes.add(Change.UNIT);
        if (!Objects.equals(is.partnerId(), was.partnerId())) changes.add(Change.PARTNER);
        if (moved) changes.add(Change.PLACE);
        return changes;
    }

    /** A proof belongs to a place, an outlet and a port: elsewhere it says nothing. What was not known yet is only noted. */
    private static boolean moved(EndpointStore.Row was, Input.Ends ends) {
        return differs(was.place(), ends.place())
                || differs(was.outlet(), ends.outlet())
                || differs(was.switchPort(), ends.port());
    }

    private static boolean differs(String was, String is) {
        return !was.isEmpty() && !was.equalsIgnoreCase(is);
    }

    /** The old unit is gone with every interface it had; only the new unit's MAC stays. */
    @Transactional
    public void unitGone(long id, Mac stays) {
        interfaceStore.of(id).stream()
                .filter(i -> !i.mac().equals(stays))
                .forEach(i -> interfaceStore.retire(i.id(), clock.instant()));
    }

    /** Puts an endpoint away for repair or as a loan, or back in its place. */
    @Transactional
    public void away(long id, int expected, boolean away, String why, String by) {
        var was = get(id);
        var input = new Input("");
        String words = input.words("why", why, away);
        input.refuse();
        if (store.away(id, away ? clock.instant() : null, away ? words : "", expected) == 0) throw Etags.stale();
        log.write(Log.entry(by, away ? "endpoint put away" : "endpoint is back")
                .at(was.siteId(), id)
                .before(was)
                .because(words));
    }

    private static String kept(String wanted, String was) {
        return wanted == null ? was : wanted;
    }

    /** Gives an endpoint another address as part of a larger change; its proof is lost with the old one. */
    @Transactional
    public void move(long id, Ipv4Address to, String reason, String by) {
        var was = get(id);
        if (Objects.equals(to, was.address())) return;
        if (store.move(id, to) == 0) throw Etags.stale();
        runbooks.undo(was, EnumSet.of(Change.ADDRESS));
        changed(was, "endpoint moved", reason, by);
    }

    /** An endpoint that keeps its address is told another mask, gateway or resolver: what was typed and proved is not so any more. */
    @Transactional
    public void refit(long id, String reason, String by) {
        var was = get(id);
        runbooks.undo(was, EnumSet.of(Change.SETTINGS));
        changed(was, "endpoint told other figures", reason, by);
    }

    /** Gives a partner another address; whoever was proved with the old one has to be proved again. */
    @Transactional
    public void movePartner(long partnerId, Ipv4Address to, String reason, String by) {
        siteStore.movePartner(partnerId, to);
        for (long id : store.ofPartner(partnerId)) {
            var was = get(id);
            runbooks.undo(was, EnumSet.of(Change.PARTNER));
            changed(was, "partner moved", reason, by);
        }
    }

    private void changed(EndpointStore.Row was, String action, String reason, String by) {
        runbooks.stand(was.id());
        log.write(Log.entry(by, action)
                .at(was.siteId(), was.id())
                .before(was)
                .after(get(was.id()))
                .because(reason));
    }

    @Transactional
    public void retire(long id, int expected, String reason, String by) {
        var was = get(id);
        var input = new Input("");
        String why = input.words("reason", reason, true);
        input.refuse();
        if (store.retire(id, clock.instant(), expected) == 0) throw Etags.stale();
        interfaces.retireAll(id);
        log.write(Log.entry(by, "endpoint retired")
                .at(was.siteId(), id)
                .before(was)
                .because(why));
    }

    /** Gathers everything wrong with a form before refusing it. */
    static final class Input {
        // Not judged here: the database decides who wins, and the loser is told by whom it was taken.
        private static final Set<Code> CLASHES = EnumSet.of(Code.TAKEN, Code.KNOWN);
        private final List<FieldError> errors = new ArrayList<>();
        private final String reason;

        Input(String reason) {
            this.reason = words("reason", reason, false);
        }

        String reason() {
            return reason;
        }

        record Partner(String name, Ipv4Address address) {}

        record Ends(String place, String outlet, String port) {}

        Optional<Partner> partner(String name, String address) {
            String words = words("partnerName", name, false);
            var read =
                    read("partnerAddress", address, t -> AddressReader.read(t, Purpose.RESOLVER, AddressContext.NONE));
            if (words.isEmpty()) return Optional.empty();
            if (read == null) {
                if (errors.isEmpty()) add("partnerAddress", "missing", "Type the partner's address.");
                return Optional.empty();
            }
            return Optional.of(new Partner(words, Ipv4Address.parse(read)));
        }

        Ends ends(String place, String outlet, String port) {
            var ends = new Ends(
                    words("place", place, false), words("outlet", outlet, false), words("switchPort", port, false));
            Wires.portProblem(ends.port()).ifPresent(p -> add("switchPort", "bad-port", p));
            return ends;
        }

        String hostName(String text) {
            String name = text == null ? "" : text.strip().toLowerCase(Locale.ROOT);
            NameRule.problem(name).ifPresent(p -> add("hostName", "bad-host-name", p));
            return name;
        }

        String words(String field, String text, boolean needed) {
            String words = text == null ? "" : text.strip();
            Words.problem(words, needed).ifPresent(p -> add(field, "bad-words", p));
            return words;
        }

        String read(String field, String text, Function<String, Reading> reader) {
            if (text == null || text.isBlank()) return null;
            var reading = reader.apply(text);
            boolean usable = reading.value() != null
                    && reading.findings().stream().noneMatch(f -> f.code().refuses() && !settled(f.code()));
            if (usable
                    && !(field.toLowerCase(Locale.ROOT).endsWith("address")
                            && reading.value().contains(":"))) return reading.value();
            var finding = reading.findings().stream()
                    .filter(f -> reading.value() == null || f.code().refuses())
                    .findFirst();
            String wayOut = finding.filter(f -> f.code() == Code.IN_POOL).isPresent()
                    ? " To keep it all the same, say why."
                    : "";
            add(
                    field,
                    finding.map(f -> f.code().name()).orElse("IPV6"),
                    finding.map(f -> f.message()).orElse("Only IPv4 can be fixed here.") + wayOut);
            return null;
        }

        /** Clashes are for the database; an address in the pool may be kept by whoever says why. */
        private boolean settled(Code code) {
            return CLASHES.contains(code) || (code == Code.IN_POOL && !reason.isEmpty());
        }

        /** Reads a changed text; null keeps what was, and a text equal to what was is not judged again. */
        String changed(String field, String text, Object was, Function<String, Reading> reader) {
            String before = was == null || was.toString().isEmpty() ? null : was.toString();
            return text == null || text.equals(before) ? before : read(field, text, reader);
        }

        void add(String field, String code, String message) {
            errors.add(new FieldError("/" + field, code, message));
        }

        void refuse() {
            if (!errors.isEmpty()) throw Problem.fields(errors);
        }
    }
}
