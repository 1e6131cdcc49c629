package app.knottag.core.intake;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Purpose;
import app.knottag.core.hardware.Mac;
import app.knottag.core.hardware.MacReader;
import app.knottag.core.intake.Draft.Parsed;
import app.knottag.core.intake.Draft.Remark;
import app.knottag.core.log.Words;
import app.knottag.core.reading.Reading;
import app.knottag.core.reading.ReadingException;
import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.apache.commons.csv.CSVFormat;

/** A sheet as CSV (RFC 4180) with commas, semicolons or tabs, whose columns are matched to what they mean. */
public final class Sheet {

    private static final int MOST_ROWS = 5_000;
    private final List<String> headers;
    private final List<List<String>> rows;

    private Sheet(List<String> headers, List<List<String>> rows) {
        this.headers = headers;
        this.rows = rows;
    }

    /** What a column may mean; the words are those that people write above it, in small letters. */
    public enum Column {
        NAME(
                "name",
                "device",
                "endpoint",
                "what",
                "label",
                "description",
                "bezeichnung",
                "gerät",
                "geraet",
                "nom",
                "appareil",
                "nombre",
                "dispositivo",
                "equipo",
                "désignation",
                "descripción",
                "beschreibung",
                "hostname",
                "host name",
                "host",
                "gerätename"),
        KIND("kind", "type", "category", "art", "typ", "gerätetyp", "genre", "tipo", "clase"),
        NUMBER(
                "number",
                "no",
                "nr",
                "till",
                "register",
                "nummer",
                "kasse",
                "numéro",
                "numero",
                "número",
                "caisse",
                "caja"),
        ADDRESS(
                "address",
                "ip",
                "ip address",
                "ipv4",
                "ip-address",
                "adresse",
                "ip-adresse",
                "adresse ip",
                "ipv4-adresse",
                "dirección",
                "dirección ip",
                "direccion ip",
                "adresse ipv4",
                "ip addr"),
        MAC(
                "mac",
                "mac address",
                "ethernet",
                "hardware address",
                "mac-adresse",
                "adresse mac",
                "dirección mac",
                "direccion mac",
                "mac-address",
                "mac addr",
                "physical address",
                "physische adresse"),
        SERIAL(
                "serial",
                "serial number",
                "s/n",
                "sn",
                "seriennummer",
                "serien-nr.",
                "numéro de série",
                "no de série",
                "número de serie",
                "numero de serie",
                "serial no"),
        PLACE(
                "place",
                "room",
                "location",
                "where",
                "raum",
                "ort",
                "standort",
                "lieu",
                "salle",
                "emplacement",
                "lugar",
                "sala",
                "ubicación",
                "platz"),
        OUTLET("outlet", "wall", "socket", "data point", "dose", "netzwerkdose", "prise", "toma", "datendose"),
        PORT(
                "port",
                "switch port",
                "switch",
                "patched to",
                "switchport",
                "anschluss",
                "port du switch",
                "puerto",
                "puerto del switch");

        private final Set<String> words;

        Column(String... words) {
            this.words = Set.of(words);
        }
    }

    /**
     * Reads a sheet; the first line names the columns.
     *
     * @throws IllegalArgumentException if the text is no table; the message says why and where
     */
    public static Sheet read(String text) {
        if (text.isBlank())
            throw new ReadingException("There is nothing here. Paste the lines, the first naming the columns.");
        String first = text.substring(0, text.indexOf('\n') < 0 ? text.length() : text.indexOf('\n'));
        char comma = first.indexOf('\t') >= 0 ? '\t' : count(first, ';') > count(first, ',') ? ';' : ',';
        var format = CSVFormat.RFC4180
                .builder()
                .setDelimiter(comma)
                .setIgnoreSurroundingSpaces(true)
                .setTrim(true)
                .get();
        try (var parser = format.parse(new StringReader(text))) {
            var rows = parser.stream()
                    .map(r -> r.stream().toList())
                    .limit(MOST_ROWS + 2L)
                    .toList();
            if (rows.size() > MOST_ROWS + 1)
                throw new ReadingException("More than " + MOST_ROWS + " lines. Split the sheet.");
            if (rows.get(0).size() < 2)
                throw new ReadingException(
                        "Line 1 has one column only. The columns must be parted by commas, semicolons or tabs.");
            return new Sheet(rows.get(0), rows.subList(1, rows.size()));
        } catch (IOException | UncheckedIOException e) {
            throw new ReadingException("The sheet is not well-formed: " + e.getMessage(), e);
        }
    }

    private static long count(String text, char c) {
        return text.chars().filter(x -> x == c).count();
    }

