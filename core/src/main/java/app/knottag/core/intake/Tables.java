package app.knottag.core.intake;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Draft.Remark;
import app.knottag.core.intake.Recognised.Table;
import app.knottag.core.intake.Row.State;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Reads tables with a device a line. Each form has rules for a whole line, or a line that names its columns; the form that
 * reads most lines is the text's. A line that no rule of that form reads is left out and said so. Only when no rule at all
 * fits is a line read by what stands on it, and then it is not sure.
 */
final class Tables {

    private static final String A = "(?<a>" + Machine.A + ")";
    private static final String M = "(?<m>" + Machine.M + ")";
    private static final String NAME = "[A-Za-z0-9](?:[A-Za-z0-9_-]*[A-Za-z0-9])?(?:\\.[A-Za-z0-9_-]+)*\\.?";
    private static final String STATES =
            "(?<s>dynamic|static|invalid|dynamisch|statisch|ung\\S+ltig|dynamique|statique|din\\S+mico|est\\S+tico|"
                    + "dinamico|statico|reachable|stale|delay|probe|permanent|noarp|unreachable|incomplete|failed|"
                    + "erreichbar|abgelaufen)";
    private static final String LEARNT =
            "(?:dynamic|static|self|learn(?:ed|t)?|secure\\S*|mgmt|management|sticky|permanent|other|invalid|"
                    + "eth-learned|config\\S*|blackhole|security|multiport|d|s|c)";
    private static final int LONGEST_LINE = 400;

    /** One rule for a whole line. */
    private record Rule(Form form, Pattern line) {}

