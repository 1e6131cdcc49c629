package app.knottag.core.intake;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Draft.Parsed;
import app.knottag.core.intake.Draft.Remark;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * Reads lists as machines print them: hosts and ethers lines, neighbour tables of any system, lease lists with one line
 * a lease, with columns, or in braces. What stands on a line is recognised by its form, wherever it stands.
 */
public final class Listing {

    private static final Pattern ADDRESS = Pattern.compile("(?<![0-9.])([0-9]{1,3}(?:\\.[0-9]{1,3}){3})(?![0-9.])");
    private static final Pattern MAC = Pattern.compile(
            "(?<![0-9A-Fa-f:.-])((?:[0-9A-Fa-f]{1,2}[:-]){5}[0-9A-Fa-f]{1,2}|(?:[0-9A-Fa-f]{4}\\.){2}[0-9A-Fa-f]{4})(?![0-9A-Fa-f:-])");
    private static final Pattern SILENT = Pattern.compile("(?i)\\b(incomplete|failed|unreachable)\\b");
    private static final Pattern EPOCH = Pattern.compile("(?<![0-9])([12][0-9]{9})(?![0-9])");
    private static final Pattern BRACED_END =
            Pattern.compile("(?m)^\\s*ends\\s+(?:[0-6]\\s+)?(\\d{4}/\\d\\d/\\d\\d \\d\\d:\\d\\d:\\d\\d)");
    private static final DateTimeFormatter BRACED_TIME = DateTimeFormatter.ofPattern("yyyy/MM/dd HH:mm:ss");
    private static final Pattern BRACED_NAME = Pattern.compile("client-hostname\\s+\"([^\"]{1,120})\"");
    private static final Pattern NAME = Pattern.compile("[A-Za-z][A-Za-z0-9_-]*(?:\\.[A-Za-z0-9_-]+)*");
    private static final Pattern NO_NAME = Pattern.compile(
            "(?i)(dev|lladdr|ether|at|on|dynamic|static|internet|arpa|reachable|stale|delay|probe|permanent|noarp|router|proxy|ifscope|published|"
                    + "(?:eth|en|wl|br|vlan|lan|wlan|bond|lo)[a-z]*[0-9][a-z0-9.]*|br-lan|interface|type|c|cm|ff)");

    private Listing() {}

    /** Reads a list. */
    public static Parsed read(String text) {
        return text.matches("(?s).*\\blease\\s+[0-9.]+\\s*\\{.*") ? braced(text) : lines(text);
    }

    private static Parsed lines(String text) {
        var drafts = new ArrayList<Draft>();
        var leftOut = new ArrayList<Remark>();
        var problems = new ArrayList<Remark>();
        String[] lines = text.split("\n", -1);
        for (int i = 0; i < lines.length; i++) {
            String line = lines[i].replaceFirst("#.*", "").strip();
            if (line.isEmpty()) continue;
            one(i + 1, line, drafts, leftOut, problems);
        }
        return new Parsed(drafts, leftOut, problems);
    }

    private static void one(int number, String line, List<Draft> drafts, List<Remark> leftOut, List<Remark> problems) {
        var address = ADDRESS.matcher(line);
        var mac = MAC.matcher(line);
        boolean addressed = address.find(), macked = mac.find();
        if (!addressed && !macked) {
            boolean odd = line.matches(".*[0-9]{1,3}\\.[0-9]{1,3}\\..*");
            if (odd) problems.add(new Remark(number, "", "No address can be read in “" + cut(line) + "”."));
            else leftOut.add(new Remark(number, "", "Neither an address nor a MAC in “" + cut(line) + "”."));
            return;
        }
        if (SILENT.matcher(line).find()) {
            leftOut.add(new Remark(number, "", "It did not answer when the list was made."));
            return;
        }
        Optional<Ipv4Address> read = Optional.empty();
        if (addressed)
            try {
                read = Optional.of(Ipv4Address.parse(address.group(1)));
            } catch (IllegalArgumentException e) {
                problems.add(new Remark(
                        number,
                        "address",
                        address.group(1) + " is not an address: a group is over 255 or has a zero in front."));
                return;
            }
        if (read.filter(a -> a.group(0) == 127 || a.group(0) >= 224 || a.bits() == 0)
                .isPresent()) {
            leftOut.add(new Remark(number, "", read.get() + " is no address of a device."));
            return;
        }
        var found = macked ? Optional.of(mac(mac.group(1))) : Optional.<Mac>empty();
        if (found.filter(m -> m.group() || m.bits() == 0).isPresent()) {
            leftOut.add(new Remark(number, "", found.get() + " belongs to a group, not to one device."));
            return;
        }
        drafts.add(Draft.of(number, read, found, name(line), leaseEnd(line)));
    }

