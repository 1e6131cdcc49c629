package app.knottag.core.register;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Purpose;
import app.knottag.core.hardware.Mac;
import app.knottag.core.hardware.MacReader;
import app.knottag.core.log.Words;
import app.knottag.core.reading.Reading;
import app.knottag.core.register.RegisterFile.Problem;
import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.apache.commons.csv.CSVException;
import org.apache.commons.csv.CSVFormat;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Reads back what a registry holds, in every {@link RegistryForm}, all or nothing; problems name line and column. */
public final class RegistryReader {

    /** Most entries that are read at once. */
    public static final int MOST = 20_000;

    private static final JsonMapper JSON = new JsonMapper();
    private static final Pattern BLOCK = Pattern.compile("(?i)\\bhost\\s+([^\\s{]+)\\s*\\{([^{}]*)}");
    private static final Pattern HARDWARE = Pattern.compile("(?i)hardware\\s+ethernet\\s+([^;\\s]+)\\s*;");
    private static final Pattern FIXED = Pattern.compile("(?i)fixed-address\\s+([^;\\s]+)\\s*;");
    private static final Pattern FORWARD =
            Pattern.compile("(?i)^([a-z0-9_-]+)(?:\\.\\S*)?\\s+(?:[0-9]+\\s+)?(?:IN\\s+)?A\\s+(\\S+)$");
    private static final Pattern REVERSE = Pattern.compile("(?i)^([0-9]{1,3})\\.([0-9]{1,3})\\.([0-9]{1,3})\\.([0-9]{1,"
            + "3})\\.in-addr\\.arpa\\.?\\s+(?:[0-9]+\\s+)?(?:IN\\s+)?PTR\\s+([a-z0-9_-]+)\\S*$");
    private static final Pattern ROW = Pattern.compile(
            "^\\s{2}((?:[0-9A-F]{2}:){5}[0-9A-F]{2})\\s{2}(\\S+)?\\s+(.*?)(?:\\s{2}(?:model|serial|owner|shared with) .*)?$");

    private final List<Read> entries = new ArrayList<>();
    private final List<Problem> problems = new ArrayList<>();
    private final Map<String, Long> firstLine = new HashMap<>();
    private boolean goneBelow;

    private RegistryReader() {}

    /** An entry and the line that it stands on, counted from 1. */
    public record Read(long line, RegistryEntry entry) {}

    /** Entries and problems; the entries are only good when there is no problem. */
    public record Parsed(List<Read> entries, List<Problem> problems) {}

    /** Reads a list in a form. */
    public static Parsed read(RegistryForm form, String text) {
        var reader = new RegistryReader();
        if (text.isBlank()) reader.problem(1, "", "There is nothing here. Paste the list, or choose its file.");
        else reader.take(form, text.replace("\r\n", "\n"));
        if (reader.entries.isEmpty() && reader.problems.isEmpty())
            reader.problem(1, "", "No entry of the form “" + form.words() + "” can be found here. Is it another form?");
        return new Parsed(
                reader.problems.isEmpty() ? List.copyOf(reader.entries) : List.of(), List.copyOf(reader.problems));
    }

    private void take(RegistryForm form, String text) {
        switch (form) {
            case CSV -> table(text);
            case JSON -> json(text, "entries", "mac", "address", "name");
            case RESERVATION_JSON -> json(text, "reservations", "hw-address", "ip-address", "hostname");
            case HOST_BLOCKS -> blocks(text);
            default -> lines(form, text);
        }
    }

    private void problem(long line, String column, String message) {
        problems.add(new Problem(line, column, message));
    }

    private Optional<String> value(long line, String column, Reading reading) {
        reading.refusal().ifPresent(why -> problem(line, column, why));
        return reading.kept();
    }

    private Optional<Mac> mac(long line, String text) {
        if (text.isBlank()) return Optional.empty();
        return value(line, "mac", MacReader.read(text, Set.of(), Optional.empty()))
                .map(Mac::parse);
    }

