package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import java.util.List;
import java.util.Optional;

/**
 * Where a machine stands on the network just now: its links that are up and have an address.
 *
 * @param links empty when its own cable is out or it has no address
 */
public record Here(List<Link> links) {

    public Here {
        links = List.copyOf(links);
    }

    /**
     * One link.
     *
     * @param name what the machine calls it
     * @param address its own address there
     * @param prefix the network that it takes for its own there
     */
    public record Link(String name, Ipv4Address address, Ipv4Prefix prefix) {}

    /** Returns its own addresses. */
    public List<Ipv4Address> addresses() {
        return links.stream().map(Link::address).toList();
    }

    /** Returns the link on which an address is asked directly, empty when the way there leads over a router. */
    public Optional<Link> direct(Ipv4Address address) {
        return links.stream().filter(l -> l.prefix().contains(address)).findFirst();
    }
}