    private static final List<Rule> RULES = List.of(
            rule(Form.NEIGHBOURS, A + " (?:dev \\S+ )?lladdr " + M + "(?: \\S+)*? (?<s>[A-Z]+)(?: proto \\S+)?"),
            rule(Form.NEIGHBOURS, A + " dev \\S+(?: \\S+)*? +(?<s>INCOMPLETE|FAILED|NONE|NOARP)"),
            rule(Form.NEIGHBOURS, A + " \\S+ " + M + "(?: (?<s>[A-Z]+))? ?"),
            rule(Form.NEIGHBOURS, "(?:\\?|(?<n>" + NAME + ")) \\(" + A + "\\) at " + M + "(?: .*)?"),
            rule(Form.NEIGHBOURS, "(?:\\?|(?<n>" + NAME + ")) \\(" + A + "\\) at <?\\(?(?<s>incomplete)\\)?>?(?: .*)?"),
            rule(Form.NEIGHBOURS, A + " (?:ether|\\[ether\\]|802\\.\\S+) " + M + " [A-Z!]+(?: \\S+)? \\S+"),
            rule(Form.NEIGHBOURS, "(?<n>[A-Za-z]" + "[A-Za-z0-9_.-]*) ether " + M + " [A-Z!]+(?: \\S+)? \\S+"),
            rule(Form.NEIGHBOURS, A + " \\(?(?<s>incomplete)\\)?(?: \\S+){1,2}"),
            rule(Form.NEIGHBOURS, A + " 0x[0-9a-f]+ (?<f>0x[0-9a-f]+) " + M + " \\S+ \\S+"),
            rule(Form.NEIGHBOURS, A + " " + M + " " + STATES),
            rule(Form.NEIGHBOURS, A + " (?<s>unreachable|incomplete|failed|nicht erreichbar)(?: \\S+)?"),
            rule(Form.NEIGHBOURS, "[0-9]+ " + A + "(?: " + M + ")? " + STATES + " \\S+"),
            rule(Form.NEIGHBOURS, "internet " + A + " (?:[0-9]+|-) " + M + " [a-z]+(?: \\S+){0,2}"),
            rule(Form.NEIGHBOURS, "internet " + A + " (?:[0-9]+|-) (?<s>incomplete) [a-z]+(?: \\S+)?"),
            rule(Form.NEIGHBOURS, A + " (?:[0-9]{2}:[0-9]{2}:[0-9]{2}|-) " + M + " \\S+(?: \\S+)?"),
            rule(Form.NEIGHBOURS, A + " [0-9]{2}:[0-9]{2}:[0-9]{2} (?<s>incomplete) \\S+(?: \\S+)?"),
            rule(
                    Form.NEIGHBOURS,
                    "[a-z]+[0-9]+ (?:" + A + "|(?<n>" + NAME + ")) 255\\.255\\.255\\.255 (?:[a-zA-Z]+ )?" + M),
            rule(Form.NEIGHBOURS, M + " " + A + " (?<n>\\S+) \\S+ (?:none|permanent|remote|local)\\S*"),
            rule(
                    Form.NEIGHBOURS,
                    A + " " + M + " [a-z]+[0-9]+ (?:[0-9]+[smhd]\\S*|permanent|static|expired)(?: \\S+)?"),
            rule(Form.NEIGHBOURS, A + " " + M + " [0-9]+ [DSIOM](?:-?[0-9]+)?(?: \\S+){1,3}"),
            rule(Form.NEIGHBOURS, A + "[ ,;]+" + M),
            rule(Form.NEIGHBOURS, M + "[ ,;]+" + A),
            rule(Form.LEASES, "(?<e>[0-9]{1,12}) (?:[0-9a-f]{2}-)?" + M + " " + A + " (?<n>\\S+)(?: \\S+)?"),
            rule(
                    Form.LEASES,
                    A + " " + M + " [0-9]{4}/[0-9]{2}/[0-9]{2} [0-9:]{8}(?: \\S+)?(?: (?<n>" + NAME + "|\\?|-))?"),
            rule(
                    Form.LEASES,
                    A
                            + " (?:01)?(?<c>(?:[0-9a-f]{2}[.:-]?){6,7}) (?<end>infinite|[A-Z][a-z]{2} [0-9]{1,2} "
                            + "[0-9]{4} [0-9:]{5,8}(?: [AP]M)?) (?:automatic|manual)(?: (?<s>\\S+)(?: \\S+)?)?"),
            rule(
                    Form.LEASES,
                    "[0-9]+ (?:[A-Z]+ )?" + A + " " + M + "(?: (?<n>" + NAME
                            + "))? \\S+ (?<s>bound|waiting|offered|authorizing|busy|testing)(?: \\S+)?"),
            rule(
                    Form.SWITCH,
                    "[*+~]? ?(?<v>[0-9]{1,4}|all|n/a|none|-) " + M + " " + LEARNT
                            + "(?: (?:[0-9~-]+|ntfy|yes|no|[FT]|-))* (?<p>[A-Za-z/0-9][^ ,]*)"),
            rule(Form.SWITCH, M + " dev (?<p>\\S+)(?: vlan (?<v>[0-9]+))?(?<s>(?: \\S+)*)"),
            rule(Form.SWITCH, "(?<p>[0-9]{1,3}) " + M + " (?<s>yes|no) [0-9]+\\.[0-9]+"),
            rule(Form.SWITCH, M + " vlan[ :]?(?<v>[0-9]+) port[ :]?(?<p>\\S+)"),
            rule(Form.SWITCH, M + " (?<v>[0-9]{1,4})(?:/\\S*)? " + LEARNT + " (?<p>[A-Za-z0-9]\\S*)(?: \\S+){0,2}"),
            rule(Form.SWITCH, M + " (?<v>[0-9]{1,4}) (?<p>[A-Za-z]\\S*|[0-9]+/\\S+) " + LEARNT + "(?: \\S+){0,3}"),
            rule(Form.SWITCH, "(?<v>[0-9]{1,4}) \\S+ " + M + " (?<p>[0-9A-Za-z]\\S*) " + LEARNT + "(?: \\S+){0,2}"),
            rule(Form.SWITCH, "(?<v>[0-9]{1,4}) " + M + " (?<p>[0-9]+/\\S+) [0-9]+ \\S+"),
            rule(
                    Form.SWITCH,
                    "(?<vn>[A-Za-z]\\S*) " + M + " " + LEARNT + "(?:,\\S*)? \\S+ (?<p>[a-z]+[0-9-]\\S*)(?: \\S+){0,2}"),
            rule(Form.SWITCH, "(?<m>[0-9a-f]{6}-[0-9a-f]{6}) (?<p>[A-Za-z]{0,3}[0-9]{1,3})(?: (?<v>[0-9]{1,4}))?"),
            rule(Form.ETHERS, M + " (?<n>[A-Za-z]" + "[A-Za-z0-9_.-]*)"),
            rule(Form.HOSTS, A + " (?!" + Machine.M + ")(?<n>" + NAME + ")(?: (?!" + Machine.M + ")" + NAME + ")*"));

    private static Rule rule(Form form, String line) {
        return new Rule(form, Pattern.compile("(?i)" + line));
    }

    /** A plain line of an address and a word counts only where nothing else fits. */
    private static final List<Form> RANKED =
            List.of(Form.NEIGHBOURS, Form.LEASES, Form.SWITCH, Form.ETHERS, Form.HOSTS);

