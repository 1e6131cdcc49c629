package app.knottag.core.intake;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Recognised.Answer;
import app.knottag.core.intake.Recognised.Echo;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Reads what the usual echo programs print, in English, German, French, Spanish and Italian, and echoes by MAC. An answer is
 * a line with bytes and a time to live; that somebody else says “unreachable” is no answer, though some programs count it
 * as one.
 */
final class EchoReader {

    private static final String A = Machine.A;

    /** An answer names its sender and its time to live. */
    private static final Pattern REPLY = Pattern.compile("(?i)(?:\\b(?:from|von|de|desde|da)\\s+)(?:\\S+\\s+\\()?(" + A
            + ")\\)?\\s*:\\s.*\\b(?:ttl|hlim)[=: ][0-9]|^[0-9]+ bytes from (" + A + ")\\b");

    private static final Pattern HEAD = Pattern.compile("(?i)^PING\\s+\\S+\\s+\\((" + A
            + ")\\)|^PING\\s+(" + A + ")|\\bping\\b.*\\[(" + A
            + ")\\]|^(?:Pinging|Ping wird ausgef\\S+ f\\S+|Envoi d.une requ\\S+ .?Ping.?\\s*|"
            + "Haciendo ping a|Esecuzione di Ping)\\s+(" + A + ")|ICMP Echos to (" + A + ")");
    private static final Pattern STATISTICS = Pattern.compile("(?i)---\\s+(" + A
            + ")\\s+ping stat|\\b(?:ping statistics for|ping-statistik f\\S+|statistiques ping pour|estad\\S+sticas de "
            + "ping para|statistiche ping per)\\s+("
            + A + ")");
    private static final Pattern TYPED =
            Pattern.compile("(?i)(?:[$#>%]|^)\\s*(?:sudo\\s+)?ping6?\\s(?:.*\\s)?(" + A + ")\\s*(?:-.*)?$");
    private static final Pattern UNIX_TOTALS = Pattern.compile(
            "(?i)\\b([0-9]+)\\s+(?:packets?|pakete|paquets?|paquetes|pacchetti)\\s+(?:transmitted|\\S*bertragen|"
                    + "transmis|transmitidos|trasmessi),\\s*([0-9]+)\\s*(?:packets?\\s+|pakete\\s+|paquets?\\s+|"
                    + "paquetes\\s+|pacchetti\\s+)?(?:received|empfangen|re\\S+us|recibidos|ricevuti)");
    private static final Pattern WINDOWED_TOTALS =
            Pattern.compile("=\\s*([0-9]+),[^=]*=\\s*([0-9]+),[^=]*=\\s*([0-9]+)\\s*\\(");
    private static final Pattern RATE = Pattern.compile("(?i)success rate is ([0-9]+) percent");
    private static final Pattern DUPLICATE = Pattern.compile("(?i)\\(DUP!\\)|\\+[1-9][0-9]* duplicates");
    private static final Pattern TIMEOUT = Pattern.compile(
            "(?i)request timed out|request timeout for|no answer yet for|zeit\\S*berschreitung der anforderung|d\\S+lai "
                    + "d.attente de la demande|tiempo de espera agotado|richiesta scaduta");
    private static final Pattern UNREACHABLE = Pattern.compile(
            "(?i)(?:destination )?(?:host|net|network|port|protocol) (?:is )?(?:unreachable|prohibited)|communication "
                    + "prohibited|packet filtered|ziel(?:host|netz) nicht erreichbar|impossible de joindre|(?:host|red) "
                    + "de destino inaccesible|(?:host|rete) di destinazione (?:non raggiungibile|irraggiungibile)|no "
                    + "route to host|host is down");
    private static final Pattern TELLER =
            Pattern.compile("(?i)\\b(?:from|von|de|desde|da)\\s+(?:\\S+\\s+\\()?(" + A + ")");
    private static final Pattern RING = Pattern.compile(
            "(?i)time to live exceeded|ttl expired|ttl expirado|ttl scaduto|dur\\S+e de vie ttl expir|g\\S+ltigkeitsdauer .*berschritten");
    private static final Pattern OWN = Pattern.compile(
            "(?i)^(?:ping6?:\\s*)?(?:connect|sendto|sendmsg|bind)?:?\\s*(?:network is (?:unreachable|down)|operation "
                    + "not permitted|can.t assign requested address)|general failure|transmit failed|allgemeiner "
                    + "fehler|d\\S+faillance g\\S+n\\S+rale|error general|errore generale|fehler bei der \\S+bertragung");
    private static final Pattern NOT_ALLOWED = Pattern.compile(
            "(?i)\\bsocket: operation not permitted|missing cap_net_raw|permission denied \\(are you root");
    private static final Pattern NO_NAME = Pattern.compile(
            "(?i)name or service not known|temporary failure in name resolution|unknown host|bad address|could not find "
                    + "host|konnte host .* nicht finden|n.a pas pu trouver l.h|no pudo encontrar el host|impossibile "
                    + "trovare l.host|nodename nor servname");
    private static final Pattern ECHOISH = Pattern.compile(
            "(?i)^\\s*ping\\b|\\bpinging\\b|icmp_seq|\\bping\\b.*(?:bytes|octets|byte)|ping stat|ping:");

    private static final Pattern ARP_HEAD = Pattern.compile("^ARPING (" + A + ")");
    private static final Pattern ARP_REPLY = Pattern.compile("(?:reply from (" + A + ") \\[(" + Machine.M
            + ")\\])|(?:bytes from (" + Machine.M + ") \\((" + A + ")\\))");
    private static final Pattern ARP_END =
            Pattern.compile("(?i)received ([0-9]+) response|([0-9]+) packets received|\\btimeout\\b");

