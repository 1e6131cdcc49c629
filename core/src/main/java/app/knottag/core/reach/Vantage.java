package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import java.util.List;
import java.util.Map;

/**
 * From where one looks.
 *
 * @param own addresses of the machine that looks
 * @param segments the site's segments by name
 */
public record Vantage(List<Ipv4Address> own, Map<String, Ipv4Prefix> segments) {

    /** Whether the machine stands in a segment, so that its neighbours are seen. */
    public boolean within(Ipv4Prefix prefix) {
        return own.stream().anyMatch(prefix::contains);
    }

    /** Says where the machine stands, as seen from the whole site. */
    public String words(List<Ipv4Prefix> ground) {
        return ground.stream()
                .filter(this::within)
                .findFirst()
                .or(() -> ground.stream().findFirst())
                .map(this::words)
                .orElse("this machine");
    }

    /** Says where the machine stands, as seen from a segment that it looks at. */
    public String words(Ipv4Prefix prefix) {
        var inside = own.stream().filter(prefix::contains).findFirst();
        if (inside.isPresent()) return "this machine, " + inside.get();
        for (var segment : segments.entrySet())
            for (var a : own)
                if (segment.getValue().contains(a))
                    return "this machine, " + a + ", which is on “" + segment.getKey() + "” and not in this segment";
        return own.isEmpty()
                ? "this machine, which has no address"
                : "this machine, " + own.get(0) + ", which is outside this site's segments";
    }
}
