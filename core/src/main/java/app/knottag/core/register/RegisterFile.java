package app.knottag.core.register;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Purpose;
import app.knottag.core.hardware.Mac;
import app.knottag.core.hardware.MacReader;
import app.knottag.core.log.Words;
import app.knottag.core.reading.Reading;
import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.apache.commons.csv.CSVException;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.apache.commons.csv.DuplicateHeaderMode;

/** The register as CSV (RFC 4180, UTF-8, header line), written and read back all or nothing. */
public final class RegisterFile {

    /** Columns in the order they are written; read in any order, the first three and prefix must be there. */
    public static final List<String> COLUMNS = List.of(
            "name",
            "kind",
            "prefix",
            "number",
            "address",
            "segment",
            "gateway",
            "resolvers",
            "mac",
            "serial",
            "model",
            "port",
            "place",
            "outlet",
            "switch_port",
            "partner",
            "partner_address",
            "partner_test_port");

    /** Most rows that are read at once. */
    public static final int MOST_ROWS = 20_000;

    private static final Set<String> NEEDED = Set.of("name", "kind", "prefix");
    private static final CSVFormat FORMAT = CSVFormat.RFC4180
            .builder()
            .setHeader(COLUMNS.toArray(String[]::new))
            .get();

    private RegisterFile() {}

    /**
     * One thing wrong with a file.
     *
     * @param line line in the file, counted from 1; the header is line 1
     * @param column name of the column, or empty for the whole line
     */
    public record Problem(long line, String column, String message) {}

    /** Rows and problems; rows are only good when there is no problem. */
    public record Parsed(List<RegisterRow> rows, List<Problem> problems) {}

