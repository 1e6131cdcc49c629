package app.knottag.core.intake;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Draft.Remark;
import app.knottag.core.intake.Recognised.PortState;
import app.knottag.core.intake.Recognised.PortTest;
import app.knottag.core.intake.Recognised.Scan;
import app.knottag.core.intake.Row.State;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;

/** Reads scans of many hosts: reports in paragraphs, one line a host, by MAC, or alive and unreachable. */
final class ScanReader {

    private static final String A = Machine.A;
    private static final Pattern REPORT =
            Pattern.compile("scan report for (?:([A-Za-z0-9._-]+) \\()?(" + A + ")\\)?(.*)");
    private static final Pattern REPORT_MAC = Pattern.compile("^MAC Address: (" + Machine.M + ")");
    private static final Pattern REPORT_PORT =
            Pattern.compile("^([0-9]{1,5})/tcp\\s+(open|closed|filtered)(?:\\|filtered)?\\b");
    private static final Pattern ONE_LINE =
            Pattern.compile("^Host: (" + A + ") \\(([^)]*)\\)\\s+(?:Status: (\\w+)|Ports: (.*))");
    private static final Pattern ONE_PORT = Pattern.compile("([0-9]{1,5})/(open|closed|filtered)/tcp");
    private static final Pattern BY_MAC =
            Pattern.compile("^(" + A + ")\\s+(" + Machine.M + ")\\s+(?!dynamic|static|ARPA)\\S.*$");
    private static final Pattern BY_MAC_HEAD = Pattern.compile("(?i)^Interface: \\S+, (?:type|datalink)|arp-scan");
    private static final Pattern ALIVE =
            Pattern.compile("^(" + A + ")\\s+(?:is (alive|unreachable)|:\\s*xmt/rcv/%loss = ([0-9]+)/([0-9]+)/)");
    private static final Pattern TOLD = Pattern.compile("^ICMP .* from " + A + " for ICMP Echo sent to (" + A + ")");

    private final List<Row> hosts = new ArrayList<>();
    private final List<PortTest> ports = new ArrayList<>();
    private final List<Remark> leftOut = new ArrayList<>();
    private Optional<Ipv4Address> host = Optional.empty();

    private ScanReader() {}

    /** Returns what a scan says, or empty when the text is none. */
    static Optional<Recognised> read(List<String> lines) {
        boolean reports = lines.stream().anyMatch(l -> REPORT.matcher(l).find());
        boolean oneLine = lines.stream().anyMatch(l -> ONE_LINE.matcher(l).find());
        boolean byMac = lines.stream().anyMatch(l -> BY_MAC_HEAD.matcher(l).find());
        boolean alive = lines.stream().anyMatch(l -> ALIVE.matcher(l.strip()).find());
        if (!reports && !oneLine && !byMac && !alive) return Optional.empty();
        var reader = new ScanReader();
        for (int i = 0; i < lines.size(); i++) {
            String line = lines.get(i).strip();
            if (reports) reader.report(i + 1, line);
            if (oneLine) reader.oneLine(i + 1, line);
            if (byMac) reader.byMac(i + 1, line);
            if (alive) reader.alive(i + 1, line);
        }
        return Optional.of(new Scan(reader.hosts, reader.ports, reader.leftOut));
    }

    private void add(long line, String address, Optional<Mac> mac, State state, String name) {
        host = Machine.address(address);
        if (host.isEmpty()) {
            leftOut.add(new Remark(line, "address", address + " is not an address."));
            return;
        }
        for (int i = 0; i < hosts.size(); i++) {
            var before = hosts.get(i);
            // Two units at one address stand there as two lines.
            if (!before.address().equals(host)
                    || mac.isPresent() && before.mac().isPresent() && !mac.equals(before.mac())) continue;
            hosts.set(
                    i,
                    Row.of(
                                    before.line(),
                                    host,
                                    mac.isPresent() ? mac : before.mac(),
                                    state == State.SILENT ? before.state() : state)
                            .named(name.isEmpty() ? before.name() : name));
            return;
        }
        hosts.add(Row.of(line, host, mac, state).named(name));
    }

    private void report(long number, String line) {
        var head = REPORT.matcher(line);
        if (head.find())
            add(
                    number,
                    head.group(2),
                    Optional.empty(),
                    head.group(3).contains("host down") ? State.SILENT : State.SEEN,
                    head.group(1) == null ? "" : head.group(1));
        if (host.isEmpty()) return;
        var mac = REPORT_MAC.matcher(line);
        if (mac.find()) {
            var last = hosts.get(hosts.size() - 1);
            hosts.set(
                    hosts.size() - 1,
                    Row.of(last.line(), last.address(), Optional.of(Machine.mac(mac.group(1))), last.state())
                            .named(last.name()));
        }
        var port = REPORT_PORT.matcher(line);
        if (port.find()) ports.add(test(port.group(1), port.group(2)));
    }

    private PortTest test(String port, String word) {
        return new PortTest(
                host,
                Optional.of(Integer.parseInt(port)).filter(p -> p >= 1 && p <= 65_535),
                word.equals("open") ? PortState.OPEN : word.equals("closed") ? PortState.REFUSED : PortState.SILENT);
    }

    private void oneLine(long number, String line) {
        var m = ONE_LINE.matcher(line);
        if (!m.find()) return;
        add(number, m.group(1), Optional.empty(), "Down".equals(m.group(3)) ? State.SILENT : State.SEEN, m.group(2));
        if (m.group(4) == null || host.isEmpty()) return;
        var port = ONE_PORT.matcher(m.group(4));
        while (port.find()) ports.add(test(port.group(1), port.group(2)));
    }

    private void byMac(long number, String line) {
        var m = BY_MAC.matcher(line);
        if (m.find()) add(number, m.group(1), Optional.of(Machine.mac(m.group(2))), State.SEEN, "");
    }

    private void alive(long number, String line) {
        var m = ALIVE.matcher(line);
        if (m.find()) {
            boolean there =
                    m.group(2) == null ? !m.group(4).equals("0") : m.group(2).equals("alive");
            add(number, m.group(1), Optional.empty(), there ? State.SEEN : State.SILENT, "");
        } else if (TOLD.matcher(line).find())
            add(
                    number,
                    EchoReader.first(TOLD, line).map(Object::toString).orElse(""),
                    Optional.empty(),
                    State.SILENT,
                    "");
    }
}
