package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.reach.Diagnosis.Made;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What somebody pastes in from another tool or from the device: an echo, a neighbour table, a lease list, the MAC table of a
 * switch, the refusal of a mail server. The form is recognised, and what concerns this endpoint is compared with the record.
 */
public final class Pasted {

    /** More than this is not read. */
    public static final int LONGEST = 100_000;

    private static final Pattern ADDRESS = Pattern.compile("(?<![0-9.])(?:[0-9]{1,3}\\.){3}[0-9]{1,3}(?![0-9.]*[0-9])");
    private static final Pattern MAC = Pattern.compile(
            "(?i)(?<![0-9a-f:.-])(?:[0-9a-f]{2}[:-]){5}[0-9a-f]{2}(?![0-9a-f:-])|(?<![0-9a-f.])(?:[0-9a-f]{4}\\.){2}[0-9a-f]{4}(?![0-9a-f.])");
    private static final Pattern ANSWER = Pattern.compile("(?i)bytes from|reply from [0-9.]+: bytes");
    private static final Pattern NO_ANSWER = Pattern.compile(
            "(?i)request timed? ?out|unreachable|\\b0 (?:packets )?received|100(?:\\.0)?% (?:packet )?loss");
    private static final Pattern PING =
            Pattern.compile("(?i)^\\s*ping|icmp_seq|packets transmitted|reply from|bytes from");
    private static final Pattern REFUSAL = Pattern.compile(
            "(?i)(?:^|smtp[;:]?|said:|error:?|code:?)\\s*\\b([45][0-9]{2})\\b[ -]?(?:([45]\\.[0-9]{1,3}\\.[0-9]{1,3}))?");
    private static final Pattern LEASE =
            Pattern.compile("(?is)lease\\s+([0-9.]+)\\s*\\{.*?hardware ethernet\\s+([0-9a-f:]+)");
    private static final Pattern PORT =
            Pattern.compile("(?i)\\b((?:gi|fa|te|eth|ge|port|lan|swp)[a-z]*[ -]?[0-9/.:-]*[0-9]|[0-9]{1,2})\\b");

    private Pasted() {}

    /** What was recognised. */
    public enum Form {
        PING("an echo"),
        TABLE("a neighbour table"),
        LEASES("a lease list"),
        SWITCH("the MAC table of a switch"),
        MAIL("the word of a mail server"),
        UNKNOWN("nothing that is known here");

        private final String words;