    /** Writes the rows. */
    public static String write(List<RegisterRow> rows) {
        var text = new StringBuilder();
        try (var printer = FORMAT.print(text)) {
            for (var r : rows)
                printer.printRecord(
                        r.name(),
                        r.kind(),
                        r.prefix(),
                        text(r.number()),
                        text(r.address()),
                        r.segment(),
                        text(r.gateway()),
                        String.join(
                                " ",
                                r.resolvers().stream()
                                        .map(Ipv4Address::toString)
                                        .toList()),
                        text(r.mac()),
                        r.serial(),
                        r.model(),
                        text(r.port()),
                        r.place(),
                        r.outlet(),
                        r.switchPort(),
                        r.partner(),
                        text(r.partnerAddress()),
                        text(r.partnerTestPort()));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return text.toString();
    }

    private static Object text(Optional<?> value) {
        return value.map(Object::toString).orElse("");
    }

    /**
     * Reads a file.
     *
     * @param kinds ids of the kinds that exist
     */
    public static Parsed read(String csv, Collection<String> kinds) {
        String text = csv.startsWith("\uFEFF") ? csv.substring(1) : csv;
        if (text.isBlank())
            return refused(1, "The file is empty. It needs a header line: " + String.join(",", COLUMNS));
        if (text.indexOf('\0') >= 0)
            return refused(1, "This is not a text file. Save the sheet as CSV (UTF-8) and choose that.");
        if (text.indexOf('\uFFFD') >= 0)
            return refused(1, "Some letters cannot be read. Save the file as CSV (UTF-8) and choose it again.");
        var format = CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .setDuplicateHeaderMode(DuplicateHeaderMode.DISALLOW)
                .setIgnoreSurroundingSpaces(true)
                .setTrim(true)
                .setIgnoreEmptyLines(true)
                .get();
        try (var parser = format.parse(new StringReader(text))) {
            var names = parser.getHeaderNames();
            var missing =
                    NEEDED.stream().filter(c -> !names.contains(c)).sorted().toList();
            var unknown = names.stream().filter(c -> !COLUMNS.contains(c)).toList();
            if (!missing.isEmpty())
                return refused(
                        1, "The header line lacks: " + String.join(", ", missing) + ". Columns are parted by commas.");
            if (!unknown.isEmpty())
                return refused(
                        1,
                        "Unknown column: " + String.join(", ", unknown) + ". Known are: " + String.join(", ", COLUMNS)
                                + ".");
            return new Rows(kinds, names).read(parser);
        } catch (CSVException | IllegalArgumentException | UncheckedIOException e) {
            return refused(1, "The file is not well-formed CSV: " + e.getMessage());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Parsed refused(long line, String message) {
        return new Parsed(List.of(), List.of(new Problem(line, "", message)));
    }

    /** Reads the lines below the header, gathering every problem. */
    private static final class Rows {
        private final Collection<String> kinds;
        private final List<String> names;
        private final List<RegisterRow> rows = new ArrayList<>();
        private final List<Problem> problems = new ArrayList<>();
        private final Map<String, Long> firstLine = new HashMap<>();
        private final Map<Ipv4Prefix, Long> prefixes = new LinkedHashMap<>();
        private CSVRecord record;
        private long line;

        Rows(Collection<String> kinds, List<String> names) {
            this.kinds = kinds;
            this.names = names;
        }

        Parsed read(CSVParser records) {
            long previous = 1;
            for (CSVRecord each : records) {
                record = each;
                line = previous + 1;
                previous = Math.max(line, records.getCurrentLineNumber());
                if (rows.size() >= MOST_ROWS) {
                    problems.add(new Problem(line, "", "More than " + MOST_ROWS + " lines. Split the file."));
                    break;
                }
                if (record.size() != names.size())
                    problems.add(new Problem(
                            line,
                            "",
                            "The line has " + record.size() + " cells, the header has " + names.size() + "."));
                else row().ifPresent(rows::add);
            }
            return new Parsed(problems.isEmpty() ? List.copyOf(rows) : List.of(), List.copyOf(problems));
        }

        private Optional<RegisterRow> row() {
            int before = problems.size();
            String name = words("name", true), kind = cell("kind");
            if (!kinds.contains(kind))
                problem("kind", "There is no kind “" + kind + "”. There are: " + String.join(", ", kinds) + ".");
            var prefix = reading("prefix", t -> AddressReader.read(t, Purpose.PREFIX, AddressContext.NONE))
                    .map(Ipv4Prefix::parse);
            if (cell("prefix").isEmpty()) problem("prefix", "The prefix of the segment is missing.");
            var address = address("address", Purpose.ADDRESS);
            var gateway = address("gateway", Purpose.GATEWAY);
            var partnerAddress = address("partner_address", Purpose.ADDRESS);
            var resolvers = Arrays.stream(cell("resolvers").split("[ ;]+"))
                    .filter(t -> !t.isEmpty())
                    .map(t -> read("resolvers", AddressReader.read(t, Purpose.RESOLVER, AddressContext.NONE))
                            .map(Ipv4Address::parse))
                    .flatMap(Optional::stream)
                    .toList();
            var mac = reading("mac", t -> MacReader.read(t, Set.of(), Optional.empty()))
                    .map(Mac::parse);
            String serial = words("serial", false);
            var row = prefix.map(p -> new RegisterRow(
                    name,
                    kind,
                    number("number", 9999),
                    address,
                    words("segment", false),
                    p,
                    gateway,
                    resolvers,
                    mac,
                    serial,
                    words("model", false),
                    number("port", 65_535),
                    words("place", false),
                    words("outlet", false),
                    words("switch_port", false),
                    words("partner", false),
                    partnerAddress,
                    number("partner_test_port", 65_535)));
            prefix.ifPresent(p -> address.filter(a -> !p.usable(a))
                    .ifPresent(a -> problem("address", a + " is no address for a device in " + p + ".")));
            twice("name", name.toLowerCase(Locale.ROOT), name);
            prefix.ifPresent(this::overlaps);
            address.ifPresent(a -> twice("address", a.toString(), a.toString()));
            mac.ifPresent(m -> twice("mac", m.toString(), m.toString()));
            return problems.size() == before ? row : Optional.empty();
        }

        private String cell(String column) {
            return names.contains(column) ? record.get(column) : "";
        }

        private void problem(String column, String message) {
            problems.add(new Problem(line, column, message));
        }

        private void twice(String column, String key, String value) {
            Long first = key.isEmpty() ? null : firstLine.putIfAbsent(column + " " + key, line);
            if (first != null) problem(column, value + " stands on line " + first + " already.");
        }

        /** Segments of a site never overlap: one prefix is the segment, or the other. */
        private void overlaps(Ipv4Prefix prefix) {
            if (prefixes.containsKey(prefix)) return;
            prefixes.forEach((other, first) -> {
                if (other.overlaps(prefix))
                    problem(
                            "prefix",
                            prefix + " overlaps " + other + " of line " + first + ". Which of the two is the segment?");
            });
            prefixes.put(prefix, line);
        }

        private String words(String column, boolean needed) {
            String text = cell(column);
            Words.problem(text, needed).ifPresent(p -> problem(column, p));
            return text;
        }

        private Optional<Integer> number(String column, int most) {
            String text = cell(column);
            if (text.isEmpty()) return Optional.empty();
            if (text.matches("[0-9]{1,5}") && Integer.parseInt(text) >= 1 && Integer.parseInt(text) <= most)
                return Optional.of(Integer.parseInt(text));
            problem(column, "“" + text + "” is not a number from 1 to " + most + ".");
            return Optional.empty();
        }

        private Optional<Ipv4Address> address(String column, Purpose purpose) {
            return reading(column, t -> AddressReader.read(t, purpose, AddressContext.NONE))
                    .map(Ipv4Address::parse);
        }

        private Optional<String> reading(String column, Function<String, Reading> reader) {
            String text = cell(column);
            return text.isEmpty() ? Optional.empty() : read(column, reader.apply(text));
        }

        private Optional<String> read(String column, Reading reading) {
            reading.refusal().ifPresent(why -> problem(column, why));
            return reading.kept();
        }
    }
}
