package app.knottag.core.address;

import app.knottag.core.reading.ReadingException;
import inet.ipaddr.IPAddressString;
import java.util.Arrays;
import java.util.List;

/** Addresses from one to another, both included. */
public record AddressRange(Ipv4Address from, Ipv4Address to) {

    public AddressRange {
        if (from.compareTo(to) > 0) throw new ReadingException("a range runs upwards: " + from + " comes after " + to);
    }

    /** Whether the address lies in the range. */
    public boolean contains(Ipv4Address address) {
        return from.compareTo(address) <= 0 && address.compareTo(to) <= 0;
    }

    /** Whether any address lies in both. */
    public boolean overlaps(AddressRange other) {
        return contains(other.from) || other.contains(from);
    }

    /** Returns how many addresses the range has, 1..4_294_967_296. */
    public long count() {
        return to.number() - from.number() + 1;
    }

    /** Returns the fewest prefixes (RFC 4632) that hold exactly these addresses, in order. */
    public List<Ipv4Prefix> prefixes() {
        var lower = new IPAddressString(from.toString()).getAddress();
        var upper = new IPAddressString(to.toString()).getAddress();
        return Arrays.stream(lower.spanWithPrefixBlocks(upper))
                .map(block -> new Ipv4Prefix(
                        Ipv4Address.parse(block.getLower().withoutPrefixLength().toString()),
                        block.getNetworkPrefixLength()))
                .toList();
    }

    @Override
    public String toString() {
        return from.equals(to) ? from.toString() : from + " to " + to;
    }
}
