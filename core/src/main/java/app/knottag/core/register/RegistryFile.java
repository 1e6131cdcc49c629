package app.knottag.core.register;

import app.knottag.core.hardware.Mac;
import app.knottag.core.register.HandOver.Change;
import app.knottag.core.register.HandOver.Line;
import app.knottag.core.register.Registry.Fact;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.text.Normalizer;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.apache.commons.csv.CSVFormat;
import tools.jackson.databind.json.JsonMapper;

/**
 * Writes a registry's list in every {@link RegistryForm}. Hosts and zone lines as in RFC 952 and RFC 1035, ethers lines
 * as in ethers(5), CSV as in RFC 4180. What is gone stands as a comment where the form has comments, so that a reader
 * who works through the list by hand misses nothing.
 */
public final class RegistryFile {

    /** Columns of the table, in this order. */
    public static final List<String> COLUMNS =
            List.of("change", "name", "mac", "address", "serial", "model", "owner", "shared_with");

    private static final JsonMapper JSON = new JsonMapper();
    private static final CSVFormat TABLE = CSVFormat.RFC4180
            .builder()
            .setHeader(COLUMNS.toArray(String[]::new))
            .setRecordSeparator("\r\n")
            .get();

    private RegistryFile() {}

    /**
     * What stands at the head of a list.
     *
     * @param domain domain of the names in zone files, without a period at its end
     */
    public record Head(String site, String registry, String domain, Instant at, boolean onlyChanges) {}

    /** Returns what the file of a list is called: by its site and its registry. */
    public static String name(String siteCode, String registry, RegistryForm form, boolean onlyChanges) {
        return siteCode + "-" + registry.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-")
                + (onlyChanges ? "-changes." : ".") + form.ending();
    }

    /** Writes a list. Entries without what the form needs are left out; {@link #leftOut} names them. */
    public static String write(RegistryForm form, Head head, HandOver list) {
        var lines = list.lines().stream().filter(l -> fits(form, l.entry())).toList();
        return switch (form) {
            case CSV -> table(lines);
            case JSON -> json(head, lines);
            case RESERVATION_JSON -> reservationJson(lines);
            case PLAIN -> plain(head, lines);
            default -> commented(form, head, lines);
        };
    }

    /** Returns the names of the entries that this form cannot hold. */
    public static List<String> leftOut(RegistryForm form, HandOver list) {
        return list.standing().stream()
                .filter(e -> !fits(form, e))
                .map(RegistryEntry::name)
                .toList();
    }

    private static boolean fits(RegistryForm form, RegistryEntry entry) {
        return (!form.needsAddress() || entry.address().isPresent())
                && (!form.holdsMac() || entry.mac().isPresent() || form == RegistryForm.CSV);
    }

