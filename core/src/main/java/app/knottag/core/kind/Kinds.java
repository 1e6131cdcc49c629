package app.knottag.core.kind;

import app.knottag.core.reading.ReadingException;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.TreeMap;

/**
 * The kinds there are: those that come with Knot Tag, read from {@code kinds/*.yaml}, and people's own. All versions
 * are kept, because a runbook that has begun goes on with the one it began with. Safe for several threads.
 */
public final class Kinds {

    /** Ids of the kinds that come with Knot Tag, in the order they are offered. */
    public static final List<String> SHIPPED = List.of(
            "counter-payment-terminal",
            "till-pin-pad",
            "kiosk-set",
            "time-clock",
            "fingerprint-reader",
            "door-reader",
            "storage-box",
            "document-scanner",
            "copier",
            "fax-adapter",
            "meeting-room-hub",
            "watched-outlet",
            "label-printer",
            "signature-pad",
            "camera",
            "desk-phone",
            "own-device",
            "other-endpoint");

    private volatile Map<String, NavigableMap<Integer, Kind>> byId = Map.of();

    private Kinds() {}

    /** Reads all shipped kinds. */
    public static Kinds shipped() {
        return of(readShipped());
    }

    /** Returns kinds that hold these, in this order. */
    public static Kinds of(List<Kind> all) {
        var kinds = new Kinds();
        all.forEach(kinds::add);
        return kinds;
    }

    /** Reads the files of all shipped kinds. */
    public static List<Kind> readShipped() {
        return SHIPPED.stream().map(id -> read(shippedText(id), id + ".yaml")).toList();
    }

    /** Returns the file of a shipped kind. */
    public static String shippedText(String id) {
        try (InputStream in = Kinds.class.getResourceAsStream("/kinds/" + id + ".yaml")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * Reads one kind.
     *
     * @param source name of the file, for the message
     * @throws IllegalArgumentException if the text is no kind; the message names file, line and column
     */
    public static Kind read(String yaml, String source) {
        var reading = KindReader.read(yaml);
        if (reading.kind() != null) return reading.kind();
        var first = reading.findings().get(0);
        throw new ReadingException(
                source + " line " + first.line() + ", column " + first.column() + ": " + first.message());
    }

    /** Adds a kind, or another version of one. */
    public synchronized void add(Kind kind) {
        var more = new LinkedHashMap<>(byId);
        var versions = new TreeMap<>(more.getOrDefault(kind.id(), new TreeMap<>()));
        versions.put(kind.version(), kind);
        more.put(kind.id(), versions);
        byId = more;
    }

    /** Returns the latest version of all kinds in the order they are offered. */
    public List<Kind> all() {
        var all = new ArrayList<Kind>();
        for (var versions : byId.values()) all.add(versions.lastEntry().getValue());
        return all;
    }

    /** Returns ids by everything that a list may call such a device, in small letters; the first kind wins a word. */
    public Map<String, String> byWords() {
        var words = new HashMap<String, String>();
        for (var kind : all())
            for (String word : List.of(kind.id(), kind.name(), kind.noun(), kind.shortName()))
                words.putIfAbsent(word.toLowerCase(Locale.ROOT), kind.id());
        for (var kind : all()) for (String word : kind.words()) words.putIfAbsent(word, kind.id());
        return words;
    }

    /** Returns the latest version of the kind with this id, or empty. */
    public Optional<Kind> find(String id) {
        return Optional.ofNullable(byId.get(id)).map(v -> v.lastEntry().getValue());
    }

    /** Returns one version of a kind, or empty when that one is not known. */
    public Optional<Kind> find(String id, int version) {
        return Optional.ofNullable(byId.get(id)).map(v -> v.get(version));
    }

    /**
     * Returns the latest version of the kind with this id.
     *
     * @throws IllegalArgumentException if there is none
     */
    public Kind get(String id) {
        return find(id).orElseThrow(() -> new ReadingException("no kind “" + id + "”; there are " + byId.keySet()));
    }
}
