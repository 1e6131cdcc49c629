package app.knottag.core.address;

import app.knottag.core.reading.ReadingException;

/** Addresses that the site's DHCP server hands out by itself; both ends belong to it. */
public record Pool(Ipv4Address from, Ipv4Address to) {

    public Pool {
        if (from.compareTo(to) > 0) throw new ReadingException("a pool runs upwards: " + from + " comes after " + to);
    }

    /** Whether the address may be handed out from this pool; both ends may. */
    public boolean contains(Ipv4Address address) {
        return from.compareTo(address) <= 0 && address.compareTo(to) <= 0;
    }

    @Override
    public String toString() {
        return from + " to " + to;
    }
}
