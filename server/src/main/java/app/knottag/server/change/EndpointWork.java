package app.knottag.server.change;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Purpose;
import app.knottag.core.hardware.Mac;
import app.knottag.core.kind.Kinds;
import app.knottag.core.log.Words;
import app.knottag.core.plan.NameRule;
import app.knottag.core.reach.ProofBasis;
import app.knottag.core.reading.Finding.Code;
import app.knottag.core.reading.Reading;
import app.knottag.server.log.Log;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.EndpointStore.Written;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.InterfaceStore;
import app.knottag.server.record.Interfaces;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.SiteStore.SeriesRow;
import app.knottag.server.record.Sites;
import app.knottag.server.record.Wires;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Problem;
import app.knottag.server.web.Problem.FieldError;
import java.time.Clock;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Adds, changes and retires endpoints; every text is read by core's readers first. */
@Service
public class EndpointWork {

    private final Endpoints endpoints;
    private final Numbering numbering;
    private final EndpointStore store;
    private final SiteStore siteStore;
    private final Sites sites;
    private final Consequences consequences;
    private final Wires wires;
    private final Interfaces interfaces;
    private final InterfaceStore interfaceStore;
    private final Conflicts conflicts;
    private final Kinds kinds;
    private final Log log;
    private final Clock clock;

    EndpointWork(
            Endpoints endpoints,
            Numbering numbering,
            EndpointStore store,
            SiteStore siteStore,
            Sites sites,
            Consequences consequences,
            Wires wires,
            Interfaces interfaces,
            InterfaceStore interfaceStore,
            Conflicts conflicts,
            Kinds kinds,
            Log log,
            Clock clock) {
        this.endpoints = endpoints;
        this.numbering = numbering;
        this.store = store;
        this.siteStore = siteStore;
        this.sites = sites;
        this.consequences = consequences;
        this.wires = wires;
        this.interfaces = interfaces;
        this.interfaceStore = interfaceStore;
        this.conflicts = conflicts;
        this.kinds = kinds;
        this.log = log;
        this.clock = clock;
    }

