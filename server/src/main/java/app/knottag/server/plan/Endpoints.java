package app.knottag.server.plan;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Purpose;
import app.knottag.core.hardware.Mac;
import app.knottag.core.hardware.MacReader;
import app.knottag.core.hardware.SerialReader;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.log.Words;
import app.knottag.core.reading.Finding.Code;
import app.knottag.core.reading.Reading;
import app.knottag.core.tag.TagCode;
import app.knottag.server.log.Log;
import app.knottag.server.runbook.Runbooks;
import app.knottag.server.site.SiteStore;
import app.knottag.server.site.Sites;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Problem;
import app.knottag.server.web.Problem.FieldError;
import java.time.Clock;
import java.util.ArrayList;
import java.util.EnumSet;
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
public class Endpoints {

    /** What is wanted of a new endpoint; null where the proposal or nothing is wanted. */
    public record Wanted(
            long segmentId,
            String kind,
            Integer number,
            String name,
            String address,
            String mac,
            String serial,
            String place,
            String outlet,
            String switchPort,
            String partnerName,
            String partnerAddress,
            Integer partnerTestPort,
            Integer servicePort,
            String reason) {}

    /** What is to change; null leaves as it is, empty text clears. */
    public record Change(
            String name,
            String address,
            String mac,
            String serial,
            String place,
            String outlet,
            String switchPort,
            String reason) {}

    private final EndpointStore store;
    private final SiteStore siteStore;
    private final Sites sites;
    private final Runbooks runbooks;
    private final Kinds kinds;
    private final Log log;
    private final Clock clock;

    Endpoints(
            EndpointStore store,
            SiteStore siteStore,
            Sites sites,
            Runbooks runbooks,
            Kinds kinds,
            Log log,
            Clock clock) {
        this.store = store;
        this.siteStore = siteStore;
        this.sites = sites;
        this.runbooks = runbooks;
        this.kinds = kinds;
        this.log = log;
        this.clock = clock;
    }

    public EndpointStore.Row get(long id) {
        return Optional.ofNullable(store.find(id)).orElseThrow(() -> Problem.notFound("There is no such endpoint."));
    }

    Optional<SiteStore.SeriesRow> seriesOf(long siteId, Kind kind) {
        return siteStore.series(siteId).stream()
                .filter(s -> s.name().equals(kind.series()))
                .findFirst();
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
        var known = store.holders(siteId).stream()
                .filter(h -> h.id() != endpointId)
                .map(EndpointStore.Holder::mac)
                .filter(Objects::nonNull)
                .toList();
        return MacReader.read(text, known, Optional.empty());
    }

    public Reading readSerial(long siteId, String kind, long endpointId, String text) {
        return SerialReader.read(text, kinds.get(kind).serialPattern(), store.serials(siteId, kind, endpointId));
    }

    @Transactional
    public long add(long siteId, Wanted wanted, String by) {
        var kind = kinds.find(wanted.kind())
                .orElseThrow(() -> Problem.field("kind", "no-such-kind", "There is no kind “" + wanted.kind() + "”."));
        if (sites.segment(wanted.segmentId()).siteId() != siteId)
            throw Problem.field("segmentId", "other-site", "That segment belongs to another site.");
        var series = seriesOf(siteId, kind);
        var input = new Input();
        String name = input.words("name", wanted.name(), true);
        var address = input.read(
                "address",
                wanted.address(),
                t -> AddressReader.read(t, Purpose.ADDRESS, context(siteId, wanted.segmentId(), 0)));
        var mac = input.read("mac", wanted.mac(), t -> readMac(siteId, 0, t));
        var serial = input.read("serial", wanted.serial(), t -> readSerial(siteId, kind.id(), 0, t));
        var partnerAddress = input.read(
                "partnerAddress",
                wanted.partnerAddress(),
                t -> AddressReader.read(t, Purpose.RESOLVER, AddressContext.NONE));
        String partnerName = input.words("partnerName", wanted.partnerName(), false);
        if (!partnerName.isEmpty() && partnerAddress == null)
            input.add("partnerAddress", "missing", "Type the partner's address.");
        var number = wanted.number();
        if (number != null && (number < 1 || number > 9999))
            input.add("number", "out-of-range", "A number runs from 1 to 9999.");
        String place = input.words("place", wanted.place(), false),
                outlet = input.words("outlet", wanted.outlet(), false);
        String switchPort = input.words("switchPort", wanted.switchPort(), false),
                reason = input.words("reason", wanted.reason(), false);
        input.refuse();
        Long partner = partnerName.isEmpty()
                ? null
                : sites.keepPartner(siteId, partnerName, Ipv4Address.parse(partnerAddress), wanted.partnerTestPort());
        Integer port = wanted.servicePort() != null
                ? wanted.servicePort()
                : Integer.valueOf(series.filter(s -> number != null)
                        .flatMap(s ->
                                Sites.plain(s).port(number).stream().boxed().findFirst())
                        .orElse(kind.service().defaultPort()));
        var row = new EndpointStore.Row(
                0,
                siteId,
                wanted.segmentId(),
                kind.id(),
                kind.version(),
                name,
                number == null ? null : series.map(SiteStore.SeriesRow::id).orElse(null),
                number,
                address == null ? null : Ipv4Address.parse(address),
                "FIXED",
                port,
                partner,
                serial == null ? "" : serial,
                null,
                place,
                outlet,
                switchPort,
                tagCode(siteId, kind, number),
                "PLAN",
                "OPEN",
                null,
                null,
                null,
                1);
        long id = store.add(row);
        if (mac != null) store.addInterface(id, siteId, Mac.parse(mac));
        runbooks.stand(id);
        log.write(Log.entry(by, "endpoint added").at(siteId, id).after(get(id)).because(reason));
        return id;
    }