        Form(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * One thing that the text says of the endpoint.
     *
     * @param fits whether it is as it should be
     */
    public record Finding(String words, boolean fits) {}

    /**
     * What the text says.
     *
     * @param looks what it adds to the search for the cause
     */
    public record Reading(Form form, List<Finding> findings, List<Made> looks) {}

    /**
     * Reads a text for one endpoint.
     *
     * @param port the port of gear that is on record, or empty
     */
    public static Reading read(String text, Target target, String port) {
        String t = text.length() > LONGEST ? text.substring(0, LONGEST) : text;
        var findings = new ArrayList<Finding>();
        var looks = new ArrayList<Made>();
        var form = form(t);
        switch (form) {
            case PING -> ping(t, target, findings, looks);
            case TABLE -> table(pairs(t), target, findings, looks);
            case LEASES -> table(leases(t), target, findings, looks);
            case SWITCH -> switchTable(t, target, port, findings);
            case MAIL -> mail(t, findings, looks);
            case UNKNOWN ->
                findings.add(new Finding(
                        "This is nothing that is known here. Paste an echo, a neighbour table, a lease list, the MAC table of a switch, or what the mail server answers.",
                        false));
        }
        return new Reading(form, List.copyOf(findings), List.copyOf(looks));
    }

    private static Form form(String text) {
        if (LEASE.matcher(text).find()) return Form.LEASES;
        if (text.lines().anyMatch(l -> PING.matcher(l).find())) return Form.PING;
        if (!pairs(text).isEmpty()) return Form.TABLE;
        if (MAC.matcher(text).find()) return Form.SWITCH;
        return text.lines().anyMatch(l -> REFUSAL.matcher(l.strip()).find()) ? Form.MAIL : Form.UNKNOWN;
    }

    private static Optional<Ipv4Address> address(String text) {
        try {
            return Optional.of(Ipv4Address.parse(text));
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    private static Mac mac(String text) {
        return Mac.parse(
                text.replaceAll("[:.-]", "").replaceAll("(..)(?!$)", "$1:").toUpperCase(Locale.ROOT));
    }

    private static Map<Ipv4Address, Mac> pairs(String text) {
        var pairs = new LinkedHashMap<Ipv4Address, Mac>();
        text.lines().forEach(line -> {
            var a = ADDRESS.matcher(line);
            var m = MAC.matcher(line);
            if (a.find() && m.find()) address(a.group()).ifPresent(found -> pairs.put(found, mac(m.group())));
        });
        return pairs;
    }

    private static Map<Ipv4Address, Mac> leases(String text) {
        var pairs = new LinkedHashMap<Ipv4Address, Mac>();
        Matcher m = LEASE.matcher(text);
        while (m.find()) {
            String hardware = m.group(2);
            if (MAC.matcher(hardware).matches()) address(m.group(1)).ifPresent(a -> pairs.put(a, mac(hardware)));
        }
        return pairs;
    }

    private static void ping(String text, Target target, List<Finding> findings, List<Made> looks) {
        var asked = ADDRESS.matcher(text);
        var first = asked.find() ? address(asked.group()) : Optional.<Ipv4Address>empty();
        if (first.isPresent() && !first.get().equals(target.address())) {
            findings.add(new Finding(
                    "That was an echo of " + first.get() + "; this one is " + target.address() + ".", false));
            return;
        }
        boolean answers = text.lines()
                .anyMatch(l -> ANSWER.matcher(l).find() && !NO_ANSWER.matcher(l).find());
        if (!answers && !NO_ANSWER.matcher(text).find()) {
            findings.add(new Finding("The echo is cut off: paste it to its last line.", false));
            return;
        }
        findings.add(new Finding(
                answers
                        ? target.address() + " answered there. Who answered is not said: a ping is no proof by itself."
                        : target.address() + " did not answer there.",
                answers));
        looks.add(new Made(Look.PING, answers ? "answers" : "silent"));
    }

    private static void table(Map<Ipv4Address, Mac> pairs, Target target, List<Finding> findings, List<Made> looks) {
        var at = Optional.ofNullable(pairs.get(target.address()));
        if (at.isPresent()) {
            boolean right = at.get().equals(target.mac());
            boolean sibling = target.sibling(at.get());
            String known = target.knownMacs().getOrDefault(at.get(), "");
            findings.add(new Finding(
                    target.address() + " is " + at.get()
                            + (right
                                    ? ", as on the tag."
                                    : sibling
                                            ? ", most likely its other interface; on the tag is " + target.mac() + "."
                                            : (known.isEmpty() ? "" : " (" + known + ")") + ", not " + target.mac()
                                                    + "."),
                    right));
            looks.add(new Made(Look.NEIGHBOUR, right ? "right" : sibling ? "sibling" : "other"));
        }
        Segment segment = target.segment();
        pairs.forEach((address, mac) -> {
            if (!mac.equals(target.mac()) || address.equals(target.address())) return;
            boolean pooled = segment.poolOf(address).isPresent();
            findings.add(new Finding(
                    "Its MAC is at " + address + (pooled ? ", in the pool: it is on automatic." : "."), false));
            if (pooled) looks.add(new Made(Look.LEASES, "leased"));
        });
        if (findings.isEmpty())
            findings.add(new Finding(
                    "Neither " + target.address() + " nor " + target.mac() + " is in it, of " + pairs.size()
                            + " lines.",
                    false));
    }

    private static void switchTable(String text, Target target, String port, List<Finding> findings) {
        for (String line : text.lines().toList()) {
            var m = MAC.matcher(line);
            if (!m.find() || !mac(m.group()).equals(target.mac())) continue;
            String rest = (line.substring(0, m.start()) + " " + line.substring(m.end())).strip();
            String last = "";
            var p = PORT.matcher(rest);
            while (p.find()) last = p.group(1);
            boolean same = port.isEmpty() || number(last).equals(number(port));
            findings.add(new Finding(
                    "The switch has its MAC at “" + Said.shown(last) + "”"
                            + (port.isEmpty()
                                    ? "; no port is on record."
                                    : same ? ", as on record (" + port + ")." : "; on record is " + port + "."),
                    same));
        }
        if (findings.isEmpty())
            findings.add(new Finding(
                    "Its MAC " + target.mac() + " is not in that table: no link, or another switch.", false));
    }

    /** The last figure of a port's name. */
    private static String number(String port) {
        return port.replaceAll(".*?([0-9]+)$", "$1");
    }

    private static void mail(String text, List<Finding> findings, List<Made> looks) {
        for (String line : text.lines().toList()) {
            var m = REFUSAL.matcher(line.strip());
            if (!m.find()) continue;
            int code = Integer.parseInt(m.group(1));
            boolean later = code < 500;
            findings.add(new Finding(
                    later
                            ? code + " puts it off. Nothing to change: it is tried again after 5, 15 and 45 minutes."
                            : code + " refuses for good. "
                                    + ServiceJudge.field(code, Heard.ended(Heard.Ending.ANSWERED, "its answer", line)),
                    false));
            if (!later) looks.add(new Made(Look.REAL_JOB, code == 534 || code == 535 ? "sign-in" : "fails"));
            return;
        }
    }
}
