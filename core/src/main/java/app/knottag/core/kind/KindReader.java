package app.knottag.core.kind;

import app.knottag.core.log.Secrets;
import com.fasterxml.jackson.annotation.JsonProperty;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.Type;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.api.lowlevel.Compose;
import org.snakeyaml.engine.v2.api.lowlevel.Parse;
import org.snakeyaml.engine.v2.events.AliasEvent;
import org.snakeyaml.engine.v2.events.CollectionEndEvent;
import org.snakeyaml.engine.v2.events.CollectionStartEvent;
import org.snakeyaml.engine.v2.events.DocumentStartEvent;
import org.snakeyaml.engine.v2.events.Event;
import org.snakeyaml.engine.v2.events.NodeEvent;
import org.snakeyaml.engine.v2.events.ScalarEvent;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DatabindException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.exc.MismatchedInputException;
import tools.jackson.dataformat.yaml.YAMLMapper;

/**
 * Reads one kind from YAML (1.2) and says of everything that is wrong on which line it stands. Files come from anybody:
 * they are short, shallow, one document, and have neither anchors nor tags.
 */
public final class KindReader {

    /** Most characters of a file. */
    public static final int LONGEST = 65_536;

    private static final int DEEPEST = 12;
    private static final int MOST_FINDINGS = 50;
    private static final LoadSettings SETTINGS = LoadSettings.builder()
            .setAllowDuplicateKeys(false)
            .setMaxAliasesForCollections(0)
            .setCodePointLimit(LONGEST)
            .build();
    private static final YAMLMapper YAML = YAMLMapper.builder()
            .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .disable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
            .build();

    private KindReader() {}

    /**
     * Something wrong in the file.
     *
     * @param line counted from 1; 0 for the whole file
     * @param column counted from 1; 0 for the whole line
     */
    public record KindFinding(int line, int column, String message) {}

    /** A kind, or everything that speaks against the file. */
    public record KindReading(@Nullable Kind kind, List<KindFinding> findings) {}

    /** Reads the text; never throws for what stands in it. */
    public static KindReading read(String yaml) {
        var findings = new ArrayList<KindFinding>();
        if (yaml.length() > LONGEST)
            findings.add(new KindFinding(
                    0, 0, "The file has " + yaml.length() + " characters; at most " + LONGEST + " are read."));
        if (findings.isEmpty()) hostile(yaml, findings);
        Node root = findings.isEmpty() ? compose(yaml, findings) : null;
        if (root != null) keys(root, Kind.class, findings);
        if (findings.isEmpty()) secrets(yaml, findings);
        if (!findings.isEmpty() || root == null) return new KindReading(null, findings);
        try {
            return new KindReading(YAML.readValue(yaml, Kind.class), List.of());
        } catch (JacksonException e) {
            return new KindReading(null, findings(e, root));
        }
    }

    /** A kind is shared and shown to everybody: nothing secret stands in it. */
    private static void secrets(String yaml, List<KindFinding> findings) {
        var lines = yaml.lines().toList();
        for (int i = 0; i < lines.size() && findings.size() <= MOST_FINDINGS; i++) {
            int line = i + 1;
            Secrets.in(lines.get(i))
                    .ifPresent(what -> findings.add(new KindFinding(
                            line, 1, "This looks like a " + what + ". Write down only where it is kept.")));
        }
    }

    /** Looks through the file event by event before anything is built from it. */
    private static void hostile(String yaml, List<KindFinding> findings) {
        int depth = 0, documents = 0;
        try {
            for (Event event : new Parse(SETTINGS).parseString(yaml)) {
                if (event instanceof CollectionStartEvent) depth++;
                if (event instanceof CollectionEndEvent) depth--;
                String problem = event instanceof DocumentStartEvent && ++documents > 1
                        ? "A second document begins here; a file holds one kind."
                        : depth > DEEPEST ? "More than " + DEEPEST + " levels deep." : foreign(event);
                if (!problem.isEmpty()) findings.add(at(event.getStartMark(), problem));
                if (depth > DEEPEST || findings.size() > MOST_FINDINGS) return;
            }
        } catch (YamlEngineException e) {
            findings.add(unreadable(e));
        }
    }

    private static String foreign(Event event) {
        if (event instanceof AliasEvent
                || event instanceof NodeEvent node && node.getAnchor().isPresent())
            return "Anchors and aliases are not read here: write it out.";
        Optional<String> tag = event instanceof ScalarEvent scalar
                ? scalar.getTag()
                : event instanceof CollectionStartEvent start ? start.getTag() : Optional.empty();
        return tag.map(t -> "The tag “" + t + "” is not read here: leave it out.")
                .orElse("");
    }

    private static KindFinding unreadable(YamlEngineException e) {
        return e instanceof MarkedYamlEngineException marked && marked.getProblem() != null
                ? at(marked.getProblemMark(), "This cannot be read: " + marked.getProblem() + ".")
                : new KindFinding(0, 0, "This cannot be read: " + e.getMessage() + ".");
    }

