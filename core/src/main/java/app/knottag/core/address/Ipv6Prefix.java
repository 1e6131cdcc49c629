package app.knottag.core.address;

import app.knottag.core.reading.ReadingException;
import inet.ipaddr.AddressStringException;
import inet.ipaddr.IPAddress;
import inet.ipaddr.IPAddressString;
import inet.ipaddr.IncompatibleAddressException;

/** An IPv6 prefix (RFC 4291) of a segment; printed in the canonical form of RFC 5952. */
public record Ipv6Prefix(String text) {

    /**
     * Reads an address, a slash and a length 16..127.
     *
     * @throws IllegalArgumentException if the text is no IPv6 prefix, or host bits are set
     */
    public static Ipv6Prefix parse(String text) {
        var read = read(text);
        Integer length = read.getNetworkPrefixLength();
        if (length == null || length < 16 || length > 127)
            throw new ReadingException(
                    "An IPv6 prefix ends in a slash and a length from 16 to 127, such as 2001:db8:16::/64.");
        var network = read.toPrefixBlock().getLower().withoutPrefixLength();
        if (!network.equals(read.withoutPrefixLength().getLower()))
            throw new ReadingException(text.strip() + " names an address inside the network. Did you mean "
                    + network.toCanonicalString() + "/" + length + "?");
        return new Ipv6Prefix(network.toCanonicalString() + "/" + length);
    }

    /**
     * Reads the gateway of this prefix: an address inside it, or a link-local one, as routers announce it.
     *
     * @throws IllegalArgumentException if it is neither
     */
    public String gateway(String text) {
        var read = read(text);
        if (read.isPrefixed()) throw new ReadingException("Type the gateway without a length.");
        if (!read.isLinkLocal() && !read(this.text).toPrefixBlock().contains(read))
            throw new ReadingException(read.toCanonicalString() + " is outside " + this.text
                    + "; a router also answers at an address that begins with fe80.");
        return read.toCanonicalString();
    }

    private static IPAddress read(String text) {
        try {
            var address = new IPAddressString(text.strip()).toAddress();
            if (text.isBlank() || address == null || !address.isIPv6())
                throw new ReadingException("“" + text.strip() + "” is no IPv6 address.");
            return address;
        } catch (AddressStringException | IncompatibleAddressException e) {
            throw new ReadingException("“" + text.strip() + "” is no IPv6 address.", e);
        }
    }

    @Override
    public String toString() {
        return text;
    }
}
