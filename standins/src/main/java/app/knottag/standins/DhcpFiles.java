package app.knottag.standins;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.reach.Fault;
import app.knottag.core.reach.SiteModel.Station;
import java.io.IOException;
import java.io.StreamTokenizer;
import java.io.StringReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * The files of a DHCP server: it reads reservations as host blocks and writes leases as lease blocks. Its reader is its
 * own, so that what is written elsewhere is checked by another hand.
 */
final class DhcpFiles {

    private static final DateTimeFormatter TIME =
            DateTimeFormatter.ofPattern("yyyy/MM/dd HH:mm:ss", Locale.ROOT).withZone(ZoneOffset.UTC);
    private static final int LEASE_SECONDS = 43_200;

    private final Path kept;
    private String text = "";
    private Map<Mac, Host> hosts = Map.of();

    /** A reservation. */
    record Host(String name, Mac mac, Ipv4Address address) {}

    DhcpFiles(Path kept) throws IOException {
        this.kept = kept;
        if (Files.exists(kept)) {
            text = Files.readString(kept);
            hosts = parse(text);
        }
    }

    String reservations() {
        return text;
    }

    /** Takes a file whole or not at all. */
    void take(String file) throws IOException {
        hosts = parse(file);
        text = file;
        Files.writeString(kept, file);
    }

    /** The station with the address that is reserved for its MAC; on automatic without one it stands in the pool. */
    Station leased(Station station) {
        var host = hosts.get(station.mac());
        if (host != null) return station.withLease(host.address());
        return station.automatic() ? station.with(Fault.STILL_AUTOMATIC) : station;
    }

    String leases(List<Station> up, Instant now) {
        var file = new StringBuilder("# The leases of the stand-in; the last block of an address counts.\n");
        for (var s : up)
            file.append("lease ")
                    .append(s.leased())
                    .append(" {\n  starts ")
                    .append(time(now))
                    .append(";\n  ends ")
                    .append(time(now.plusSeconds(LEASE_SECONDS)))
                    .append(";\n  binding state active;\n  hardware ethernet ")
                    .append(s.mac().toString().toLowerCase(Locale.ROOT))
                    .append(";\n  client-hostname \"")
                    .append(s.id())
                    .append("\";\n}\n");
        return file.toString();
    }

    /** The day of the week stands before the date, Sunday being 0. */
    private static String time(Instant at) {
        return at.atZone(ZoneOffset.UTC).getDayOfWeek().getValue() % 7 + " " + TIME.format(at);
    }

    static Map<Mac, Host> parse(String file) {
        var words = new StreamTokenizer(new StringReader(file));
        words.resetSyntax();
        words.wordChars(33, 126);
        words.whitespaceChars(0, 32);
        words.commentChar('#');
        words.quoteChar('"');
        for (char c : "{};".toCharArray()) words.ordinaryChar(c);
        var hosts = new LinkedHashMap<Mac, Host>();
        var names = new HashSet<String>();
        var addresses = new HashMap<Ipv4Address, String>();
        try {
            while (words.nextToken() != StreamTokenizer.TT_EOF) {
                expect(words, "host");
                words.nextToken();
                var host = host(words, word(words, "a name"));
                if (!names.add(host.name())) throw wrong(words, host.name() + " stands there twice");
                String other = addresses.putIfAbsent(host.address(), host.name());
                if (other != null) throw wrong(words, host.address() + " belongs to " + other + " already");
                if (hosts.putIfAbsent(host.mac(), host) != null) throw wrong(words, host.mac() + " stands there twice");
            }
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
        return hosts;
    }

    private static Host host(StreamTokenizer words, String name) throws IOException {
        next(words, '{');
        Mac mac = null;
        Ipv4Address address = null;
        while (words.nextToken() != '}') {
            String key = word(words, "hardware or fixed-address");
            try {
                if (key.equals("hardware")) {
                    words.nextToken();
                    expect(words, "ethernet");
                    words.nextToken();
                    mac = Mac.parse(word(words, "a MAC"));
                } else if (key.equals("fixed-address")) {
                    words.nextToken();
                    address = Ipv4Address.parse(word(words, "an address"));
                } else throw wrong(words, key + " is not known");
            } catch (IllegalArgumentException e) {
                throw e instanceof Refused ? e : wrong(words, e.getMessage());
            }
            next(words, ';');
        }
        if (mac == null || address == null) throw wrong(words, name + " lacks its MAC or its address");
        return new Host(name, mac, address);
    }

    private static final class Refused extends IllegalArgumentException {
        Refused(String message) {
            super(message);
        }
    }

    private static Refused wrong(StreamTokenizer words, String what) {
        return new Refused("Line " + words.lineno() + ": " + what + ".");
    }

    private static void expect(StreamTokenizer words, String wanted) {
        if (!wanted.equals(words.sval)) throw wrong(words, "“" + wanted + "” is expected");
    }

    private static void next(StreamTokenizer words, char wanted) throws IOException {
        if (words.nextToken() != wanted) throw wrong(words, "“" + wanted + "” is expected");
    }

    private static String word(StreamTokenizer words, String what) {
        if (words.sval == null) throw wrong(words, what + " is expected");
        return words.sval;
    }
}
