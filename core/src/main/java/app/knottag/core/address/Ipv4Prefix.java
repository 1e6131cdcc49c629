package app.knottag.core.address;

import app.knottag.core.reading.ReadingException;
import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;

/** An IPv4 prefix (RFC 4632): a network address and a prefix length 0..32, without host bits. */
public record Ipv4Prefix(Ipv4Address network, int prefixLength) {

    public Ipv4Prefix {
        if (prefixLength < 0 || prefixLength > 32)
            throw new ReadingException("prefix length must be 0..32, was " + prefixLength);
        var masked = masked(network, prefixLength);
        if (!network.equals(masked))
            throw new ReadingException(
                    "host bits set in " + network + "/" + prefixLength + "; the network address is " + masked);
    }

    /**
     * Reads what {@link #toString} prints.
     *
     * @throws IllegalArgumentException if the text is not an address, a slash and a length, or host bits are set
     */
    @JsonCreator
    public static Ipv4Prefix parse(String text) {
        int slash = text.indexOf('/');
        if (slash < 0 || !text.substring(slash + 1).matches("[0-9]{1,2}"))
            throw new ReadingException("not a prefix: \"" + text + "\" (needs an address, a slash and 0..32)");
        return new Ipv4Prefix(Ipv4Address.parse(text.substring(0, slash)), Integer.parseInt(text.substring(slash + 1)));
    }

    /** Returns the prefix of this length that holds the address. */
    public static Ipv4Prefix around(Ipv4Address address, int prefixLength) {
        return new Ipv4Prefix(masked(address, prefixLength), prefixLength);
    }

    private static Ipv4Address masked(Ipv4Address address, int prefixLength) {
        return new Ipv4Address(address.bits() & maskBits(prefixLength));
    }

    private static int maskBits(int prefixLength) {
        return prefixLength == 0 ? 0 : -1 << (32 - prefixLength);
    }

    /** Returns the mask (RFC 950) of a prefix length 0..32. */
    public static Ipv4Address maskOf(int prefixLength) {
        return new Ipv4Address(maskBits(prefixLength));
    }

    /** Returns the mask (RFC 950) of this prefix. */
    public Ipv4Address mask() {
        return maskOf(prefixLength);
    }

    /** Whether the address lies in the prefix, network and broadcast address included. */
    public boolean contains(Ipv4Address address) {
        return masked(address, prefixLength).equals(network);
    }

    /** Whether any address lies in both prefixes. */
    public boolean overlaps(Ipv4Prefix other) {
        return contains(other.network) || other.contains(network);
    }

    /** Returns the highest address: the broadcast address except in a /31 or /32 (RFC 3021). */
    public Ipv4Address last() {
        return new Ipv4Address(network.bits() | ~maskBits(prefixLength));
    }

    /** Returns the lowest address that a device may hold. */
    public Ipv4Address lowestUsable() {
        return prefixLength >= 31 ? network : network.plus(1);
    }

    /** Returns the highest address that a device may hold. */
    public Ipv4Address highestUsable() {
        return prefixLength >= 31 ? last() : last().plus(-1);
    }

    /** Whether a device may hold the address: inside, and neither network nor broadcast address. */
    public boolean usable(Ipv4Address address) {
        return address.compareTo(lowestUsable()) >= 0 && address.compareTo(highestUsable()) <= 0;
    }

    /** Returns the number of usable addresses, 1..4_294_967_294; a /31 has two (RFC 3021) and a /32 one. */
    public long usableHosts() {
        return highestUsable().number() - lowestUsable().number() + 1;
    }

    @Override
    @JsonValue
    public String toString() {
        return network + "/" + prefixLength;
    }
}
