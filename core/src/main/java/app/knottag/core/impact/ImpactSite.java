package app.knottag.core.impact;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Segment;
import app.knottag.core.kind.Protocol;
import app.knottag.core.plan.Method;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** A site as far as a change can be felt there, as it is on record. */
public record ImpactSite(
        List<Network> networks,
        List<Device> devices,
        List<Partner> partners,
        List<Service> services,
        List<Book> lists,
        List<Box> gear,
        List<Open> openings,
        int rules) {

    /** @param vlan 1..4094 */
    public record Network(long id, String name, Segment segment, List<Ipv4Address> resolvers, Optional<Integer> vlan) {}

    /**
     * An endpoint.
     *
     * @param keyed whether its figures have been typed in yet, so that there is something to change
     * @param callers who has its address though no record says which of them, in a sentence; empty when the record says
     */
    public record Device(
            long id,
            String name,
            String place,
            long network,
            Optional<Ipv4Address> address,
            Method method,
            boolean keyed,
            boolean labelled,
            Calls calls,
            Upkeep upkeep,
            String callers) {}

    /**
     * Whom a device needs.
     *
     * @param partner number of the partner whose address it has
     * @param out whether it calls something on the internet
     * @param services numbers of the listed services that its kind calls
     * @param clock whether its clock counts
     * @param mail the mailbox it signs in to, when it is on record
     * @param mails whether it sends mail at all
     * @param watches whether it restarts the router when the line is dead
     * @param port gear and port that it is plugged into
     */
    public record Calls(
            Optional<Long> partner,
            boolean out,
            Set<Long> services,
            boolean clock,
            Optional<String> mail,
            boolean mails,
            boolean watches,
            Optional<Plug> port) {}

    /** @param label what the label of the port says */
    public record Plug(long gear, String label) {}

    /**
     * What it takes to set something on a device and to prove it.
     *
     * @param typing usual minutes to type its figures and read them back
     * @param restart usual minutes that it takes to restart, which nobody stands beside
     * @param proving usual minutes to prove it
     * @param job its real job, as a request
     */
    public record Upkeep(int typing, int restart, int proving, String job) {}

    public record Partner(long id, String name, Ipv4Address address) {}

    /**
     * A service that the site lists, by its address or by its name.
     *
     * @param said whether it is on record which kinds call it
     */
    public record Service(long id, String name, Protocol protocol, String host, boolean said) {}

    /**
     * A list in which devices stand.
     *
     * @param reserves whether it keeps addresses by MAC
     * @param network the one it is for; empty when for the whole site
     */
    public record Book(long id, String name, boolean reserves, Optional<Long> network, List<Entry> entries) {}

    /**
     * @param device number of the endpoint, which may be retired by now
     * @param name what the list calls it
     * @param address what the list holds, if it holds addresses
     * @param owner who answers for it, or empty
     */
    public record Entry(long device, String name, Optional<Ipv4Address> address, String owner) {}

    /** @param networks numbers of the networks of its ports, as far as they are on record */
    public record Box(long id, String name, boolean router, Set<Long> networks) {}

    /** Something that stands open on a device, and who is to close it. */
    public record Open(long device, String title, String owner) {}
}
