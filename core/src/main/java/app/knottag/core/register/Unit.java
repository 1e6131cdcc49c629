package app.knottag.core.register;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Interface;
import app.knottag.core.hardware.Mac;
import java.util.List;
import java.util.Optional;

/**
 * What is true of one endpoint, as far as registrations go.
 *
 * @param id id of the endpoint
 * @param personal whether a device of this kind belongs to one person, rather than being shared
 * @param kind id of its kind
 * @param reserved whether a DHCP server keeps its address
 * @param away whether it is out for repair or lent
 * @param retired whether it is off the site for good
 */
public record Unit(
        long id,
        String name,
        String hostName,
        String kind,
        boolean personal,
        long segmentId,
        List<Interface> interfaces,
        Optional<Ipv4Address> address,
        String serial,
        String model,
        boolean reserved,
        boolean away,
        boolean retired) {

    public Unit {
        interfaces = List.copyOf(interfaces);
    }

    /** Returns the MAC of the interface that counts. */
    public Optional<Mac> mac() {
        return interfaces.stream().filter(Interface::counts).map(Interface::mac).findFirst();
    }

    /** Whether one of its interfaces has this MAC. */
    public boolean has(Mac mac) {
        return interfaces.stream().anyMatch(i -> i.mac().equals(mac));
    }
}
