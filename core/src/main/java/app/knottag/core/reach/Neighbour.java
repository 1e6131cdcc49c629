package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * One entry of a neighbour table (RFC 826): which MAC answers, or once answered, for an address.
 *
 * @param state whether it is known to be so now
 */
public record Neighbour(Ipv4Address address, Mac mac, State state) {

    /** How much an entry is worth. */
    public enum State {
        /** The device answered within the last seconds. */
        CONFIRMED,
        /** It is just being asked again. */
        PENDING,
        /** It answered some time ago, and may be gone. */
        OLD
    }

    /** An entry that was confirmed just now. */
    public Neighbour(Ipv4Address address, Mac mac) {
        this(address, mac, State.CONFIRMED);
    }

    /** Whether the device answered within the last seconds. */
    public boolean confirmed() {
        return state == State.CONFIRMED;
    }

    /**
     * Reads the table that Linux keeps in {@code /proc/net/arp}. Incomplete entries (flags 0x0) and lines of another
     * form are left out.
     */
    public static List<Neighbour> readTable(String text) {
        var neighbours = new ArrayList<Neighbour>();
        for (String line : text.split("\n")) {
            String[] cells = line.trim().split("\\s+");
            if (cells.length < 6 || !cells[0].matches("[0-9.]{7,15}") || cells[2].equals("0x0")) continue;
            if (!cells[3].matches("[0-9A-Fa-f]{2}(:[0-9A-Fa-f]{2}){5}") || cells[3].equals("00:00:00:00:00:00"))
                continue;
            neighbours.add(new Neighbour(Ipv4Address.parse(cells[0]), Mac.parse(cells[3])));
        }
        return List.copyOf(neighbours);
    }

    /** Writes a table in the form that {@link #readTable} reads. */
    public static String writeTable(List<Neighbour> neighbours) {
        var text =
                new StringBuilder("IP address       HW type     Flags       HW address            Mask     Device\n");
        for (var n : neighbours)
            text.append(String.format(
                    "%-16s 0x1         0x2         %s     *        lan0\n",
                    n.address(), n.mac().toString().toLowerCase(Locale.ROOT)));
        return text.toString();
    }
}
