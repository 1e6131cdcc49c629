package app.knottag.core.kind;

import app.knottag.core.reading.ReadingException;
import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

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
 * @param menu the fields of that menu, in its own order, and of further menus
 * @param menus further menus by their name, each with how to get there: a second one of the device, or the partner's own
 * @param service how the service is asked for its serial
 * @param personal whether such a device belongs to one person, as a phone does
 * @param labels where its facts stand, in no order
 * @param words what else lists call such a device, in small letters
 * @param outfit what comes in the box and how it is plugged together
 * @param questions what must be known of one endpoint to say which steps apply
 * @param signals what its lights, icons and beeps mean
 * @param openings what stands open on a new one, or after a reset
 * @param reset what a reset undoes, or empty when it has none
 * @param nightlyMinutes minutes that its restart at night takes, 0 when it makes none, at most 240
 * @param wireless whether it joins by its wireless only
 * @param minutes usual minutes that somebody stands beside it at a step, by its key, where the gate alone does not tell
 * @param megabytes what it fetches over the line while a step runs by itself, by its key
 * @param client what the client is told of it, in plain words
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
        Map<String, String> menus,
        Service service,
        List<Step> steps,
        boolean personal,
        List<Label> labels,
        List<String> words,
        Outfit outfit,
        List<KindQuestion> questions,
        List<Signal> signals,
        List<Opening> openings,
        Optional<ResetRule> reset,
        int nightlyMinutes,
        boolean wireless,
        Map<String, Integer> minutes,
        Map<String, Integer> megabytes,
        ForClient client) {

    /** Name of the further menu that is the partner's own set-up. */
    public static final String PARTNER = "partner";

    /** Names of the further menus that are not on the device itself: its partner's, and a service's. */
    private static final Set<String> ELSEWHERE = Set.of(PARTNER, "service");

    public Kind {
        KindCheck.needed(
                "id",
                id,
                "name",
                name,
                "noun",
                noun,
                "shortName",
                shortName,
                "codeLetter",
                codeLetter,
                "fixedBecause",
                fixedBecause,
                "labelPlace",
                labelPlace,
                "menuPath",
                menuPath,
                "menu",
                menu,
                "service",
                service,
                "steps",
                steps);
        if (version < 1) throw new IllegalArgumentException("version is counted from 1, was " + version);
        series = KindCheck.orEmpty(series);
        serialPattern = KindCheck.orEmpty(serialPattern);
        menuCaution = KindCheck.orEmpty(menuCaution);
        menu = List.copyOf(menu);
        menus = KindCheck.orEmpty(menus);
        steps = List.copyOf(steps);
        talks = KindCheck.orEmpty(talks);
        labels = KindCheck.orEmpty(labels);
        words = KindCheck.orEmpty(words);
        outfit = outfit == null ? Outfit.NONE : outfit;
        questions = KindCheck.orEmpty(questions);
        signals = KindCheck.orEmpty(signals);
        openings = KindCheck.orEmpty(openings);
        reset = KindCheck.orEmpty(reset);
        minutes = KindCheck.orEmpty(minutes);
        megabytes = KindCheck.orEmpty(megabytes);
        client = client == null ? ForClient.NOTHING : client;
        if (nightlyMinutes < 0 || nightlyMinutes > 240)
            throw new IllegalArgumentException("nightlyMinutes must be 0..240, was " + nightlyMinutes);
        if (!shortName.matches("[a-z]{2,5}"))
            throw new IllegalArgumentException("shortName must be two to five small letters, was " + shortName);
        if (!id.matches("[a-z][a-z0-9-]{1,39}"))
            throw new IllegalArgumentException("id must be small letters, digits and hyphens, was " + id);
        if (!codeLetter.matches("[A-Z]"))
            throw new IllegalArgumentException("codeLetter must be one capital letter, was " + codeLetter);
        KindCheck.refuse(steps, labels, questions, signals, openings, reset, serialPattern, menu, menus);
        KindCheck.amounts("minutes", minutes, 1, 240, steps);
        KindCheck.amounts("megabytes", megabytes, 1, 100_000, steps);
        steps = List.copyOf(StepOrder.of(steps));
    }

    /** Whether it reaches something on the internet by itself. */
    public boolean callsOut() {
        return talks.stream().anyMatch(t -> t.to() == Talk.To.INTERNET);
    }

    /** Returns the kind with other steps and another menu, as they apply to one endpoint. */
    public Kind with(List<Step> applying, List<MenuField> fields) {
        return new Kind(
                id,
                version,
                name,
                noun,
                shortName,
                codeLetter,
                series,
                fixedBecause,
                reached,
                talks,
                serialPattern,
                labelPlace,
                menuPath,
                menuCaution,
                fields,
                KindCheck.only(menus, fields.stream().map(MenuField::part).toList()),
                service,
                applying,
                personal,
                List.of(),
                words,
                outfit,
                questions,
                signals,
                openings,
                reset.map(r -> r.only(applying)),
                nightlyMinutes,
                wireless,
                KindCheck.only(minutes, applying.stream().map(Step::key).toList()),
                KindCheck.only(megabytes, applying.stream().map(Step::key).toList()),
                client);
    }

    /** Returns the usual minutes that somebody stands beside it at one of its steps, waits left out. */
    public int minutes(Step step) {
        return minutes.getOrDefault(step.key(), step.gate().type().minutes());
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
                .orElseThrow(() -> new ReadingException(name + " has no step “" + key + "”"));
    }

    /**
     * A field of the device's own menu.
     *
     * @param label what the device calls it
     * @param text what to set when the value does not come from the plan, or what it is when left alone
     * @param leaveAlone whether it keeps its factory value
     * @param when answers that it is there for, see {@link Step#when()}
     * @param part which of the further menus it stands in, or empty for the network menu
     */
    public record MenuField(
            Field field, String label, String text, boolean leaveAlone, Map<String, List<String>> when, String part) {
        public MenuField {
            KindCheck.needed("field", field, "label", label);
            text = KindCheck.orEmpty(text);
            when = KindCheck.orEmpty(when);
            part = KindCheck.orEmpty(part);
        }

        /** Whether it is entered at its partner or at a service, and not on the device. */
        public boolean elsewhere() {
            return ELSEWHERE.contains(part);
        }

        /** Returns the same, left as it is. */
        public MenuField alone() {
            return new MenuField(field, label, text, true, when, part);
        }
    }

    /**
     * Traffic that the device begins.
     *
     * @param port TCP or UDP port, 1..65535
     */
    public record Talk(To to, Transport protocol, int port, String why) {
        /** Whom it calls. */
        public enum To {
            INTERNET,
            PARTNER
        }

        public Talk {
            if (port < 1 || port > 65_535) throw new IllegalArgumentException("a port must be 1..65535, was " + port);
            KindCheck.needed("to", to, "protocol", protocol);
            if (protocol == Transport.ANY)
                throw new IllegalArgumentException("what it calls has the protocol TCP or UDP");
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
            hiddenAfter = KindCheck.orEmpty(hiddenAfter);
        }
    }

    /**
     * What a menu field holds; OTHER takes its text from the kind, NUMBER is the endpoint's own in its series, NAME its
     * host name, ZONE the site's time zone and RESTART_AT its hour of the nightly restart; MAC, SERIAL and MODEL are its
     * own, to be made known to a partner or a service.
     */
    public enum Field {
        ADDRESS,
        MASK,
        GATEWAY,
        RESOLVER_1,
        RESOLVER_2,
        NUMBER,
        NAME,
        SERVICE_PORT,
        PARTNER_ADDRESS,
        PARTNER_PORT,
        ZONE,
        RESTART_AT,
        MAC,
        SERIAL,
        MODEL,
        OTHER;

        /** Whether one figure in it decides, so that it must be read back. */
        public boolean decides() {
            return switch (this) {
                case NUMBER, SERVICE_PORT, PARTNER_PORT, MAC, SERIAL -> true;
                default -> figures();
            };
        }

        /** Whether it comes from the plan and is no address, so that it is dictated sign by sign. */
        public boolean spelled() {
            return switch (this) {
                case NUMBER, NAME, SERVICE_PORT, PARTNER_PORT, MAC, SERIAL, MODEL -> true;
                default -> false;
            };
        }

        /** Whether it holds an address or a mask, which is typed and read in groups. */
        public boolean figures() {
            return switch (this) {
                case ADDRESS, MASK, GATEWAY, RESOLVER_1, RESOLVER_2, PARTNER_ADDRESS -> true;
                default -> false;
            };
        }
    }

    /**
     * A handshake of one line each way on the endpoint's service port.
     *
     * @param defaultPort port when the series gives none
     * @param ask line that is sent
     * @param answer what comes back, with {@code {serial}} where the device puts its serial
     * @param protocol how it is spoken with; a line when nothing is said
     * @param refuses what it must refuse, such as a finger that is not registered, or empty
     * @param proves what a right answer proves, in plain words
     * @param job the real job to be done once, as a request; what an answer proves when nothing is said
     * @param seenBy who must see the real job done, such as the till's user, or empty for whoever sets it up
     * @param partnerAsk line sent to the partner's test port, or empty when only a person can test from there
     */
    public record Service(
            int defaultPort,
            Protocol protocol,
            String ask,
            String answer,
            String proves,
            String partnerAsk,
            String refuses,
            String job,
            String seenBy) {
        public Service {
            KindCheck.needed("proves", proves);
            protocol = protocol == null ? Protocol.LINE : protocol;
            ask = KindCheck.orEmpty(ask);
            answer = KindCheck.orEmpty(answer);
            partnerAsk = KindCheck.orEmpty(partnerAsk);
            refuses = KindCheck.orEmpty(refuses);
            job = KindCheck.orEmpty(job);
            if (job.isEmpty()) job = proves;
            seenBy = KindCheck.orEmpty(seenBy);
            if (defaultPort < 1 || defaultPort > 65_535)
                throw new IllegalArgumentException("a port must be 1..65535, was " + defaultPort);
            boolean page = protocol == Protocol.HTTP || protocol == Protocol.HTTPS;
            // Two slashes would lead to another host.
            if (page && !ask.isEmpty() && !ask.matches("/([A-Za-z0-9._~?=&%-][A-Za-z0-9._~/?=&%-]*)?"))
                throw new IllegalArgumentException(
                        "a page is asked for by its path, such as /status; was “" + ask + "”");
            if (protocol == Protocol.LINE && !ask.isEmpty() && !answer.contains("{serial}"))
                throw new IllegalArgumentException("an answer must tell its {serial}, was “" + answer + "”");
        }

        /** Whether its answer tells which unit it is. */
        public boolean tellsSerial() {
            return answer.contains("{serial}");
        }
    }

    /**
     * One step of the runbook.
     *
     * @param hint what to do, one line each
     * @param caution shown where the hands are, or empty
     * @param after keys of steps that must come before, each with what breaks when it comes later
     * @param waiting how long it takes, or empty when it is attended
     * @param when questions and the answers for which the step applies; all must fit. Besides the kind's own there are
     *     {@code method} (FIXED, RESERVED, LEARNED, AUTOMATIC), {@code partner} (yes, no) and {@code port} (usual, own: the
     *     plan gives it another one than the kind's)
     * @param otherwise why it is left out when it does not apply
     * @param needs who must do it by law or trade, such as a qualified electrician, or empty
     * @param recovery what to do when the moment for it has passed, or empty
     * @param waysOut what to try when the gate has failed again and again
     */
    public record Step(
            String key,
            String title,
            List<String> hint,
            String caution,
            Map<String, String> after,
            @JsonProperty("wait") Optional<Wait> waiting,
            Gate gate,
            Map<String, List<String>> when,
            String otherwise,
            String needs,
            String recovery,
            List<String> waysOut) {
        public Step {
            KindCheck.needed("key", key, "title", title, "gate", gate);
            hint = KindCheck.orEmpty(hint);
            caution = KindCheck.orEmpty(caution);
            after = KindCheck.orEmpty(after);
            waiting = KindCheck.orEmpty(waiting);
            when = KindCheck.orEmpty(when);
            otherwise = KindCheck.orEmpty(otherwise);
            needs = KindCheck.orEmpty(needs);
            recovery = KindCheck.orEmpty(recovery);
            waysOut = KindCheck.orEmpty(waysOut);
        }

        /** A step without conditions. */
        public Step(
                String key,
                String title,
                List<String> hint,
                String caution,
                Map<String, String> after,
                Optional<Wait> waiting,
                Gate gate) {
            this(key, title, hint, caution, after, waiting, gate, Map.of(), "", "", "", List.of());
        }

        /** Returns the step as it applies to one endpoint: with its hints, what must come before, and its gate. */
        public Step with(List<String> hints, String warning, Map<String, String> before, Gate fitted) {
            return new Step(
                    key, title, hints, warning, before, waiting, fitted, Map.of(), "", needs, recovery, waysOut);
        }
    }

    /**
     * Minutes that a wait lasts: before the shortest it is too early to judge, after the longest it has failed.
     *
     * @param restarts fewest and most restarts that it makes by itself meanwhile, or empty when they tell nothing
     */
    public record Wait(int shortest, int usual, int longest, String lookFor, List<Integer> restarts) {
        public Wait {
            restarts = KindCheck.orEmpty(restarts);
            if (!restarts.isEmpty()
                    && (restarts.size() != 2 || restarts.get(0) < 0 || restarts.get(0) > restarts.get(1)))
                throw new IllegalArgumentException("restarts must be [fewest, most], was " + restarts);
            if (shortest < 0 || shortest > usual || usual > longest)
                throw new IllegalArgumentException(
                        "a wait needs shortest <= usual <= longest, was " + shortest + ", " + usual + ", " + longest);
        }
    }

    /**
     * What must be seen before a step may be completed.
     *
     * @param part which light or icon of the table of signals a SIGNAL is about, or which of the further menus a
     *     TYPE_SHEET or READ_BACK
     * @param least least number that a COUNT takes
     * @param compare labels of the two things that SAME compares
     * @param sheet key of the worksheet that a WORKSHEET is about
     * @param figures what this kind keys in on that worksheet, by field, such as what it draws
     * @param counted fields of that worksheet that come from the number counted at another step, by its key
     */
    public record Gate(
            GateType type,
            String ask,
            List<Option> options,
            String part,
            int least,
            List<String> compare,
            String sheet,
            Map<String, String> figures,
            Map<String, String> counted) {
        public Gate {
            KindCheck.needed("type", type);
            ask = KindCheck.orEmpty(ask);
            options = KindCheck.orEmpty(options);
            part = KindCheck.orEmpty(part);
            compare = KindCheck.orEmpty(compare);
            sheet = KindCheck.orEmpty(sheet);
            figures = KindCheck.orEmpty(figures);
            counted = KindCheck.orEmpty(counted);
            if (type == GateType.CHOICE && options.stream().noneMatch(Option::holds))
                throw new IllegalArgumentException("a choice needs an option that holds: " + ask);
            if (type == GateType.SAME && compare.size() != 2)
                throw new IllegalArgumentException("SAME compares two things: name them in compare");
        }

        /** Returns the same where these steps are left out, so that nothing is counted there. */
        public Gate without(Set<String> steps) {
            var left = new LinkedHashMap<>(counted);
            left.values().removeAll(steps);
            return new Gate(type, ask, options, part, least, compare, sheet, figures, left);
        }

        /** A gate that needs no more than its question. */
        public Gate(GateType type, String ask, List<Option> options) {
            this(type, ask, options, "", 0, List.of(), "", Map.of(), Map.of());
        }
    }

    /** Something that may be seen, and what to do when it is not what was hoped for. */
    public record Option(String value, String label, boolean holds, String remedy) {
        public Option {
            remedy = KindCheck.orEmpty(remedy);
        }
    }
}