    @Transactional
    public long add(long siteId, EndpointRequest wanted, String by) {
        var kind = kinds.find(wanted.kind())
                .orElseThrow(() -> Problem.field("kind", "no-such-kind", "There is no kind “" + wanted.kind() + "”."));
        var segment = sites.segmentOf(siteId, wanted.segmentId());
        var series = numbering.seriesOf(siteId, kind, wanted.seriesId());
        var input = new Input(wanted.reason());
        String name = input.words("name", wanted.name(), true);
        var address = input.read("address", wanted.address(), addressReader(siteId, wanted.segmentId(), 0));
        var mac = input.read("mac", wanted.mac(), t -> endpoints.readMac(siteId, 0, t));
        var serial = input.read("serial", wanted.serial(), t -> endpoints.readSerial(siteId, kind.id(), 0, t));
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
                hostName.isEmpty() ? numbering.hostName(siteId, kind, numbered, number, ends.place()) : hostName,
                numbered.map(SeriesRow::id).orElse(null),
                number,
                address == null ? null : Ipv4Address.parse(address),
                wanted.method() == null ? segment.method() : wanted.method(),
                wanted.servicePort() != null ? wanted.servicePort() : numbering.servicePort(kind, numbered, number),
                partner.map(p -> partner(siteId, p, wanted.partnerTestPort(), input.reason(), by))
                        .orElse(null),
                partner.flatMap(p -> numbering.partnerPort(numbered, number)).orElse(null),
                serial == null ? "" : serial,
                model,
                placeId,
                wires.outlet(siteId, ends.outlet(), placeId),
                wires.port(siteId, ends.port()),
                numbering.tagCode(siteId, kind, number)));
        interfaces.count(siteId, id, mac == null ? null : Mac.parse(mac));
        consequences.stand(id);
        log.write(Log.entry(by, "endpoint added")
                .at(siteId, id)
                .after(endpoints.get(id))
                .because(input.reason()));
        return id;
    }

    private Function<String, Reading> addressReader(long siteId, long segmentId, long id) {
        return t -> AddressReader.read(t, Purpose.ADDRESS, endpoints.context(siteId, segmentId, id));
    }

    @Transactional
    public void change(long id, int expected, ChangeRequest change, String by) {
        var was = endpoints.get(id);
        var input = new Input(change.reason());
        String name = change.name() == null ? was.name() : input.words("name", change.name(), true);
        var address = input.changed(
                "address", change.address(), was.address(), addressReader(was.siteId(), was.segmentId(), id));
        var mac = input.changed("mac", change.mac(), was.mac(), t -> endpoints.readMac(was.siteId(), id, t));
        var serial = input.changed(
                "serial", change.serial(), was.serial(), t -> endpoints.readSerial(was.siteId(), was.kind(), id, t));
        String model = change.model() == null ? was.model() : input.words("model", change.model(), false);
        var ends = input.ends(
                kept(change.place(), was.place()),
                kept(change.outlet(), was.outlet()),
                kept(change.switchPort(), was.switchPort()));
        String hostName = change.hostName() == null ? was.hostName() : input.hostName(change.hostName());
        var partner = input.partner(change.partnerName(), change.partnerAddress());
        input.refuse();
        var next = address == null ? null : Ipv4Address.parse(address);
        if (next != null && !next.equals(was.address()))
            conflicts.refuseReserved(was.siteId(), was.segmentId(), next, name);
        var before = consequences.before(was);
        Long partnerId = change.partnerName() == null
                ? was.partnerId()
                : partner.map(p -> partner(was.siteId(), p, null, input.reason(), by))
                        .orElse(null);
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
                change.method() == null ? was.method() : change.method(),
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
        changed(was, before, "endpoint changed", input.reason(), by);
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
        var was = endpoints.get(id);
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
        var was = endpoints.get(id);
        if (Objects.equals(to, was.address())) return;
        var before = consequences.before(was);
        if (store.move(id, to) == 0) throw Etags.stale();
        changed(was, before, "endpoint moved", reason, by);
    }

    /** An endpoint that keeps its address is told another mask, gateway or resolver: what was typed and proved is not so any more. */
    @Transactional
    public void refit(long id, String reason, String by) {
        var was = endpoints.get(id);
        consequences.told(was);
        logged(was, "endpoint told other figures", reason, by);
    }

    /** Keeps a partner by its name; when it has another address since, whoever was proved with the old one is told so. */
    private long partner(long siteId, Input.Partner p, Integer testPort, String reason, String by) {
        siteStore.partners(siteId).stream()
                .filter(known ->
                        known.name().equals(p.name()) && !known.address().equals(p.address()))
                .forEach(known -> movePartner(known.id(), p.address(), reason, by));
        return sites.keepPartner(siteId, p.name(), p.address(), testPort);
    }

    /** Gives a partner another address; whoever was proved with the old one has to be proved again. */
    @Transactional
    public void movePartner(long partnerId, Ipv4Address to, String reason, String by) {
        var before = new LinkedHashMap<EndpointStore.Row, ProofBasis>();
        for (long id : store.ofPartner(partnerId))
            before.put(endpoints.get(id), consequences.before(endpoints.get(id)));
        siteStore.movePartner(partnerId, to);
        before.forEach((was, basis) -> changed(was, basis, "partner moved", reason, by));
    }

    private void changed(EndpointStore.Row was, ProofBasis before, String action, String reason, String by) {
        consequences.apply(was.id(), before, by);
        logged(was, action, reason, by);
    }

    private void logged(EndpointStore.Row was, String action, String reason, String by) {
        log.write(Log.entry(by, action)
                .at(was.siteId(), was.id())
                .before(was)
                .after(endpoints.get(was.id()))
                .because(reason));
    }

    @Transactional
    public void retire(long id, int expected, String reason, String by) {
        var was = endpoints.get(id);
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
                    finding.map(f -> Problem.word(f.code())).orElse("ipv6"),
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
