package app.knottag.server.change;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Planner;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.InterfaceStore;
import app.knottag.server.record.SitePlans;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import org.postgresql.util.PSQLException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.stereotype.Component;

/**
 * Two people may want the same thing at once; the database lets one win, and the other learns who took it. What clashed is
 * read from the database's own word on it, never from what was typed.
 */
@Component
public class Conflicts {

    /** “Key (site_id, lower(name))=(3, till 1) already exists.” */
    private static final Pattern KEY = Pattern.compile("=\\((.*)\\) already exists", Pattern.DOTALL);

    private final EndpointStore store;
    private final Sites sites;
    private final SitePlans plans;
    private final InterfaceStore interfaces;
    private final Clock clock;

    Conflicts(EndpointStore store, Sites sites, SitePlans plans, InterfaceStore interfaces, Clock clock) {
        this.store = store;
        this.sites = sites;
        this.plans = plans;
        this.interfaces = interfaces;
        this.clock = clock;
    }

    /** Runs work on a segment of a site, and turns a clash in the database into a refusal that says with whom. */
    public <T> T guard(long siteId, long segmentId, Supplier<T> work) {
        try {
            return work.get();
        } catch (DataIntegrityViolationException e) {
            if (e.getRootCause() instanceof PSQLException sql && sql.getServerErrorMessage() != null) {
                var said = sql.getServerErrorMessage();
                throw explain(
                        String.valueOf(said.getConstraint()), String.valueOf(said.getDetail()), siteId, segmentId, e);
            }
            throw e;
        }
    }

    private RuntimeException explain(
            String constraint, String detail, long siteId, long segmentId, DataIntegrityViolationException e) {
        var key = KEY.matcher(detail);
        String[] values = key.find() ? key.group(1).split(", ", 3) : new String[] {"", "", ""};
        String last = values[values.length - 1];
        return switch (constraint) {
            case "endpoint_address_once" -> addressTaken(siteId, segmentId, last);
            case "interface_mac_once" -> macTaken(siteId, last);
            case "endpoint_name_once" ->
                taken("name", "name-taken", "Another endpoint of this site is called so. Choose another name.", "");
            case "endpoint_number_once" -> numberTaken(values[0], last);
            case "endpoint_serial_once" -> {
                String by = store.withSerial(siteId, last);
                yield taken(
                        "serial",
                        "serial-taken",
                        "The serial " + last + " is on record for " + who(by) + " already.",
                        by);
            }
            case "endpoint_host_name_once" -> {
                String by = store.withHostName(siteId, last);
                yield taken(
                        "hostName",
                        "host-name-taken",
                        who(by) + " has the host name " + last + ". Leave it empty to have one made.",
                        by);
            }
            case "endpoint_partner_port_once" -> {
                String by = store.withPartnerPort(number(values[0]), number(last));
                yield taken(
                        "number",
                        "listening-port-taken",
                        "The partner listens for " + who(by) + " on port " + last + " already. Take another number.",
                        by);
            }
            case "endpoint_port_once" -> {
                String by = store.onPort(number(last)), free = store.nextFreePort(number(last));
                yield taken(
                        "switchPort",
                        "port-taken",
                        who(by) + " is on that port already."
                                + (free == null
                                        ? " No other port of it is free."
                                        : " The next free one is " + free + "."),
                        by);
            }
            case "endpoint_tag_code_once" ->
                taken("name", "tag-code-taken", "Somebody added one at the same moment. Send it again.", "");
            case "endpoint_address_in_segment" ->
                Problem.field("address", "outside-segment", "The address does not belong to the segment.");
            case "endpoint_address_not_gateway" ->
                Problem.field("address", "is-gateway", "That address is the gateway of the segment.");
            case "endpoint_segment_living" ->
                Problem.field(
                        "segmentId",
                        "segment-removed",
                        "That segment was removed from the site sheet. Choose a segment that is there.");
            default -> e;
        };
    }

    private static String who(String name) {
        return name == null ? "another endpoint" : name;
    }

    private static long number(String digits) {
        return digits.matches("[0-9]{1,18}") ? Long.parseLong(digits) : -1;
    }

    private static Problem taken(String field, String code, String message, String by) {
        return Problem.conflict(field, code, message, by == null || by.isEmpty() ? Map.of() : Map.of("takenBy", by));
    }

    private Problem numberTaken(String series, String number) {
        var given = store.numbers(number(series));
        String by = store.withNumber(number(series), (int) number(number));
        int next = IntStream.iterate(1, n -> n + 1)
                .filter(n -> !given.contains(n))
                .findFirst()
                .orElseThrow();
        return taken(
                "number",
                "number-taken",
                "Number " + number + " is taken by " + who(by) + ". The next free one is " + next + ".",
                by);
    }

    private Problem addressTaken(long siteId, long segmentId, String text) {
        var read = Ipv4Address.read(text);
        if (read.isEmpty() || segmentId == 0)
            return Problem.conflict(
                    "", "address-taken", "Somebody took one of these addresses just now. Look again.", Map.of());
        var address = read.get();
        var occupied = plans.occupied(siteId, clock.instant());
        var next = new Planner(sites.plain(sites.segment(segmentId)), occupied).nextFree(address);
        return held(address, occupied.held().getOrDefault(address, "another endpoint"), next);
    }

    private static Problem held(Ipv4Address address, String by, Optional<Ipv4Address> next) {
        return Problem.conflict(
                "address",
                "address-taken",
                address + " is taken by " + by + "."
                        + next.map(n -> " The next free one is " + n + ".").orElse(" No other is free."),
                Map.of(
                        "takenBy",
                        by,
                        "nextFree",
                        next.map(Ipv4Address::toString).orElse("")));
    }

    /** Refuses an address that the site itself needs: its gateway, a resolver, a listed service, a partner. */
    void refuseReserved(long siteId, long segmentId, Ipv4Address address, String name) {
        String by = Optional.ofNullable(plans.reserved(siteId).get(address))
                .or(() -> Optional.ofNullable(plans.partners(siteId).get(address)))
                .orElse("");
        // What the site lists may be onboarded under its own name.
        if (by.isEmpty() || by.equalsIgnoreCase(name)) return;
        var next = new Planner(sites.plain(sites.segment(segmentId)), plans.occupied(siteId, clock.instant()))
                .nextFree(address);
        throw held(address, by, next);
    }

    /** Refuses a partner an address that an endpoint has. */
    void refusePartner(long siteId, String name, Ipv4Address address) {
        store.otherAt(siteId, address, name).ifPresent(by -> {
            throw taken(
                    "partnerAddress",
                    "address-taken",
                    address + " is taken by " + by + ". Read the partner's address once more, or move " + by
                            + " first.",
                    by);
        });
    }

    private Problem macTaken(long siteId, String text) {
        var mac = Mac.parse(text);
        var holder = interfaces.ofSite(siteId).stream()
                .filter(i -> i.mac().equals(mac))
                .findFirst();
        String by = holder.map(i -> store.find(i.endpointId()).name()).orElse("another endpoint");
        String which = holder.filter(i -> !i.counts())
                .map(i -> ", as its " + i.medium().words() + " interface")
                .orElse("");
        return taken("mac", "mac-taken", mac + " is already registered for " + by + which + ".", by);
    }
}
