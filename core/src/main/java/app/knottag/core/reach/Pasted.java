package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Form;
import app.knottag.core.intake.MailReply;
import app.knottag.core.intake.Recognised;
import app.knottag.core.intake.Row;
import app.knottag.core.intake.Row.State;
import app.knottag.core.intake.TextReader;
import app.knottag.core.reach.Diagnosis.Made;
import app.knottag.core.reading.Printable;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * What somebody pastes in from another tool or from the device, as {@link TextReader} recognises it, compared with the record
 * of one endpoint. Only what was read for certain, and says something about this endpoint, is weighed.
 */
public final class Pasted {

    /** More than this is not read. */
    public static final int LONGEST = 100_000;

    private static final Pattern AGGREGATE = Pattern.compile(
            "(?i)(?:po|port-channel|trk|lag|ae|bond|team|bridge-aggregation|eth-trunk|lacp)[ -]?[0-9]+");
    private static final Pattern OF_A_STACK = Pattern.compile("(?i)[a-z-]*([0-9]+)/(?:[0-9]+/)?([0-9]+)(?:\\.[0-9]+)?");

    private final Target target;
    private final List<Finding> findings = new ArrayList<>();
    private final List<Made> questions = new ArrayList<>();

    private Pasted(Target target) {
        this.target = target;
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
     * @param sure whether the whole form is known; what is not sure is shown and not weighed
     * @param questions what it adds to the search for the cause
     */
    public record Reading(Form form, boolean sure, List<Finding> findings, List<Made> questions) {}

    /**
     * Reads a text for one endpoint.
     *
     * @param port the port of gear that is on record, or empty
     * @param now by which a lease has ended or not
     */
    public static Reading read(String text, Target target, String port, Instant now) {
        var read = TextReader.read(text.length() > LONGEST ? text.substring(0, LONGEST) : text, now);
        var pasted = new Pasted(target);
        boolean sure = true;
        if (read instanceof Recognised.Echo echo) pasted.echo(echo);
        else if (read instanceof Recognised.PortTest test) pasted.port(test);
        else if (read instanceof Recognised.Scan scan) pasted.scan(scan);
        else if (read instanceof Recognised.Mail mail) pasted.mail(mail.reply());
        else if (read instanceof Recognised.Table table) {
            sure = table.sure();
            pasted.table(table, port);
        } else
            pasted.say(
                    false,
                    "This is nothing that is known here. Paste an echo, a neighbour table, a lease list, the MAC table "
                            + "of a switch, a scan, a test of a port, or what the mail server answers.");
        return new Reading(
                read.form(), sure, List.copyOf(pasted.findings), sure ? List.copyOf(pasted.questions) : List.of());
    }

    private void say(boolean fits, String words) {
        findings.add(new Finding(words, fits));
    }

    private boolean another(Optional<Ipv4Address> asked, String what) {
        if (asked.isEmpty() || asked.get().equals(target.address())) return false;
        say(false, "That was " + what + " of " + asked.get() + "; this one is " + target.address() + ".");
        return true;
    }

    private void echo(Recognised.Echo echo) {
        if (another(echo.asked(), "an echo")) return;
        var a = target.address();
        boolean known = echo.asked().isPresent();
        String teller = echo.toldBy().map(t -> t + " says that ").orElse("The machine that asked says that ");
        switch (echo.answer()) {
            case ANSWERED -> {
                if (echo.form() == Form.ARP_ECHO) held(echo.macs().iterator().next(), true, known);
                else {
                    say(true, a + " answered there. Who answered is not said: a ping is no proof by itself.");
                    question(known, Question.PING, Outcome.ANSWERS);
                }
            }
            case LOSS -> {
                say(
                        false,
                        a + " answered there, but "
                                + (echo.lossPercent() > 0 ? echo.lossPercent() + " of 100 were lost" : "not every time")
                                + ": a bad lead, a full line, or two devices at one address.");
                question(known, Question.PING, Outcome.ANSWERS);
            }
            case TWICE -> {
                String who = echo.macs().stream().sorted().map(this::named).collect(Collectors.joining(" and "));
                say(
                        false,
                        "One question had two answers" + (who.isEmpty() ? "" : ": " + who) + ". Two devices have " + a
                                + ", or the network has a loop.");
            }
            case SILENT -> {
                say(false, a + " did not answer there.");
                question(known, Question.PING, Outcome.SILENT);
            }
            case UNREACHABLE ->
                say(
                        false,
                        teller + a
                                + " cannot be reached. That says something about the way from there, and not yet about the device.");
            case OWN_NETWORK ->
                say(
                        false,
                        "The machine that asked has no network or no way there itself: this says nothing about " + a
                                + ". Plug it in, and ask again.");
            case NOT_ALLOWED ->
                say(
                        false,
                        "The machine that asked may send no echo, so nothing was asked. Ask as its administrator, or from another one.");
            case NO_SUCH_NAME -> say(false, "The name was not found, so nothing was asked. Ask for " + a + " itself.");
            case IN_A_RING ->
                say(false, "The echo ran in a ring between routers and never came to " + a + ": a route is wrong.");
            case CUT_OFF -> say(false, "The echo is cut off: paste it to its last line.");
        }
    }

    private void question(boolean weigh, Question question, Outcome outcome) {
        if (weigh) questions.add(new Made(question, outcome));
    }

    private String named(Mac mac) {
        if (mac.equals(target.mac())) return mac + " (on the tag)";
        String known = target.knownMacs().getOrDefault(mac, "");
        return mac + (known.isEmpty() ? "" : " (" + known + ")");
    }

    /** Whose MAC holds the planned address; only what was seen lately is weighed. */
    private void held(Mac mac, boolean lately, boolean weigh) {
        boolean right = mac.equals(target.mac()), sibling = target.sibling(mac);
        String known = target.knownMacs().getOrDefault(mac, "");
        String rest = right
                ? ", as on the tag"
                : sibling
                        ? ", most likely its other interface; on the tag is " + target.mac()
                        : (known.isEmpty() ? "" : " (" + known + ")") + ", not " + target.mac();
        say(
                right,
                target.address() + " is " + mac + rest + (lately ? "." : ". The line is old: it may have gone since."));
        question(
                weigh && lately, Question.NEIGHBOUR, right ? Outcome.RIGHT : sibling ? Outcome.SIBLING : Outcome.OTHER);
    }

    private void table(Recognised.Table table, String port) {
        if (table.form() == Form.SWITCH) switchTable(table, port);
        else {
            rows(table.rows(), table.form());
            if (findings.isEmpty())
                say(
                        false,
                        "Neither " + target.address() + " nor " + target.mac() + " is in it, of "
                                + table.rows().size() + (table.rows().size() == 1 ? " line." : " lines."));
        }
        if (!table.sure()) say(false, "The form of this list is not known, so it is shown and does not count.");
    }

    private void rows(List<Row> rows, Form form) {
        var macs = new LinkedHashSet<Mac>();
        boolean old = true;
        for (var row : rows) {
            if (row.address().filter(target.address()::equals).isEmpty()) continue;
            if (row.state() == State.SILENT) say(false, target.address() + " did not answer when the list was made.");
            else if (row.state() == State.ENDED)
                say(
                        false,
                        "A lease for " + target.address() + " is over"
                                + row.mac()
                                        .map(m -> "; it was held by " + named(m))
                                        .orElse("") + ".");
            else if (row.state() == State.WRITTEN)
                say(
                        row.mac().filter(target.mac()::equals).isPresent(),
                        target.address() + " is written down there for "
                                + row.mac().map(this::named).orElse("nobody") + "; nobody was seen.");
            else if (row.mac().isPresent()) {
                macs.add(row.mac().get());
                old &= row.state() == State.OLD;
            } else say(true, target.address() + " was seen there, without a MAC.");
        }
        if (macs.size() > 1)
            say(
                    false,
                    target.address() + " is held by two: "
                            + macs.stream().map(this::named).collect(Collectors.joining(" and "))
                            + ". Pull the plug of one and look again.");
        else if (macs.size() == 1) held(macs.iterator().next(), !old, form != Form.HOSTS && form != Form.ETHERS);
        for (var row : rows) elsewhere(row, form);
    }

    private void elsewhere(Row row, Form form) {
        boolean own = row.mac().filter(target.mac()::equals).isPresent();
        if (!own || row.address().isEmpty() || row.address().get().equals(target.address())) return;
        var at = row.address().get();
        if (row.state() == State.ENDED) say(true, "Its MAC had a lease at " + at + ", which is over.");
        else if (row.state() == State.WRITTEN) say(false, "Its MAC is written down there for " + at + ".");
        else if (row.state() != State.SILENT) {
            boolean pooled = target.segment().poolOf(at).isPresent();
            say(false, "Its MAC is at " + at + (pooled ? ", in the pool: it is on automatic." : "."));
            question(pooled && (form == Form.LEASES || row.state() == State.SEEN), Question.LEASES, Outcome.LEASED);
        }
    }

    private void switchTable(Recognised.Table table, String record) {
        for (var row : table.rows()) {
            if (row.mac().filter(target.mac()::equals).isEmpty()) continue;
            String vlan = row.vlan().map(v -> " in VLAN " + v).orElse("");
            if (row.port().isEmpty() || !row.sure()) say(false, "Its MAC is in that table; which port is not certain.");
            else if (AGGREGATE.matcher(row.port()).matches())
                say(
                        false,
                        "The switch has its MAC behind “" + Printable.shown(row.port()) + "”" + vlan
                                + ", several cables as one: it sits on another switch. Read that one's table.");
            else port(row.port(), vlan, record);
        }
        if (findings.isEmpty())
            say(false, "Its MAC " + target.mac() + " is not in that table: no link, or another switch.");
    }

    private void port(String port, String vlan, String record) {
        String has = "The switch has its MAC at “" + Printable.shown(port) + "”" + vlan;
        if (record.isEmpty()) {
            say(true, has + "; no port is on record.");
            return;
        }
        var unit = OF_A_STACK.matcher(port);
        boolean second = unit.matches() && Integer.parseInt(cut(unit.group(1))) > 1;
        boolean same = number(port).equals(number(record));
        if (same && second)
            say(
                    false,
                    has + ", that is on unit " + unit.group(1) + "; on record is " + record
                            + ". Look whether that is the same unit.");
        else say(same, has + (same ? ", as on record (" + record + ")." : "; on record is " + record + "."));
    }

    private static String cut(String digits) {
        return digits.length() > 6 ? digits.substring(0, 6) : digits;
    }

    /** The last figure of a port's name, without a unit of software behind it. */
    private static String number(String port) {
        return port.replaceFirst("\\.0$", "").replaceAll("^.*?([0-9]+)$", "$1");
    }

    private void port(Recognised.PortTest test) {
        if (another(test.asked(), "a test")) return;
        int own = target.port();
        boolean known =
                test.asked().isPresent() && test.port().filter(p -> p == own).isPresent();
        String who = target.address() + test.port().map(p -> " port " + p).orElse("");
        if (test.port().filter(p -> p != own).isPresent())
            say(false, "That was port " + test.port().get() + "; its service is at " + own + ".");
        switch (test.state()) {
            case OPEN -> {
                say(true, who + " takes connections. Who answered is not said.");
                question(known, Question.PORT, Outcome.OPEN);
            }
            case REFUSED -> {
                say(false, who + " refuses: somebody is there, and nothing listens at that port.");
                question(known, Question.PORT, Outcome.REFUSED);
            }
            case SILENT -> {
                say(false, who + " stayed silent.");
                question(known, Question.PORT, Outcome.SILENT);
            }
            case UNREACHABLE ->
                say(false, "There is no way from there to " + who + ". That says nothing about the device yet.");
            case NO_SUCH_NAME -> say(false, "The name was not found, so nothing was tried.");
            case CUT_OFF -> say(false, "The test does not say how it ended: paste it to its last line.");
        }
    }

    private void scan(Recognised.Scan scan) {
        rows(scan.hosts(), Form.SCAN);
        for (var test : scan.ports())
            if (test.asked().filter(target.address()::equals).isPresent()
                    && test.port().filter(p -> p == target.port()).isPresent()) port(test);
        if (findings.isEmpty())
            say(
                    false,
                    "Neither " + target.address() + " nor " + target.mac() + " is in it, of "
                            + scan.hosts().size() + " hosts.");
    }

    private void mail(MailReply reply) {
        if (reply.temporary()) {
            boolean owned = reply.field() != MailReply.Field.THEIRS && reply.field() != MailReply.Field.RECIPIENT_FULL;
            say(
                    false,
                    reply.said() + " puts it off. Nothing to change yet: it is tried again after 5, 15 and 45 minutes."
                            + (owned ? " If it stays so: " + reply.field().words() : ""));
            return;
        }
        say(false, reply.said() + " refuses for good. " + reply.field().words());
        boolean signIn = reply.field() == MailReply.Field.SIGN_IN || reply.field() == MailReply.Field.METHOD;
        questions.add(new Made(Question.REAL_JOB, signIn ? Outcome.SIGN_IN : Outcome.FAILS));
    }
}
