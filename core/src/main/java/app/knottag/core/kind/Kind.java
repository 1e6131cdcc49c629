package app.knottag.core.kind;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A kind of endpoint: what is read, set, waited for and proved. Comes from a data file, see {@link Kinds}.
 *
 * @param id stable name, small letters and hyphens
 * @param version counted up from 1 with every change of the file
 * @param noun what one is called in a sentence and in a proposed name, after the number's own name
 * @param shortName two to five small letters for its part in a host name
 * @param codeLetter capital letter that begins its tag label
 * @param series name of the series its numbers belong to, or empty when it has no number
 * @param fixedBecause why its address is fixed, one line
 * @param reached whether anything connects to it, rather than it only calling out
 * @param talks what it calls by itself
 * @param serialPattern regular expression that its serials match, or empty when none is known
 * @param labelPlace where MAC and serial stand on it
 * @param menuPath how to get to the network menu of this device
 * @param menu the fields of that menu, in its own order
 * @param service how the service is asked for its serial
 * @param personal whether such a device belongs to one person, as a phone does
 * @param labels where its facts stand, in no order
 * @param words what else lists call such a device, in small letters
 */
public record Kind(
        String id,
        int version,
        String name,
        String noun,
        String shortName,
        String codeLetter,
        String series,
        String fixedBecause,
        boolean reached,
        List<Talk> talks,
        String serialPattern,
        String labelPlace,
        String menuPath,
        String menuCaution,
        List<MenuField> menu,
        Service service,
        List<Step> steps,
        boolean personal,
        List<Label> labels,
        List<String> words) {

    public Kind {
        menu = List.copyOf(menu);
        steps = List.copyOf(steps);
        talks = talks == null ? List.of() : List.copyOf(talks);
        labels = labels == null ? List.of() : List.copyOf(labels);
        words = words == null ? List.of() : List.copyOf(words);
        if (!shortName.matches("[a-z]{2,5}"))
            throw new IllegalArgumentException("shortName must be two to five small letters, was " + shortName);
        if (!id.matches("[a-z][a-z0-9-]{1,39}"))
            throw new IllegalArgumentException("id must be small letters, digits and hyphens, was " + id);
        if (!codeLetter.matches("[A-Z]"))
            throw new IllegalArgumentException("codeLetter must be one capital letter, was " + codeLetter);
        if (steps.stream().map(Step::key).distinct().count() != steps.size())
            throw new IllegalArgumentException("two steps of " + id + " have the same key");
        steps = List.copyOf(StepOrder.of(steps));
        for (var label : labels)
            if (!label.hiddenAfter().isEmpty()
                    && steps.stream().noneMatch(s -> s.key().equals(label.hiddenAfter())))
                throw new IllegalArgumentException(
                        "a label is hidden after a step that " + id + " does not have: " + label.hiddenAfter());
    }

    /**
     * Returns the step with this key.
     *
     * @throws IllegalArgumentException if the kind has none
     */
    public Step step(String key) {
        return steps.stream()
                .filter(s -> s.key().equals(key))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException(name + " has no step “" + key + "”"));
    }

    /**
     * A field of the device's own menu.
     *
     * @param label what the device calls it
     * @param text what to set when the value does not come from the plan, or what it is when left alone
     * @param leaveAlone whether it keeps its factory value
     */
    public record MenuField(Field field, String label, String text, boolean leaveAlone) {
        public MenuField {
            text = text == null ? "" : text;
        }
    }

    /**
     * Traffic that the device begins.
     *
     * @param port TCP or UDP port, 1..65535
     */
    public record Talk(To to, String protocol, int port, String why) {
        /** Whom it calls. */
        public enum To {
            INTERNET,
            PARTNER
        }

        public Talk {
            if (port < 1 || port > 65_535) throw new IllegalArgumentException("a port must be 1..65535, was " + port);
        }
    }

    /**
     * Where a fact can be read.
     *
     * @param where where it stands on the device
     * @param hiddenAfter key of the step after which it can no longer be seen, or empty
     */
    public record Label(Read fact, String where, String hiddenAfter) {
        /** What can be read. */
        public enum Read {
            MAC,
            SERIAL,
            MODEL
        }

        public Label {
            hiddenAfter = hiddenAfter == null ? "" : hiddenAfter;
        }
    }

    /** What a menu field holds; OTHER takes its text from the kind. */
    public enum Field {
        ADDRESS,
        MASK,
        GATEWAY,
        RESOLVER_1,
        RESOLVER_2,
        OTHER
    }

    /**
     * A handshake of one line each way on the endpoint's service port.
     *
     * @param defaultPort port when the series gives none
     * @param ask line that is sent
     * @param answer what comes back, with {@code {serial}} where the device puts its serial
     * @param proves what a right answer proves, in plain words
     * @param partnerAsk line sent to the partner's test port, or empty when only a person can test from there
     */
    public record Service(int defaultPort, String ask, String answer, String proves, String partnerAsk) {}

    /**
     * One step of the runbook.
     *
     * @param hint what to do, one line each
     * @param caution shown where the hands are, or empty
     * @param after keys of steps that must come before, each with what breaks when it comes later
     * @param waiting how long it takes, or empty when it is attended
     */
    public record Step(
            String key,
            String title,
            List<String> hint,
            String caution,
            Map<String, String> after,
            @JsonProperty("wait") Optional<Wait> waiting,
            Gate gate) {
        public Step {
            hint = hint == null ? List.of() : List.copyOf(hint);
            caution = caution == null ? "" : caution;
            after = after == null ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(after));
            waiting = waiting == null ? Optional.empty() : waiting;
        }
    }

    /** Minutes that a wait lasts: before the shortest it is too early to judge, after the longest it has failed. */
    public record Wait(int shortest, int usual, int longest, String lookFor) {
        public Wait {
            if (shortest < 0 || shortest > usual || usual > longest)
                throw new IllegalArgumentException(
                        "a wait needs shortest <= usual <= longest, was " + shortest + ", " + usual + ", " + longest);
        }
    }

    /** What must be seen before a step may be tied. */
    public record Gate(GateType type, String ask, List<Option> options) {
        public Gate {
            ask = ask == null ? "" : ask;
            options = options == null ? List.of() : List.copyOf(options);
            if (type == GateType.CHOICE && options.stream().noneMatch(Option::holds))
                throw new IllegalArgumentException("a choice needs an option that holds: " + ask);
        }
    }

    /** How a gate is judged. */
    public enum GateType {
        CHOICE,
        FACTS,
        TYPE_SHEET,
        READ_BACK,
        ADDRESS_SHOWN,
        CONFIRMED
    }

    /** Something that may be seen, and what to do when it is not what was hoped for. */
    public record Option(String value, String label, boolean holds, String remedy) {
        public Option {
            remedy = remedy == null ? "" : remedy;
        }
    }
}