    private final List<String> lines;
    private final Optional<Instant> now;
    private final List<Remark> leftOut = new ArrayList<>();
    private final List<Remark> problems = new ArrayList<>();

    private Tables(List<String> lines, Optional<Instant> now) {
        this.lines = lines;
        this.now = now;
    }

    /** Reads a table; empty when no line holds an address or a MAC. */
    static Optional<Table> read(List<String> lines, Optional<Instant> now) {
        return new Tables(lines, now).table();
    }

    private Optional<Table> table() {
        var plain = lines.stream().map(Tables::plain).toList();
        var columned = Columns.read(lines, now);
        var votes = new EnumMap<Form, List<Row>>(Form.class);
        for (int i = 0; i < plain.size(); i++) {
            String line = plain.get(i);
            if (line.isEmpty() || line.length() > LONGEST_LINE) continue;
            var seen = new EnumMap<Form, Row>(Form.class);
            for (var rule : RULES) {
                if (seen.containsKey(rule.form())) continue;
                var m = rule.line().matcher(line);
                if (m.matches()) row(i + 1, m, rule.form()).ifPresent(r -> seen.put(rule.form(), r));
            }
            seen.forEach((form, row) ->
                    votes.computeIfAbsent(form, f -> new ArrayList<>()).add(row));
            keyed(i + 1, line)
                    .ifPresent(r -> votes.computeIfAbsent(Form.LEASES, f -> new ArrayList<>())
                            .add(r));
        }
        Form best = null;
        for (var form : RANKED)
            if (votes.containsKey(form)
                    && (best == null || votes.get(form).size() > votes.get(best).size())) best = form;
        boolean named = columned.isPresent()
                && (best == null || better(columned.get(), best, votes.get(best).size()));
        if (named)
            return Optional.of(
                    finish(columned.get().form(), true, columned.get().rows(), plain));
        if (best != null) return Optional.of(finish(best, true, votes.get(best), plain));
        var loose = new ArrayList<Row>();
        for (int i = 0; i < plain.size(); i++) loose(i + 1, plain.get(i)).ifPresent(loose::add);
        boolean any = !loose.isEmpty() || plain.stream().anyMatch(Tables::holdsFigures);
        Form form = loose.stream().anyMatch(r -> r.address().isEmpty()) ? Form.SWITCH : Form.NEIGHBOURS;
        return any ? Optional.of(finish(form, false, loose, plain)) : Optional.empty();
    }

    /** What stands above a column of a switch's table is surer than a rule for its lines; elsewhere rules know more. */
    private static boolean better(Table columned, Form form, int rows) {
        int named = columned.rows().size();
        return form == columned.form() && form != Form.SWITCH ? named > rows : named >= rows;
    }

    private static boolean holdsFigures(String line) {
        return Machine.ADDRESS.matcher(line).find()
                || Machine.MAC.matcher(line).find()
                || line.matches(".*(?<![0-9.])[0-9]{1,3}\\.[0-9]{1,3}\\.[0-9]{1,3}(?![0-9]).*");
    }

    /** Comments go, and every run of blanks is one. */
    private static String plain(String line) {
        String cut = line.length() > 4 * LONGEST_LINE ? line.substring(0, 4 * LONGEST_LINE) : line;
        return cut.replaceFirst("(?:^|\\s)#(?=\\s|$).*|^#.*", "")
                .replaceAll("\\s+", " ")
                .strip();
    }

    private Optional<Row> row(long line, Matcher m, Form form) {
        String a = Machine.group(m, "a"), mac = Machine.group(m, "m"), name = Machine.group(m, "n");
        var address = a.isEmpty() ? Optional.<Ipv4Address>empty() : Machine.address(a);
        if (!a.isEmpty() && address.isEmpty())
            return Optional.of(
                    Row.of(line, address, Optional.empty(), State.SEEN).unsure());
        var read = mac.isEmpty() ? client(Machine.group(m, "c")) : Optional.of(Machine.mac(mac));
        var state = state(form, Machine.group(m, "s").strip());
        if (Machine.group(m, "f").equals("0x0")) state = State.SILENT;
        var row = Row.of(line, address, read, state)
                .named(name.matches("\\*|\\?|-|" + Machine.A) ? "" : name)
                .at(Machine.group(m, "p"), vlan(Machine.group(m, "v")));
        String end = Machine.group(m, "e");
        return Optional.of(end.isEmpty() ? row : ending(row, Long.parseLong(end), now));
    }

    private static Optional<Integer> vlan(String text) {
        return text.matches("[0-9]{1,4}") ? Optional.of(Integer.parseInt(text)) : Optional.empty();
    }

