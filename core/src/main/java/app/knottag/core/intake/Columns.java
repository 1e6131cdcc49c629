package app.knottag.core.intake;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Recognised.Table;
import app.knottag.core.intake.Row.State;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * Reads a table whose first line names its columns: a cell means what stands above it, so that a VLAN, a port and an age are
 * never taken for one another. Cells are matched by their number, or where a cell is empty or has blanks by their place.
 */
final class Columns {

    private enum What {
        ADDRESS,
        MAC,
        NAME,
        PORT,
        INTERFACE,
        VLAN,
        AGE,
        END,
        LIFETIME,
        STATE,
        OTHER
    }

    private static final Map<String, What> WORDS = words();

    private static Map<String, What> words() {
        var words = new LinkedHashMap<String, What>();
        put(
                words,
                What.ADDRESS,
                "ip address",
                "ip-address",
                "ipaddress",
                "ipv4 address",
                "internet address",
                "protocol address",
                "internetadresse",
                "adresse internet",
                "adresse ip",
                "ip-adresse",
                "direccion de internet",
                "direccion ip",
                "indirizzo internet",
                "indirizzo ip",
                "address",
                "ip addr",
                "ip",
                "host address",
                "host");
        put(
                words,
                What.MAC,
                "mac address",
                "mac-address",
                "macaddress",
                "mac addr",
                "mac-addr",
                "mac_address",
                "hardware address",
                "hardware addr",
                "hwaddress",
                "hw address",
                "physical address",
                "phys addr",
                "linklayeraddress",
                "link-layer address",
                "link layer address",
                "lladdr",
                "ethernet address",
                "ethernet",
                "mac",
                "physische adresse",
                "adresse physique",
                "direccion fisica",
                "indirizzo fisico",
                "hwaddr",
                "clientid",
                "client-id",
                "client-id/hardware address",
                "mac-adresse",
                "adresse mac");
        put(
                words,
                What.PORT,
                "located on port",
                "ports/swid.ssid.lid",
                "ports",
                "port/nickname",
                "port",
                "port no",
                "portname",
                "destination port",
                "dest ports",
                "dst port",
                "learned port",
                "physical port");
        put(
                words,
                What.INTERFACE,
                "logical interface",
                "on-interface",
                "interfaces",
                "interface",
                "iface",
                "netif",
                "device",
                "dev",
                "if");
        put(words, What.VLAN, "vlan id", "vlan-id", "vlanid", "vlan", "vid", "vlan/vsi", "vlan/bd", "vlan/vsi/si");
        put(
                words,
                What.AGE,
                "aging time",
                "ageing timer",
                "aging timer",
                "age (min)",
                "age(min)",
                "age(m)",
                "age (sec)",
                "age(s)",
                "aging",
                "ageing",
                "age",
                "expire(m)",
                "expire",
                "last-seen",
                "last seen",
                "index");
        put(
                words,
                What.END,
                "lease expiration",
                "lease end",
                "leaseexpirytime",
                "lease expires",
                "expires",
                "expiration",
                "lease ends",
                "expiry time");
        put(words, What.LIFETIME, "valid_lifetime");
        put(words, What.STATE, "addressstate", "address state", "status", "state");
        put(
                words,
                What.NAME,
                "hostname",
                "host-name",
                "host name",
                "client name",
                "client-name",
                "client hostname",
                "name");
        put(
                words,
                What.OTHER,
                "vlan name",
                "vlan-name",
                "hw type",
                "hwtype",
                "mac flags",
                "nh index",
                "rtr id",
                "logical system",
                "is local?",
                "flags mask",
                "lease start",
                "port index",
                "ifindex");
        return words;
    }

    private static void put(Map<String, What> words, What what, String... all) {
        for (String word : all) words.put(word, what);
    }

    private static final List<String> BY_LENGTH = WORDS.keySet().stream()
            .sorted(Comparator.comparing(String::length).reversed())
            .toList();

    private record Column(What what, int from, int to) {}

    private record Cell(String text, int from, int to) {}