    /** Returns the names that stand above the columns. */
    public List<String> headers() {
        return headers;
    }

    /** Returns which column means what, as far as its name says so; columns are counted from 0. */
    public Map<Column, Integer> match() {
        var match = new EnumMap<Column, Integer>(Column.class);
        for (var column : Column.values())
            for (int i = 0; i < headers.size(); i++)
                if (column.words.contains(
                                headers.get(i).toLowerCase(Locale.ROOT).strip())
                        && !match.containsValue(i)) match.putIfAbsent(column, i);
        return match;
    }

    /** Returns the names of columns that hold something and mean nothing here, in their order. */
    public List<String> unused(Map<Column, Integer> columns) {
        var unused = new ArrayList<String>();
        for (int i = 0; i < headers.size(); i++) {
            int at = i;
            boolean filled =
                    rows.stream().anyMatch(r -> at < r.size() && !r.get(at).isBlank());
            if (filled && !columns.containsValue(i))
                unused.add(headers.get(i).isBlank() ? "column " + (i + 1) : headers.get(i));
        }
        return List.copyOf(unused);
    }

    /**
     * Makes drafts of the lines.
     *
     * @param columns which column means what, counted from 0
     * @param kinds ids of the kinds by everything they may be called, in small letters
     */
    public Parsed drafts(Map<Column, Integer> columns, Map<String, String> kinds) {
        if (!columns.containsKey(Column.NAME) && !columns.containsKey(Column.ADDRESS))
            return Parsed.refused("Say which column holds the name or the address.");
        var reader = new Rows(columns, kinds);
        for (int i = 0; i < rows.size(); i++) reader.row(i + 2L, rows.get(i));
        return new Parsed(Optional.empty(), reader.drafts, reader.leftOut, reader.problems);
    }

    private static final class Rows {
        private final Map<Column, Integer> columns;
        private final Map<String, String> kinds;
        private final List<Draft> drafts = new ArrayList<>();
        private final List<Remark> leftOut = new ArrayList<>();
        private final List<Remark> problems = new ArrayList<>();
        private long line;
        private List<String> cells = List.of();

        Rows(Map<Column, Integer> columns, Map<String, String> kinds) {
            this.columns = columns;
            this.kinds = kinds;
        }

        void row(long number, List<String> row) {
            line = number;
            cells = row;
            if (row.stream().allMatch(String::isBlank)) return;
            String name = words(Column.NAME);
            var address = reading(Column.ADDRESS, t -> AddressReader.read(t, Purpose.ADDRESS, AddressContext.NONE))
                    .map(Ipv4Address::parse);
            if (name.isEmpty() && address.isEmpty() && cell(Column.ADDRESS).isEmpty()) {
                leftOut.add(new Remark(line, "", "It has neither a name nor an address."));
                return;
            }
            drafts.add(new Draft(
                    line,
                    address,
                    reading(Column.MAC, t -> MacReader.read(t, Set.of(), Optional.empty()))
                            .map(Mac::parse),
                    name,
                    kind(),
                    number(),
                    words(Column.SERIAL),
                    words(Column.PLACE),
                    words(Column.OUTLET),
                    words(Column.PORT),
                    Optional.empty(),
                    true));
        }

        private String cell(Column column) {
            Integer at = columns.get(column);
            return at == null || at >= cells.size() ? "" : cells.get(at).strip();
        }

        private void problem(Column column, String message) {
            problems.add(new Remark(line, column.name().toLowerCase(Locale.ROOT), message));
        }

        private String words(Column column) {
            String text = cell(column);
            Words.problem(text, false).ifPresent(p -> problem(column, p));
            return text;
        }

        private String kind() {
            String text = cell(Column.KIND).toLowerCase(Locale.ROOT);
            if (text.isEmpty()) return "";
            String kind = kinds.get(text);
            if (kind == null)
                problem(
                        Column.KIND,
                        "There is no kind “" + cell(Column.KIND)
                                + "”. Leave the cell empty, or name one that there is.");
            return kind == null ? "" : kind;
        }

        private Optional<Integer> number() {
            String text = cell(Column.NUMBER);
            if (text.isEmpty()) return Optional.empty();
            if (text.matches("[0-9]{1,4}") && Integer.parseInt(text) > 0) return Optional.of(Integer.parseInt(text));
            problem(Column.NUMBER, "“" + text + "” is not a number from 1 to 9999.");
            return Optional.empty();
        }

        private Optional<String> reading(Column column, Function<String, Reading> reader) {
            String text = cell(column);
            if (text.isEmpty()) return Optional.empty();
            var reading = reader.apply(text);
            reading.refusal().ifPresent(why -> problem(column, why));
            return reading.kept();
        }
    }
}