    /** A client's id is its MAC with the kind of hardware (01) in front. */
    static Optional<Mac> client(String text) {
        String digits = text.replaceAll("[^0-9A-Fa-f]", "");
        if (digits.length() == 14 && digits.startsWith("01")) digits = digits.substring(2);
        return digits.length() == 12 ? Optional.of(new Mac(Long.parseLong(digits, 16))) : Optional.empty();
    }

    /** Returns the row with its end, in seconds since 1970; 0 never ends. */
    static Row ending(Row row, long epoch, Optional<Instant> now) {
        if (epoch == 0) return row;
        var end = Instant.ofEpochSecond(epoch);
        return row.until(Optional.of(end)).in(now.filter(end::isBefore).isPresent() ? State.ENDED : row.state());
    }

    static Row kea(
            long line,
            Optional<Ipv4Address> address,
            Optional<Mac> mac,
            long lifetime,
            long expire,
            int state,
            Optional<Instant> now) {
        boolean over = state != 0 || lifetime == 0;
        var row = Row.of(line, address, mac, over ? State.ENDED : State.LEASED);
        return over || JsonLists.forEver(lifetime) ? row : ending(row, expire, now);
    }

    /** Returns what a word of a state says in a form. */
    static State state(Form form, String word) {
        String w = word.toLowerCase(Locale.ROOT);
        if (form == Form.LEASES) {
            if (w.isEmpty() || w.matches("bound|active|leased|activereservation|selecting|automatic|online"))
                return State.LEASED;
            return w.matches("inactivereservation|waiting|manual|static") ? State.WRITTEN : State.ENDED;
        }
        if (form == Form.HOSTS || form == Form.ETHERS) return State.WRITTEN;
        if (form == Form.SWITCH) return w.contains("permanent") || w.equals("yes") ? State.WRITTEN : State.SEEN;
        if (w.matches("incomplete|failed|unreachable|invalid|none|ung\\S+ltig|nicht erreichbar")) return State.SILENT;
        if (w.matches("stale|abgelaufen")) return State.OLD;
        return w.matches("static|statisch|statique|est\\S+tico|statico|permanent|noarp") ? State.WRITTEN : State.SEEN;
    }

    private static final Pattern KEYED = Pattern.compile("(?:^|\\s)([a-z-]+)=(\"[^\"]*\"|\\S+)");

    /** Lines of words and values, as a router exports its leases, and reservation lines. */
    private static Optional<Row> keyed(long line, String text) {
        if (text.startsWith("dhcp-host=")) return reserved(line, text.substring(10));
        var values = new LinkedHashMap<String, String>();
        var m = KEYED.matcher(text);
        while (m.find()) values.put(m.group(1), m.group(2).replace("\"", ""));
        String mac = values.getOrDefault("mac-address", values.getOrDefault("active-mac-address", ""));
        var address = Machine.address(values.getOrDefault("address", values.getOrDefault("active-address", "")));
        if (address.isEmpty() || !Machine.MAC.matcher(mac).matches()) return Optional.empty();
        String status = values.get("status");
        return Optional.of(Row.of(
                        line,
                        address,
                        Optional.of(Machine.mac(mac)),
                        status == null ? State.WRITTEN : state(Form.LEASES, status))
                .named(values.getOrDefault("host-name", "")));
    }

    private static Optional<Row> reserved(long line, String text) {
        Optional<Mac> mac = Optional.empty();
        Optional<Ipv4Address> address = Optional.empty();
        String name = "";
        for (String part : text.split(",")) {
            String p = part.strip();
            if (Machine.MAC.matcher(p).matches()) mac = Optional.of(Machine.mac(p));
            else if (Machine.ADDRESS.matcher(p).matches()) address = Machine.address(p);
            else if (name.isEmpty() && p.matches("[A-Za-z][A-Za-z0-9-]*") && !p.matches("(?i)infinite|ignore"))
                name = p;
        }
        return mac.isPresent()
                ? Optional.of(Row.of(line, address, mac, State.WRITTEN).named(name))
                : Optional.empty();
    }

    /** By what stands on a line, when no rule fits: one address and one MAC at most, and nothing else is believed. */
    private Optional<Row> loose(long number, String line) {
        if (line.isEmpty() || line.length() > LONGEST_LINE) return Optional.empty();
        var a = Machine.ADDRESS.matcher(line);
        var m = Machine.MAC.matcher(line);
        boolean addressed = a.find(), macked = m.find();
        if (!macked || m.group().matches("[0-9]{12}")) return Optional.empty();
        String address = addressed ? a.group() : "", mac = m.group();
        boolean more = addressed && a.find() || m.find();
        if (more) return Optional.empty();
        return Optional.of(Row.of(number, Machine.address(address), Optional.of(Machine.mac(mac)), State.SEEN)
                .unsure());
    }