    private static String cut(String line) {
        return line.length() > 40 ? line.substring(0, 40) + "…" : line;
    }

    private static Mac mac(String text) {
        String[] groups = text.split("[:-]");
        if (groups.length != 6) return new Mac(Long.parseLong(text.replace(".", ""), 16));
        long bits = 0;
        for (String group : groups) bits = bits << 8 | Integer.parseInt(group, 16);
        return new Mac(bits);
    }

    /** The first word that can be a name: the host's own, without its domain. */
    private static String name(String line) {
        String rest = MAC.matcher(ADDRESS.matcher(line).replaceAll(" ")).replaceAll(" ");
        for (String word : rest.split("[\\s,;()\\[\\]<>?\"]+"))
            if (NAME.matcher(word).matches() && !NO_NAME.matcher(word).matches()) return word.replaceFirst("\\..*", "");
        return "";
    }

    private static Optional<Instant> leaseEnd(String line) {
        var epoch = EPOCH.matcher(line);
        return epoch.find() ? Optional.of(Instant.ofEpochSecond(Long.parseLong(epoch.group(1)))) : Optional.empty();
    }

    private static final Pattern BLOCK = Pattern.compile("(?s)\\blease\\s+([0-9.]+)\\s*\\{([^{}]*)}");

    private static Parsed braced(String text) {
        var drafts = new ArrayList<Draft>();
        var leftOut = new ArrayList<Remark>();
        var problems = new ArrayList<Remark>();
        var block = BLOCK.matcher(text);
        int line = 1, counted = 0;
        while (block.find()) {
            for (; counted < block.start(); counted++) if (text.charAt(counted) == '\n') line++;
            var mac = MAC.matcher(block.group(2));
            if (block.group(2).toLowerCase(Locale.ROOT).contains("binding state free")) {
                leftOut.add(new Remark(line, "", block.group(1) + ": this lease has ended."));
                continue;
            }
            try {
                var name = BRACED_NAME.matcher(block.group(2));
                drafts.add(Draft.of(
                        line,
                        Optional.of(Ipv4Address.parse(block.group(1))),
                        mac.find() ? Optional.of(mac(mac.group(1))) : Optional.empty(),
                        name.find() ? name.group(1) : "",
                        ends(block.group(2))));
            } catch (IllegalArgumentException | DateTimeParseException e) {
                problems.add(new Remark(line, "address", "This lease cannot be read: " + e.getMessage()));
            }
        }
        return new Parsed(latest(drafts), leftOut, problems);
    }

    private static Optional<Instant> ends(String block) {
        var end = BRACED_END.matcher(block);
        return end.find()
                ? Optional.of(LocalDateTime.parse(end.group(1), BRACED_TIME).toInstant(ZoneOffset.UTC))
                : Optional.empty();
    }

    /** Such a file is appended to: the last block of an address counts. */
    private static List<Draft> latest(List<Draft> drafts) {
        var byAddress = new LinkedHashMap<Ipv4Address, Draft>();
        drafts.forEach(d -> byAddress.put(d.address().orElseThrow(), d));
        return List.copyOf(byAddress.values());
    }
}