    private static @Nullable Node compose(String yaml, List<KindFinding> findings) {
        try {
            var root = new Compose(SETTINGS).composeString(yaml);
            if (root.isEmpty()) findings.add(new KindFinding(0, 0, "The file is empty."));
            return root.orElse(null);
        } catch (YamlEngineException e) {
            findings.add(unreadable(e));
            return null;
        }
    }

    /** Finds keys that stand twice, and those that no part of a kind has. */
    private static void keys(Node node, Type type, List<KindFinding> findings) {
        if (type instanceof ParameterizedType wrapped && wrapped.getRawType() != Map.class) {
            Type inner = wrapped.getActualTypeArguments()[0];
            if (wrapped.getRawType() == Optional.class) keys(node, inner, findings);
            else if (node instanceof SequenceNode list) list.getValue().forEach(n -> keys(n, inner, findings));
        }
        if (!(node instanceof MappingNode map)) return;
        var known = type instanceof Class<?> record && record.isRecord() ? parts(record) : null;
        var seen = new HashSet<String>();
        for (var pair : map.getValue()) {
            if (!(pair.getKeyNode() instanceof ScalarNode key)) continue;
            if (!seen.add(key.getValue())) findings.add(finding(key, "“" + key.getValue() + "” stands here twice."));
            if (known == null) continue;
            if (known.containsKey(key.getValue())) keys(pair.getValueNode(), known.get(key.getValue()), findings);
            else
                findings.add(finding(
                        key,
                        "There is no “" + key.getValue() + "” here; there are " + String.join(", ", known.keySet())
                                + "."));
        }
    }

    private static Map<String, Type> parts(Class<?> record) {
        var parts = new LinkedHashMap<String, Type>();
        for (var part : record.getRecordComponents()) {
            var renamed = part.getAccessor().getAnnotation(JsonProperty.class);
            parts.put(renamed == null ? part.getName() : renamed.value(), part.getGenericType());
        }
        return parts;
    }

    private static List<KindFinding> findings(JacksonException e, Node root) {
        if (e.getCause() instanceof KindFileException mistake)
            return mistake.mistakes().stream()
                    .map(f -> finding(find(root, f.path()), capital(f.message()) + "."))
                    .toList();
        String message = e.getCause() instanceof IllegalArgumentException cause
                ? cause.getMessage()
                : e.getCause() instanceof NullPointerException
                        ? "something that is needed is missing here; see the list of parts"
                        : plain(e);
        Node node = e instanceof DatabindException bound ? find(root, path(bound)) : root;
        return List.of(finding(node, capital(message) + "."));
    }

    /** What belongs where something else stands, without the names of classes. */
    private static String plain(JacksonException e) {
        var wanted = e instanceof MismatchedInputException other ? other.getTargetType() : null;
        if (wanted == null) return "this cannot be read here";
        if (wanted.isEnum())
            return "one of these stands here: "
                    + Stream.of(wanted.getEnumConstants()).map(Object::toString).collect(Collectors.joining(", "));
        if (wanted.isRecord() || Map.class.isAssignableFrom(wanted))
            return "parts stand here, each on its own line as “name: value”";
        if (Collection.class.isAssignableFrom(wanted)) return "a list stands here, each on its own line after a dash";
        if (wanted == boolean.class || wanted == Boolean.class) return "true or false stands here";
        if (wanted == int.class || wanted == Integer.class) return "a whole number stands here";
        return "a text stands here";
    }

    private static String path(DatabindException e) {
        var path = new StringBuilder();
        for (var step : e.getPath())
            path.append('/').append(step.getPropertyName() == null ? "" + step.getIndex() : step.getPropertyName());
        return path.isEmpty() ? "" : path.substring(1);
    }

    /** Follows a path as far as it goes. */
    private static Node find(Node root, String path) {
        Node at = root;
        for (String step : path.split("/")) at = child(at, step).orElse(at);
        return at;
    }

    private static Optional<Node> child(Node node, String step) {
        if (node instanceof SequenceNode list && step.matches("\\d{1,5}"))
            return Optional.of(list.getValue().get(Integer.parseInt(step)));
        if (node instanceof MappingNode map)
            return map.getValue().stream()
                    .filter(t -> t.getKeyNode() instanceof ScalarNode key
                            && key.getValue().equals(step))
                    .map(t -> t.getValueNode())
                    .findFirst();
        return Optional.empty();
    }

    private static KindFinding finding(Node node, String message) {
        return at(node.getStartMark(), message);
    }

    private static KindFinding at(Optional<Mark> mark, String message) {
        return new KindFinding(
                mark.map(m -> m.getLine() + 1).orElse(0),
                mark.map(m -> m.getColumn() + 1).orElse(0),
                message);
    }

    private static String capital(String text) {
        return text == null || text.isEmpty() ? "" : Character.toUpperCase(text.charAt(0)) + text.substring(1);
    }
}