    private Optional<Ipv4Address> address(long line, String text) {
        if (text.isBlank()) return Optional.empty();
        return value(line, "address", AddressReader.read(text, Purpose.ADDRESS, AddressContext.NONE))
                .map(Ipv4Address::parse);
    }

    private void add(long line, RegistryEntry entry) {
        if (entries.size() >= MOST) {
            if (entries.size() == MOST) problem(line, "", "More than " + MOST + " entries. Split the list.");
            return;
        }
        Words.problem(entry.name(), false).ifPresent(p -> problem(line, "name", p));
        if (entry.mac().isEmpty() && entry.address().isEmpty() && problems.isEmpty())
            problem(line, "", "Neither a MAC nor an address: “" + entry.name() + "”.");
        entry.mac().ifPresent(m -> {
            Long first = firstLine.putIfAbsent(m.toString(), line);
            if (first != null) problem(line, "mac", m + " stands on line " + first + " already.");
        });
        entries.add(new Read(line, entry));
    }

    private void table(String text) {
        char comma = text.lines().findFirst().orElse("").indexOf(';') >= 0 ? ';' : ',';
        var format = CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .setDelimiter(comma)
                .setTrim(true)
                .setIgnoreEmptyLines(true)
                .get();
        try (var parser = format.parse(new StringReader(text))) {
            var names = new HashMap<String, String>();
            parser.getHeaderNames().forEach(n -> names.put(n.toLowerCase(Locale.ROOT), n));
            if (!names.containsKey("mac")) {
                problem(
                        1,
                        "",
                        "The first line must name the columns, one of them “mac”: "
                                + String.join(",", RegistryFile.COLUMNS));
                return;
            }
            long line = 1;
            for (var row : parser) {
                line++;
                Function<String, String> cell =
                        c -> names.containsKey(c) && row.isSet(names.get(c)) ? row.get(names.get(c)) : "";
                if (cell.apply("change").equalsIgnoreCase("gone")) continue;
                String shared = cell.apply("shared_with");
                add(
                        line,
                        new RegistryEntry(
                                cell.apply("name"),
                                mac(line, cell.apply("mac")),
                                address(line, cell.apply("address")),
                                cell.apply("serial"),
                                cell.apply("model"),
                                cell.apply("owner"),
                                shared.isEmpty() ? List.of() : List.of(shared.split("\\s*;\\s*"))));
            }
        } catch (CSVException | IllegalArgumentException | UncheckedIOException e) {
            problem(1, "", "The table is not well-formed: " + e.getMessage());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void json(String text, String list, String mac, String address, String name) {
        try {
            var found = JSON.readTree(text).findValue(list);
            if (found == null || !found.isArray()) {
                problem(1, list, "There is no list “" + list + "” in this JSON.");
                return;
            }
            long number = 0;
            for (var node : found) {
                number++;
                if (node.path("change").asString("").equals("gone")) continue;
                var shared = new ArrayList<String>();
                node.path("shared_with").forEach(s -> shared.add(s.asString("")));
                add(
                        number,
                        new RegistryEntry(
                                word(node, name),
                                mac(number, word(node, mac)),
                                address(number, word(node, address)),
                                word(node, "serial"),
                                word(node, "model"),
                                word(node, "owner"),
                                shared));
            }
        } catch (JacksonException e) {
            var at = e.getLocation();
            problem(at == null ? 1 : at.getLineNr(), "", "This is not well-formed JSON: " + e.getOriginalMessage());
        }
    }

    private static String word(JsonNode node, String name) {
        return node.path(name).asString("");
    }

    private void blocks(String text) {
        // Comments become blanks, so that the places of what remains stay true.
        String plain = Pattern.compile("#[^\\n]*")
                .matcher(text)
                .replaceAll(m -> " ".repeat(m.group().length()));
        var block = BLOCK.matcher(plain);
        long line = 1;
        int counted = 0;
        while (block.find()) {
            for (; counted < block.start(); counted++) if (plain.charAt(counted) == '\n') line++;
            add(
                    line,
                    RegistryEntry.of(
                            block.group(1).replace("\"", ""),
                            mac(line, first(HARDWARE, block.group(2))),
                            address(line, first(FIXED, block.group(2)))));
        }
        long open = plain.chars().filter(c -> c == '{').count(),
                shut = plain.chars().filter(c -> c == '}').count();
        if (open != shut)
            problem(
                    1 + plain.chars().filter(c -> c == '\n').count(),
                    "",
                    "The braces do not match: " + open + " open, " + shut + " shut. Is the end of the file missing?");
    }

    private static String first(Pattern pattern, String text) {
        var found = pattern.matcher(text);
        return found.find() ? found.group(1) : "";
    }

    private void lines(RegistryForm form, String text) {
        long number = 0;
        for (String whole : text.split("\n", -1)) {
            number++;
            String line = form == RegistryForm.PLAIN
                    ? whole
                    : whole.replaceFirst("[#;].*", "").strip();
            if (line.isBlank()) continue;
            switch (form) {
                case HOSTS -> pair(number, line, 2, p -> entry(p[1], "", p[0]));
                case ETHERS -> pair(number, line, 2, p -> entry(p[1], p[0], ""));
                case HOST_LINES -> hostLine(number, line);
                case ZONE_FORWARD -> matched(number, line, FORWARD, m -> entry(m.group(1), "", m.group(2)));
                case ZONE_REVERSE ->
                    matched(
                            number,
                            line,
                            REVERSE,
                            m -> entry(
                                    m.group(5),
                                    "",
                                    m.group(4) + "." + m.group(3) + "." + m.group(2) + "." + m.group(1)));
                case PLAIN -> row(number, line);
                default -> throw new IllegalArgumentException(form + " is not read line by line");
            }
        }
    }

    /** An entry still as text: its name, MAC and address. */
    private record Texts(String name, String mac, String address) {}

    private static Texts entry(String name, String mac, String address) {
        return new Texts(name, mac, address);
    }

    private void add(long line, Texts t) {
        add(line, RegistryEntry.of(t.name(), mac(line, t.mac()), address(line, t.address())));
    }

    private void pair(long number, String line, int least, Function<String[], Texts> make) {
        String[] parts = line.split("\\s+");
        if (parts.length < least) problem(number, "", "Two words are needed on the line: “" + line + "”.");
        else add(number, make.apply(parts));
    }

    private void matched(long number, String line, Pattern pattern, Function<Matcher, Texts> make) {
        var matcher = pattern.matcher(line);
        if (matcher.matches()) add(number, make.apply(matcher));
        else if (!line.startsWith("$") && !line.matches("(?i).*\\s(SOA|NS|MX|TXT|AAAA|CNAME)\\s.*|[0-9\\s()]+"))
            problem(number, "", "This line cannot be read: “" + line + "”.");
    }

    private void hostLine(long number, String line) {
        if (!line.startsWith("dhcp-host=")) return;
        String mac = "", address = "", name = "";
        for (String part : line.substring("dhcp-host=".length()).split(","))
            if (part.strip().matches("(?:[^:\\s]{1,2}:){5}[^:\\s]{1,2}")) mac = part.strip();
            else if (part.strip().matches("[0-9]+(?:\\.[0-9]+)+")) address = part.strip();
            else if (part.strip().matches("[A-Za-z][A-Za-z0-9-]*") && name.isEmpty()) name = part.strip();
        add(number, entry(name, mac, address));
    }

    /** What is to be taken out is not what is held. */
    private void row(long number, String line) {
        if (!line.startsWith(" ")) goneBelow = line.startsWith("Please take out");
        if (goneBelow) return;
        var row = ROW.matcher(line);
        if (row.matches())
            add(number, entry(row.group(3).strip(), row.group(1), row.group(2) == null ? "" : row.group(2)));
    }
}