    private EchoReader() {}

    /** Returns what an echo says, or empty when the text is none. */
    static Optional<Recognised> read(List<String> lines) {
        if (lines.stream().anyMatch(l -> ARP_HEAD.matcher(l).find() || l.contains("ARPING ")))
            return Optional.of(byMac(lines));
        int replies = 0, lost = 0;
        boolean twice = false,
                ring = false,
                own = false,
                notAllowed = false,
                noName = false,
                unreachable = false,
                echoish = false;
        Optional<Ipv4Address> asked = Optional.empty(),
                typed = Optional.empty(),
                replied = Optional.empty(),
                teller = Optional.empty();
        int[] totals = null;
        int percent = -1;
        for (String line : lines) {
            echoish |= ECHOISH.matcher(line).find();
            asked = asked.or(() -> first(HEAD, line)).or(() -> first(STATISTICS, line));
            typed = typed.or(() -> first(TYPED, line));
            var reply = REPLY.matcher(line);
            if (RING.matcher(line).find()) ring = true;
            else if (NOT_ALLOWED.matcher(line).find()) notAllowed = true;
            else if (OWN.matcher(line.strip()).find()) own = true;
            else if (NO_NAME.matcher(line).find()) noName = true;
            else if (UNREACHABLE.matcher(line).find()) {
                unreachable = true;
                teller = teller.or(() -> first(TELLER, line));
            } else if (reply.find()) {
                twice |= DUPLICATE.matcher(line).find();
                replies++;
                replied = replied.or(() -> first(REPLY, line));
            } else if (TIMEOUT.matcher(line).find()) lost++;
            if (line.toLowerCase(java.util.Locale.ROOT).contains("duplicates"))
                twice |= DUPLICATE.matcher(line).find();
            var unix = UNIX_TOTALS.matcher(line);
            if (unix.find()) totals = new int[] {number(unix.group(1)), number(unix.group(2))};
            var windowed = WINDOWED_TOTALS.matcher(line);
            // Such a program counts “unreachable” as received, so only the lines tell who answered.
            if (totals == null && windowed.find()) {
                echoish = true;
                int sent = number(windowed.group(1));
                if (replies > 0 && replies < sent) lost = Math.max(lost, sent - replies);
                if (number(windowed.group(2)) == 0 && sent > 0) lost = Math.max(lost, sent);
            }
            var rate = RATE.matcher(line);
            if (rate.find()) percent = 100 - number(rate.group(1));
        }
        if (!echoish && !notAllowed && replies == 0 && lost == 0 && totals == null && percent < 0)
            return Optional.empty();
        if (totals != null && totals[0] > 0) {
            // Somebody who stops it in the middle of a round trip loses none.
            replies = Math.max(replies, totals[1]);
            if (!twice && totals[1] < totals[0])
                percent = (int) Math.round(100.0 * (totals[0] - totals[1]) / totals[0]);
        } else if (percent < 0 && replies + lost > 0 && lost > 0)
            percent = (int) Math.round(100.0 * lost / (replies + lost));
        boolean answered = replies > 0 || percent >= 0 && percent < 100;
        Answer answer = answered
                ? twice ? Answer.TWICE : percent > 0 || unreachable ? Answer.LOSS : Answer.ANSWERED
                : noName
                        ? Answer.NO_SUCH_NAME
                        : notAllowed
                                ? Answer.NOT_ALLOWED
                                : own
                                        ? Answer.OWN_NETWORK
                                        : ring
                                                ? Answer.IN_A_RING
                                                : unreachable
                                                        ? Answer.UNREACHABLE
                                                        : percent == 100 || lost > 0 ? Answer.SILENT : Answer.CUT_OFF;
        var whom = asked.isPresent() ? asked : typed.isPresent() ? typed : replied;
        return Optional.of(new Echo(
                Form.ECHO,
                whom,
                answer,
                answered ? Math.max(0, percent) : percent,
                answer == Answer.UNREACHABLE || answer == Answer.LOSS ? teller : Optional.empty(),
                java.util.Set.of()));
    }

    private static Recognised byMac(List<String> lines) {
        Optional<Ipv4Address> asked = Optional.empty();
        var macs = new LinkedHashSet<Mac>();
        boolean ended = false;
        for (String line : lines) {
            asked = asked.or(() -> first(ARP_HEAD, line));
            var reply = ARP_REPLY.matcher(line);
            if (reply.find()) {
                macs.add(Machine.mac(reply.group(2) == null ? reply.group(3) : reply.group(2)));
                ended = true;
            }
            ended |= ARP_END.matcher(line).find();
        }
        Answer answer = macs.size() > 1
                ? Answer.TWICE
                : macs.size() == 1 ? Answer.ANSWERED : ended ? Answer.SILENT : Answer.CUT_OFF;
        return new Echo(Form.ARP_ECHO, asked, answer, -1, Optional.empty(), macs);
    }

    static Optional<Ipv4Address> first(Pattern pattern, String line) {
        Matcher m = pattern.matcher(line);
        if (!m.find()) return Optional.empty();
        for (int i = 1; i <= m.groupCount(); i++) if (m.group(i) != null) return Machine.address(m.group(i));
        return Optional.empty();
    }

    private static int number(String digits) {
        return digits.length() > 8 ? 99_999_999 : Integer.parseInt(digits);
    }
}