    private record Head(List<Column> columns, char comma, boolean numbered) {
        boolean has(What what) {
            return columns.stream().anyMatch(c -> c.what() == what);
        }
    }

    private Columns() {}

    /** Reads a table by the line that names its columns; empty when there is none or nothing below fits it. */
    static Optional<Table> read(List<String> lines, Optional<Instant> now) {
        Head head = null;
        Form form = null;
        var rows = new ArrayList<Row>();
        for (int i = 0; i < lines.size(); i++) {
            String line = lines.get(i).replace("\t", "        ");
            if (line.length() > 600) continue;
            var found = head(lines.get(i));
            if (found.isPresent()) {
                head = found.get();
                form = form(head);
            } else if (head != null) {
                var row = row(i + 1, head.comma() == ' ' ? line : lines.get(i), head, form, now);
                row.ifPresent(rows::add);
            }
        }
        return rows.isEmpty() ? Optional.empty() : Optional.of(new Table(form, true, rows, List.of(), List.of()));
    }

    private static Form form(Head head) {
        if (head.has(What.END)
                || head.has(What.LIFETIME)
                || head.has(What.STATE) && head.has(What.ADDRESS) && head.has(What.NAME))
            return head.has(What.ADDRESS) ? Form.LEASES : Form.SWITCH;
        return head.has(What.ADDRESS) ? Form.NEIGHBOURS : Form.SWITCH;
    }

    private static String plain(String text) {
        return java.text.Normalizer.normalize(text, java.text.Normalizer.Form.NFD)
                .replaceAll("\\p{M}", "")
                .toLowerCase(Locale.ROOT);
    }

    private static Optional<Head> head(String whole) {
        if (Machine.MAC.matcher(whole).find() || Machine.ADDRESS.matcher(whole).find()) return Optional.empty();
        char comma = whole.contains(",") ? ',' : whole.contains(";") ? ';' : ' ';
        String line = plain(whole.replace("\t", "        "));
        if (line.length() != whole.replace("\t", "        ").length() && comma == ' ') line = line + " ";
        var columns = new ArrayList<Column>();
        for (int i = 0; i < line.length(); ) {
            if (line.charAt(i) == ' ' || line.charAt(i) == comma || line.charAt(i) == '#' || line.charAt(i) == '"') {
                i++;
                continue;
            }
            String word = at(line, i, comma);
            int to = i + word.length();
            columns.add(new Column(WORDS.getOrDefault(word, What.OTHER), i, to));
            i = to;
        }
        boolean table = columns.stream().anyMatch(c -> c.what() == What.MAC)
                && columns.stream()
                        .anyMatch(c -> EnumSet.of(What.ADDRESS, What.PORT, What.INTERFACE)
                                .contains(c.what()));
        return table ? Optional.of(new Head(columns, comma, line.strip().startsWith("#"))) : Optional.empty();
    }

    private static String at(String line, int from, char comma) {
        for (String word : BY_LENGTH) {
            int to = from + word.length();
            if (line.startsWith(word, from)
                    && (to == line.length()
                            || line.charAt(to) == ' '
                            || line.charAt(to) == comma
                            || line.charAt(to) == '"')) return word;
        }
        int to = from;
        while (to < line.length() && line.charAt(to) != ' ' && line.charAt(to) != comma && line.charAt(to) != '"') to++;
        return line.substring(from, Math.max(to, from + 1));
    }

    private static List<Cell> cells(String line, char comma) {
        var cells = new ArrayList<Cell>();
        if (comma != ' ') {
            int from = 0;
            for (String part : line.split("" + comma, -1)) {
                cells.add(new Cell(part.strip().replace("\"", ""), from, from + part.length()));
                from += part.length() + 1;
            }
            return cells;
        }
        for (int i = 0; i < line.length(); ) {
            if (Character.isWhitespace(line.charAt(i))) {
                i++;
                continue;
            }
            int to = i;
            while (to < line.length() && !Character.isWhitespace(line.charAt(to))) to++;
            cells.add(new Cell(line.substring(i, to), i, to));
            i = to;
        }
        return cells;
    }

