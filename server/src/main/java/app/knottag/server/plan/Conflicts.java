package app.knottag.server.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Planner;
import app.knottag.server.hardware.InterfaceStore;
import app.knottag.server.site.Sites;
import app.knottag.server.web.Problem;
import java.util.HashMap;
import java.util.Map;
import java.util.function.Supplier;
import org.postgresql.util.PSQLException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.stereotype.Component;

/** Two people may want the same thing at once; the database lets one win, and the other learns who took it. */
@Component
public class Conflicts {

    private final EndpointStore store;
    private final Sites sites;
    private final InterfaceStore interfaces;

    Conflicts(EndpointStore store, Sites sites, InterfaceStore interfaces) {
        this.store = store;
        this.sites = sites;
        this.interfaces = interfaces;
    }

    /** What was wanted, as far as it can clash. */
    public record Wanted(long siteId, long segmentId, String address, String mac) {}

    public <T> T guard(Wanted wanted, Supplier<T> work) {
        try {
            return work.get();
        } catch (DataIntegrityViolationException e) {
            if (e.getRootCause() instanceof PSQLException sql && sql.getServerErrorMessage() != null)
                throw explain(String.valueOf(sql.getServerErrorMessage().getConstraint()), wanted, e);
            throw e;
        }
    }

    private RuntimeException explain(String constraint, Wanted wanted, DataIntegrityViolationException e) {
        return switch (constraint) {
            case "endpoint_address_once" -> addressTaken(wanted);
            case "interface_mac_once" -> macTaken(wanted);
            case "endpoint_name_once" ->
                Problem.conflict(
                        "name",
                        "name-taken",
                        "Another endpoint of this site is called so. Choose another name.",
                        Map.of());
            case "endpoint_number_once" ->
                Problem.conflict("number", "number-taken", "That number was just taken. Take the next one.", Map.of());
            case "endpoint_serial_once" ->
                Problem.conflict(
                        "serial",
                        "serial-taken",
                        "That serial is already on record for another endpoint of this kind.",
                        Map.of());
            case "endpoint_host_name_once" ->
                Problem.conflict(
                        "hostName",
                        "host-name-taken",
                        "Another endpoint of this site has that host name. Leave it empty to have one made.",
                        Map.of());
            case "endpoint_partner_port_once" ->
                Problem.conflict(
                        "number",
                        "listening-port-taken",
                        "The partner listens for another endpoint on that port already. Take another number.",
                        Map.of());
            case "endpoint_port_once" ->
                Problem.conflict(
                        "switchPort",
                        "port-taken",
                        "Another endpoint is on that port already. Choose another port.",
                        Map.of());
            case "endpoint_tag_code_once" ->
                Problem.conflict(
                        "name", "tag-code-taken", "Somebody added one at the same moment. Send it again.", Map.of());
            case "endpoint_address_in_segment" ->
                Problem.field("address", "OUTSIDE_SEGMENT", "The address does not belong to the segment.");
            case "endpoint_address_not_gateway" ->
                Problem.field("address", "IS_GATEWAY", "That address is the gateway of the segment.");
            default -> e;
        };
    }

    private static boolean sameMac(Mac mac, String text) {
        return text != null && mac.toString().replace(":", "").equalsIgnoreCase(text.replaceAll("[^0-9A-Fa-f]", ""));
    }

    private Problem addressTaken(Wanted wanted) {
        var living = new HashMap<Ipv4Address, String>();
        store.holders(wanted.siteId()).stream()
                .filter(h -> h.address() != null)
                .forEach(h -> living.put(h.address(), h.name()));
        if (wanted.address() == null)
            return Problem.conflict(
                    "", "address-taken", "Somebody took one of these addresses just now. Look again.", Map.of());
        var address = Ipv4Address.parse(wanted.address());
        var next = new Planner(sites.plain(sites.segment(wanted.segmentId())), living).nextFree(address);
        String by = living.getOrDefault(address, "another endpoint");
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

    private Problem macTaken(Wanted wanted) {
        var holder = interfaces.ofSite(wanted.siteId()).stream()
                .filter(i -> sameMac(i.mac(), wanted.mac()))
                .findFirst();
        String by = holder.map(i -> store.find(i.endpointId()).name()).orElse("another endpoint");
        String which = holder.filter(i -> !i.counts())
                .map(i -> ", as its " + i.medium().words() + " interface")
                .orElse("");
        return Problem.conflict(
                "mac",
                "mac-taken",
                wanted.mac() + " is already registered for " + by + which + ".",
                Map.of("takenBy", by));
    }
}
