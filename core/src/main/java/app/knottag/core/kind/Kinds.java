package app.knottag.core.kind;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.dataformat.yaml.YAMLMapper;

/** The kinds that come with Knot Tag, read from {@code kinds/*.yaml}. */
public final class Kinds {

    private static final List<String> SHIPPED = List.of(
            "counter-payment-terminal",
            "till-pin-pad",
            "time-clock",
            "label-printer",
            "copier",
            "document-scanner",
            "storage-box",
            "door-reader",
            "fax-adapter",
            "own-device",
            "other-endpoint");
    private static final YAMLMapper YAML = YAMLMapper.builder()
            .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
            .build();

    private final Map<String, Kind> byId;

    private Kinds(Map<String, Kind> byId) {
        this.byId = byId;
    }

    /** Reads all shipped kinds. */
    public static Kinds shipped() {
        var byId = new LinkedHashMap<String, Kind>();
        for (String id : SHIPPED) {
            try (InputStream in = Kinds.class.getResourceAsStream("/kinds/" + id + ".yaml")) {
                byId.put(id, read(new String(in.readAllBytes(), StandardCharsets.UTF_8), id + ".yaml"));
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
        return new Kinds(byId);
    }

    /**
     * Reads one kind.
     *
     * @param source name of the file, for the message
     * @throws IllegalArgumentException if the text is no kind; the message names file, line and column
     */
    public static Kind read(String yaml, String source) {
        try {
            return YAML.readValue(yaml, Kind.class);
        } catch (JacksonException e) {
            var at = e.getLocation();
            String where = at == null ? "" : " line " + at.getLineNr() + ", column " + at.getColumnNr();
            throw new IllegalArgumentException(source + where + ": " + e.getOriginalMessage(), e);
        }
    }

    /** Returns all kinds in the order they are offered. */
    public List<Kind> all() {
        return List.copyOf(byId.values());
    }

    /** Returns ids by everything that a list may call such a device, in small letters; the first kind wins a word. */
    public Map<String, String> byWords() {
        var words = new HashMap<String, String>();
        for (var kind : byId.values())
            for (String word : List.of(kind.id(), kind.name(), kind.noun(), kind.shortName()))
                words.putIfAbsent(word.toLowerCase(Locale.ROOT), kind.id());
        for (var kind : byId.values()) for (String word : kind.words()) words.putIfAbsent(word, kind.id());
        return words;
    }

    /** Returns the kind with this id, or empty. */
    public Optional<Kind> find(String id) {
        return Optional.ofNullable(byId.get(id));
    }

    /**
     * Returns the kind with this id.
     *
     * @throws IllegalArgumentException if there is none
     */
    public Kind get(String id) {
        return find(id).orElseThrow(
                        () -> new IllegalArgumentException("no kind “" + id + "”; there are " + byId.keySet()));
    }
}