    private static Map<What, String> matched(List<Cell> cells, Head head) {
        var columns = head.columns();
        var values = new EnumMap<What, String>(What.class);
        if (cells.size() == columns.size() || head.comma() != ' ') {
            for (int i = 0; i < Math.min(cells.size(), columns.size()); i++)
                values.putIfAbsent(columns.get(i).what(), cells.get(i).text());
            return values;
        }
        for (var cell : cells) {
            Column best = null;
            int most = Integer.MIN_VALUE;
            for (int i = 0; i < columns.size(); i++) {
                var c = columns.get(i);
                int over = Math.min(cell.to(), c.to()) - Math.max(cell.from(), c.from());
                if (over > most) {
                    most = over;
                    best = c;
                }
            }
            if (best != null) values.merge(best.what(), cell.text(), (a, b) -> a + " " + b);
        }
        return values;
    }

    private static Optional<Row> row(long number, String line, Head head, Form form, Optional<Instant> now) {
        var cells = new ArrayList<>(cells(line, head.comma()));
        if (head.comma() == ' ')
            while (cells.size() > 1
                    && (cells.get(0).text().matches("[*+~]|[A-Z]{1,3}")
                            || cells.get(0).text().matches("[0-9]{1,4}")
                                    && cells.size() > 1
                                    && cells.get(1).text().matches("[A-Z]{1,3}")
                                    && (head.numbered() || form != Form.SWITCH))
                    && cells.size() > head.columns().size()) cells.remove(0);
        var values = matched(cells, head);
        String mac = values.getOrDefault(What.MAC, ""),
                address = values.getOrDefault(What.ADDRESS, "").replaceFirst("/[0-9]{1,2}$", "");
        Optional<Mac> read = Machine.MAC.matcher(mac).matches()
                ? Optional.of(Machine.mac(mac))
                : form == Form.LEASES ? Tables.client(mac) : Optional.empty();
        var a = Machine.ADDRESS.matcher(address).matches() ? Machine.address(address) : Optional.<Ipv4Address>empty();
        boolean silent = mac.matches("(?i)\\W?incomplete\\W?");
        if (read.isEmpty() && !(silent && a.isPresent()) || head.has(What.ADDRESS) && a.isEmpty())
            return Optional.empty();
        String state = values.getOrDefault(What.STATE, "");
        String port =
                values.getOrDefault(What.PORT, form == Form.SWITCH ? values.getOrDefault(What.INTERFACE, "") : "");
        if (form == Form.SWITCH && (port.isEmpty() || port.contains(" "))) return Optional.empty();
        String vlan = values.getOrDefault(What.VLAN, "");
        var row = Row.of(
                        number,
                        a,
                        read,
                        silent ? State.SILENT : form == Form.SWITCH ? State.SEEN : Tables.state(form, state))
                .named(name(values.getOrDefault(What.NAME, "")))
                .at(port, vlan.matches("[0-9]{1,4}") ? Optional.of(Integer.parseInt(vlan)) : Optional.empty());
        if (head.has(What.LIFETIME)) {
            String life = values.getOrDefault(What.LIFETIME, ""), end = values.getOrDefault(What.AGE, "");
            if (!life.matches("[0-9]{1,12}") || !end.matches("[0-9]{1,12}")) return Optional.empty();
            return Optional.of(Tables.kea(
                            number,
                            a,
                            read,
                            Long.parseLong(life),
                            Long.parseLong(end),
                            state.matches("[0-9]") ? Integer.parseInt(state) : 0,
                            now)
                    .named(row.name()));
        }
        String end = values.getOrDefault(What.END, "");
        return Optional.of(end.matches("[0-9]{9,12}") ? Tables.ending(row, Long.parseLong(end), now) : row);
    }

    private static String name(String text) {
        return text.matches("[A-Za-z0-9][A-Za-z0-9_.-]*") && !text.matches(Machine.A) ? text : "";
    }
}