    private String tagCode(long siteId, Kind kind, Integer number) {
        String site = sites.site(siteId).code();
        for (int n = number == null ? 1 : number; ; n++) {
            String code = TagCode.of(site, kind.codeLetter() + n);
            if (!store.tagged(code)) return code;
        }
    }

    @Transactional
    public void change(long id, int expected, Change change, String by) {
        var was = get(id);
        var input = new Input();
        String name = change.name() == null ? was.name() : input.words("name", change.name(), true);
        var address = input.changed(
                "address",
                change.address(),
                was.address(),
                t -> AddressReader.read(t, Purpose.ADDRESS, context(was.siteId(), was.segmentId(), id)));
        var mac = input.changed("mac", change.mac(), was.mac(), t -> readMac(was.siteId(), id, t));
        var serial = input.changed(
                "serial", change.serial(), was.serial(), t -> readSerial(was.siteId(), was.kind(), id, t));
        String place = change.place() == null ? was.place() : input.words("place", change.place(), false);
        String outlet = change.outlet() == null ? was.outlet() : input.words("outlet", change.outlet(), false);
        String switchPort =
                change.switchPort() == null ? was.switchPort() : input.words("switchPort", change.switchPort(), false);
        String reason = input.words("reason", change.reason(), false);
        input.refuse();
        var row = new EndpointStore.Row(
                id,
                was.siteId(),
                was.segmentId(),
                was.kind(),
                was.kindVersion(),
                name,
                was.seriesId(),
                was.number(),
                address == null ? null : Ipv4Address.parse(address),
                was.method(),
                was.servicePort(),
                was.partnerId(),
                serial == null ? "" : serial,
                null,
                place,
                outlet,
                switchPort,
                was.tagCode(),
                was.station(),
                was.knot(),
                was.confirmedAt(),
                was.confirmedBy(),
                null,
                was.version());
        if (store.change(row, expected) == 0) throw Etags.stale();
        boolean macChanged =
                !Objects.equals(mac, was.mac() == null ? null : was.mac().toString());
        if (macChanged) {
            store.retireInterfaces(id, clock.instant());
            if (mac != null) store.addInterface(id, was.siteId(), Mac.parse(mac));
        }
        boolean addressChanged = !Objects.equals(row.address(), was.address());
        if (addressChanged || macChanged || !row.serial().equals(was.serial())) runbooks.undo(was, addressChanged);
        runbooks.stand(id);
        log.write(Log.entry(by, "endpoint changed")
                .at(was.siteId(), id)
                .before(was)
                .after(get(id))
                .because(reason));
    }

    @Transactional
    public void retire(long id, int expected, String reason, String by) {
        var was = get(id);
        var input = new Input();
        String why = input.words("reason", reason, true);
        input.refuse();
        if (store.retire(id, clock.instant(), expected) == 0) throw Etags.stale();
        store.retireInterfaces(id, clock.instant());
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

        String words(String field, String text, boolean needed) {
            String words = text == null ? "" : text.strip();
            Words.problem(words, needed).ifPresent(p -> add(field, "bad-words", p));
            return words;
        }

        String read(String field, String text, Function<String, Reading> reader) {
            if (text == null || text.isBlank()) return null;
            var reading = reader.apply(text);
            boolean usable = reading.value() != null
                    && reading.findings().stream().noneMatch(f -> f.code().refuses() && !CLASHES.contains(f.code()));
            if (usable
                    && !(field.toLowerCase(Locale.ROOT).endsWith("address")
                            && reading.value().contains(":"))) return reading.value();
            var finding = reading.findings().stream()
                    .filter(f -> reading.value() == null || f.code().refuses())
                    .findFirst();
            add(
                    field,
                    finding.map(f -> f.code().name()).orElse("IPV6"),
                    finding.map(f -> f.message()).orElse("Only IPv4 can be fixed here so far."));
            return null;
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