    private static String table(List<Line> lines) {
        var text = new StringBuilder();
        try (var printer = TABLE.print(text)) {
            for (var l : lines) {
                var e = l.entry();
                printer.printRecord(
                        l.change().name().toLowerCase(Locale.ROOT),
                        e.name(),
                        e.value(Fact.MAC),
                        e.value(Fact.ADDRESS),
                        e.serial(),
                        e.model(),
                        e.owner(),
                        String.join("; ", e.sharedWith()));
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return text.toString();
    }

    private static String json(Head head, List<Line> lines) {
        var root = JSON.createObjectNode();
        root.put("format", "knot-tag-registrations/1");
        root.put("site", head.site())
                .put("registry", head.registry())
                .put("at", head.at().toString());
        var entries = root.putArray("entries");
        for (var l : lines) {
            var e = l.entry();
            var node = entries.addObject();
            node.put("change", l.change().name().toLowerCase(Locale.ROOT)).put("name", e.name());
            for (Fact fact : List.of(Fact.MAC, Fact.ADDRESS, Fact.SERIAL, Fact.MODEL))
                if (!e.value(fact).isEmpty()) node.put(fact.name().toLowerCase(Locale.ROOT), e.value(fact));
            if (!e.owner().isEmpty()) node.put("owner", e.owner());
            if (!e.sharedWith().isEmpty()) {
                var shared = node.putArray("shared_with");
                e.sharedWith().forEach(shared::add);
            }
        }
        return JSON.writerWithDefaultPrettyPrinter().writeValueAsString(root) + "\n";
    }

    private static String reservationJson(List<Line> lines) {
        var root = JSON.createObjectNode();
        var reservations = root.putArray("reservations");
        var labels = new Labels();
        for (var l : lines)
            if (l.change() != Change.GONE)
                reservations
                        .addObject()
                        .put("hw-address", lower(l.entry().mac().orElseThrow()))
                        .put("ip-address", l.entry().value(Fact.ADDRESS))
                        .put("hostname", labels.of(l.entry().name()));
        return JSON.writerWithDefaultPrettyPrinter().writeValueAsString(root) + "\n";
    }

    private static String plain(Head head, List<Line> lines) {
        var text = new StringBuilder(heading(head)).append("\n\n");
        for (Change change : List.of(Change.GONE, Change.NEW, Change.CHANGED, Change.SAME)) {
            var some = lines.stream().filter(l -> l.change() == change).toList();
            if (some.isEmpty()) continue;
            text.append(
                            switch (change) {
                                case GONE -> "Please take out";
                                case NEW -> "Please add";
                                case CHANGED -> "Please change";
                                case SAME -> "Stays as it is";
                            })
                    .append(" (")
                    .append(some.size())
                    .append(")\n");
            for (var l : some) {
                text.append("  ").append(words(l.entry())).append('\n');
                l.was()
                        .filter(w -> change == Change.CHANGED)
                        .ifPresent(
                                w -> text.append("      was: ").append(words(w)).append('\n'));
            }
            text.append('\n');
        }
        return text.toString();
    }

    private static String words(RegistryEntry e) {
        var parts = new ArrayList<String>();
        parts.add(e.value(Fact.MAC));
        parts.add(String.format(Locale.ROOT, "%-15s", e.value(Fact.ADDRESS)));
        parts.add(e.name());
        if (!e.model().isEmpty()) parts.add("model " + e.model());
        if (!e.serial().isEmpty()) parts.add("serial " + e.serial());
        if (!e.owner().isEmpty()) parts.add("owner " + e.owner());
        if (!e.sharedWith().isEmpty()) parts.add("shared with " + String.join(", ", e.sharedWith()));
        return String.join("  ", parts);
    }

    private static String heading(Head head) {
        return head.site() + ", " + head.registry() + ": "
                + (head.onlyChanges() ? "what changed since the last hand-over" : "the whole list") + ", "
                + head.at().toString().substring(0, 16).replace('T', ' ') + " UTC";
    }

    private static String commented(RegistryForm form, Head head, List<Line> lines) {
        boolean zone = form == RegistryForm.ZONE_FORWARD || form == RegistryForm.ZONE_REVERSE;
        String comment = zone ? "; " : "# ";
        var text = new StringBuilder(comment).append(heading(head)).append('\n');
        var labels = new Labels();
        for (var l : lines) {
            if (l.change() == Change.GONE) text.append(comment).append("take out: ");
            text.append(line(form, head, l.entry(), labels)).append('\n');
        }
        return text.toString();
    }

    private static String line(RegistryForm form, Head head, RegistryEntry e, Labels labels) {
        String name = labels.of(e.name()), address = e.value(Fact.ADDRESS);
        String mac = e.mac().map(RegistryFile::lower).orElse("");
        return switch (form) {
            case HOSTS -> address + "\t" + name;
            case ETHERS -> mac + " " + name;
            case ZONE_FORWARD -> name + "." + head.domain() + ". IN A " + address;
            case ZONE_REVERSE -> reversed(address) + ".in-addr.arpa. IN PTR " + name + "." + head.domain() + ".";
            case HOST_BLOCKS -> "host " + name + " { hardware ethernet " + mac + "; fixed-address " + address + "; }";
            case HOST_LINES -> "dhcp-host=" + mac + "," + address + "," + name;
            default -> throw new IllegalArgumentException(form + " is not written line by line");
        };
    }

    private static String lower(Mac mac) {
        return mac.toString().toLowerCase(Locale.ROOT);
    }

    private static String reversed(String address) {
        String[] groups = address.split("\\.");
        return groups[3] + "." + groups[2] + "." + groups[1] + "." + groups[0];
    }

    /** Makes host labels (RFC 1123) of names; two names never become the same label in one file. */
    private static final class Labels {
        private final Map<String, String> byName = new HashMap<>();
        /** Room is left for a number behind it; a label has at most 63 (RFC 1035). */
        private static final int LONGEST = 58;

        private final HashSet<String> used = new HashSet<>();

        String of(String name) {
            return byName.computeIfAbsent(name, n -> {
                String plain = Normalizer.normalize(n.replace("ß", "ss"), Normalizer.Form.NFD)
                        .replaceAll("\\p{M}", "")
                        .toLowerCase(Locale.ROOT)
                        .replaceAll("[^a-z0-9-]+", "-")
                        .replaceAll("^-+|-+$", "");
                String body = plain.isEmpty() ? "unit" : plain.length() > LONGEST ? plain.substring(0, LONGEST) : plain;
                // As a host name of its own it would be a length of time in some files.
                if (body.matches("[0-9]+[smhdw]?|infinite|ignore")) body = "unit-" + body;
                String label = body;
                for (int i = 2; !used.add(label); i++) label = body + "-" + i;
                return label;
            });
        }
    }
}
