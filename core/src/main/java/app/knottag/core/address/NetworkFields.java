package app.knottag.core.address;

import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Finding.Code;
import java.util.Optional;

/** Whether address, mask and gateway agree with one another (RFC 950), and which of them is the odd one. */
public final class NetworkFields {

    private NetworkFields() {}

    /** The field that does not fit the others, and why. */
    public record Odd(Purpose field, Finding finding) {}

    /**
     * Returns the field that is odd, or empty when a device with these three works.
     *
     * @param mask four groups; need not be contiguous, that is judged here
     */
    public static Optional<Odd> judge(Ipv4Address address, Ipv4Address mask, Ipv4Address gateway) {
        int length = Integer.bitCount(mask.bits());
        if (!Ipv4Prefix.maskOf(length).equals(mask))
            return odd(
                    Purpose.MASK,
                    Code.NOT_CONTIGUOUS,
                    mask + " is no mask: its ones are not in one piece. Nearest: " + Ipv4Prefix.maskOf(length) + ".");
        var prefix = Ipv4Prefix.around(address, length);
        if (!prefix.usable(address))
            return odd(
                    Purpose.ADDRESS,
                    address.equals(prefix.network()) ? Code.NETWORK_ADDRESS : Code.BROADCAST_ADDRESS,
                    address + (address.equals(prefix.network()) ? " names the network" : " is the broadcast address of")
                            + " " + prefix + "; no device can have it.");
        if (address.equals(gateway))
            return odd(Purpose.GATEWAY, Code.IS_GATEWAY, "Address and gateway are both " + address + ".");
        if (!prefix.contains(gateway))
            return odd(
                    Purpose.GATEWAY,
                    Code.OUTSIDE_SEGMENT,
                    "With mask " + mask + " the device at " + address + " cannot reach the gateway " + gateway
                            + ": it is outside " + prefix + ". One of the three is wrong.");
        if (!prefix.usable(gateway))
            return odd(
                    Purpose.GATEWAY,
                    Code.NETWORK_ADDRESS,
                    gateway + " is the network or broadcast address of " + prefix + "; no router can have it.");
        return Optional.empty();
    }

    private static Optional<Odd> odd(Purpose field, Code code, String message) {
        return Optional.of(new Odd(field, Finding.of(code, message)));
    }
}
