package app.knottag.core.address;

import app.knottag.core.reading.ReadingException;
import java.util.Optional;
import java.util.regex.Pattern;

/** An IPv6 prefix (RFC 4291) of a segment; printed in the canonical form of RFC 5952. */
public record Ipv6Prefix(String text) {

    private static final Pattern TEXT = Pattern.compile("([^/]*)(?:/([0-9]{1,3}))?");

    /**
     * Reads an address, a slash and a length 16..127.
     *
     * @throws IllegalArgumentException if the text is no IPv6 prefix, or host bits are set
     */
    public static Ipv6Prefix parse(String text) {
        var read = read(text);
        int length = read.length().orElse(0);
        if (length < 16 || length > 127)
            throw new ReadingException(
                    "An IPv6 prefix ends in a slash and a length from 16 to 127, such as 2001:db8:16::/64.");
        var network = read.address().network(length);
        if (!network.equals(read.address()))
            throw new ReadingException(text.strip() + " names an address inside the network. Did you mean " + network
                    + "/" + length + "?");
        return new Ipv6Prefix(network + "/" + length);
    }

    /**
     * Reads the gateway of this prefix: an address inside it, or a link-local one, as routers announce it.
     *
     * @throws IllegalArgumentException if it is neither
     */
    public String gateway(String text) {
        var read = read(text);
        if (read.length().isPresent()) throw new ReadingException("Type the gateway without a length.");
        var address = read.address();
        var own = read(this.text);
        if (!address.linkLocal() && !address.network(own.length().orElseThrow()).equals(own.address()))
            throw new ReadingException(address + " is outside " + this.text
                    + "; a router also answers at an address that begins with fe80.");
        return address.toString();
    }

    private record Read(Ipv6Address address, Optional<Integer> length) {}

    private static Read read(String text) {
        var parts = TEXT.matcher(text.strip());
        var address = parts.matches() ? Ipv6Address.read(parts.group(1)) : Optional.<Ipv6Address>empty();
        return new Read(
                address.orElseThrow(() -> new ReadingException("“" + text.strip() + "” is no IPv6 address.")),
                Optional.ofNullable(parts.group(2)).map(Integer::valueOf));
    }

    @Override
    public String toString() {
        return text;
    }
}