    private static final Pattern PROMPT = Pattern.compile(
            "^(?:\\S+@\\S+|[A-Z]:\\\\\\S*>|PS |[$#>%]).*|^(?:interface|schnittstelle|interfaz|interfaccia)\\s*:.*",
            Pattern.CASE_INSENSITIVE);

    private Table finish(Form form, boolean sure, List<Row> read, List<String> plain) {
        var rows = new ArrayList<Row>();
        var lineOf = new java.util.HashSet<Long>();
        for (var row : read) {
            lineOf.add(row.line());
            String line = plain.get((int) row.line() - 1);
            if (row.address().isEmpty()
                    && Machine.ADDRESS.matcher(line).find()
                    && !row.sure()
                    && badAddress(row.line(), line)) continue;
            if (row.address().filter(Tables::nobody).isPresent())
                leftOut.add(new Remark(row.line(), "", row.address().get() + " is no address of a device."));
            else if (row.state() == State.SILENT)
                leftOut.add(new Remark(row.line(), "", "It did not answer when the list was made."));
            else if (row.mac().filter(m -> !Machine.ofOne(m)).isPresent())
                leftOut.add(new Remark(row.line(), "", row.mac().get() + " belongs to a group, not to one device."));
            if (row.state() == State.ENDED)
                leftOut.add(new Remark(
                        row.line(), "", row.address().map(Object::toString).orElse("It") + ": this lease has ended."));
            if (row.address().filter(Tables::nobody).isEmpty()
                            && row.mac().filter(m -> !Machine.ofOne(m)).isEmpty()
                    || row.state() == State.SILENT
                            && row.address().filter(Tables::nobody).isEmpty())
                rows.add(
                        row.mac().filter(m -> !Machine.ofOne(m)).isPresent()
                                ? Row.of(row.line(), row.address(), Optional.empty(), row.state())
                                : row);
        }
        for (int i = 0; i < plain.size(); i++)
            if (!lineOf.contains(i + 1L) && !plain.get(i).isEmpty()) unread(i + 1, plain.get(i), form);
        var kept = form == Form.LEASES ? latest(rows) : rows;
        leftOut.sort(java.util.Comparator.comparingLong(Remark::line));
        return new Table(form, sure, kept, leftOut, problems);
    }

    private boolean badAddress(long line, String text) {
        var a = Machine.ADDRESS.matcher(text);
        while (a.find())
            if (Machine.address(a.group()).isEmpty()) {
                problems.add(new Remark(
                        line,
                        "address",
                        a.group() + " is not an address: a group is over 255 or has a zero in front."));
                return true;
            }
        return false;
    }

    private static boolean nobody(Ipv4Address a) {
        return a.group(0) == 127 || a.group(0) >= 224 || a.bits() == 0;
    }

    private void unread(long number, String line, Form form) {
        var v6 = Machine.IPV6.matcher(line);
        boolean prompt = PROMPT.matcher(line).matches();
        boolean macked = Machine.MAC.matcher(line).find(),
                addressed = Machine.ADDRESS.matcher(line).find();
        if (!prompt && v6.find() && !Machine.MAC.matcher(v6.group()).matches())
            leftOut.add(
                    new Remark(number, "address", v6.group() + " is an IPv6 address; the device's IPv4 line counts."));
        else if (prompt || !macked && !addressed && !line.matches(".*(?<![0-9.])[0-9]{1,3}\\.[0-9]{1,3}\\..*"))
            leftOut.add(new Remark(number, "", "Neither an address nor a MAC in “" + cut(line) + "”."));
        else if (macked || form != Form.HOSTS && addressed)
            leftOut.add(new Remark(number, "", "Not read for certain, so it does not count: “" + cut(line) + "”."));
        else if (!badAddress(number, line))
            problems.add(new Remark(number, "", "No address can be read in “" + cut(line) + "”."));
    }

    static String cut(String line) {
        return line.length() > 40 ? line.substring(0, 40) + "…" : line;
    }

    /** A list of leases is appended to: the last line of an address counts. */
    private static List<Row> latest(List<Row> rows) {
        var byAddress = new LinkedHashMap<Object, Row>();
        for (var row : rows) {
            Object key = row.address().isPresent() ? row.address().get() : row.line();
            byAddress.remove(key);
            byAddress.put(key, row);
        }
        return List.copyOf(byAddress.values());
    }
}
