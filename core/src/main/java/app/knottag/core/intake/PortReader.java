package app.knottag.core.intake;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.intake.Recognised.PortState;
import app.knottag.core.intake.Recognised.PortTest;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;

/** Reads what the usual programs print that try to connect to a port. */
final class PortReader {

    private static final String A = Machine.A;
    private static final Pattern ENTRY = Pattern.compile("(?i)connect(?:ion|ed)?\\s+(?:to|with)\\s|^trying\\s+" + A
            + "|^\\(unknown\\)\\s*\\[|\\]\\s+[0-9]+\\s+\\([^)]*\\)\\s*:?\\s*(?:open|connection|no "
            + "route)|tcptestsucceeded|remoteport|^ncat:|^nc:|^telnet:|^curl:|^\\*\\s+(?:trying|connect)");
    private static final Pattern TARGET = Pattern.compile(
            "(?i)(" + A + ")\\)?[,:]?(?:\\s+\\(?(?:port\\s+)?|:)([0-9]{1,5})\\b|\\[(" + A + ")\\]\\s+([0-9]{1,5})\\b");
    private static final Pattern LONE =
            Pattern.compile("(?i)(?:to|trying|from|computername\\s*:|remoteaddress\\s*:)\\s*\\(?(" + A + ")");
    private static final Pattern PORT =
            Pattern.compile("(?i)\\bport[:\\s]+([0-9]{1,5})\\b|remoteport\\s*:\\s*([0-9]{1,5})|tcp port ([0-9]{1,5})");
    private static final Pattern OPEN = Pattern.compile(
            "(?i)succeeded!|\\bopen\\b|^(?:ncat: )?connected to|^\\*\\s+connected to|tcptestsucceeded\\s*:\\s*true|\\bestablished\\b");
    private static final Pattern REFUSED = Pattern.compile(
            "(?i)connection refused|actively refused|verbindung verweigert|verweigerte die verbindung|connexion "
                    + "refus|conexi\\S+n rechazada|connessione rifiutata");
    private static final Pattern SILENT = Pattern.compile(
            "(?i)timed? ?out|zeit\\S*berschreitung|d\\S+lai .*d\\S+pass|tiempo de espera|tempo scaduto");
    private static final Pattern UNREACHABLE = Pattern.compile(
            "(?i)no route to host|network is unreachable|host is unreachable|host is down|keine route|aucune route|no "
                    + "hay ruta|nessuna (?:route|rotta|instradamento)");
    private static final Pattern NO_NAME = Pattern.compile(
            "(?i)name or service not known|could not resolve|unknown host|name resolution|nodename nor servname|could not be resolved");
    private static final Pattern FAILED =
            Pattern.compile("(?i)tcptestsucceeded\\s*:\\s*false|could not open connection");

    private PortReader() {}

    /** Returns what a connection's trial says, or empty when the text is none. */
    static Optional<Recognised> read(List<String> lines) {
        if (lines.stream().noneMatch(l -> ENTRY.matcher(l.strip()).find())) return Optional.empty();
        Optional<Ipv4Address> asked = Optional.empty();
        Optional<Integer> port = Optional.empty();
        PortState state = null;
        for (String whole : lines) {
            String line = whole.strip();
            var target = TARGET.matcher(line);
            if (target.find()) {
                boolean bracketed = target.group(1) == null;
                asked = asked.or(() -> Machine.address(target.group(bracketed ? 3 : 1)));
                int number = Integer.parseInt(target.group(bracketed ? 4 : 2));
                port = port.or(() -> Optional.of(number));
            }
            asked = asked.or(() -> EchoReader.first(LONE, line));
            var p = PORT.matcher(line);
            if (p.find()) {
                String digits = p.group(1) != null ? p.group(1) : p.group(2) != null ? p.group(2) : p.group(3);
                port = port.or(() -> Optional.of(Integer.parseInt(digits)));
            }
            // The last word rules: a program that tries several addresses tells each.
            if (REFUSED.matcher(line).find()) state = PortState.REFUSED;
            else if (UNREACHABLE.matcher(line).find()) state = PortState.UNREACHABLE;
            else if (NO_NAME.matcher(line).find()) state = PortState.NO_SUCH_NAME;
            else if (SILENT.matcher(line).find()) state = PortState.SILENT;
            else if (OPEN.matcher(line).find()) state = PortState.OPEN;
            else if (FAILED.matcher(line).find() && state == null) state = PortState.CUT_OFF;
        }
        return Optional.of(new PortTest(
                asked, port.filter(p -> p >= 1 && p <= 65_535), state == null ? PortState.CUT_OFF : state));
    }
}
