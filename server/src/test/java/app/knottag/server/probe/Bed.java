package app.knottag.server.probe;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;

/**
 * A shop with its office and what lies outside, on real wires: a router, a switch, names and leases, mail, files, printing,
 * time and pages by Debian's own servers, a terminal that is to be proved with its partner, and devices of every manner.
 * A segment is a bridge of the switch; nothing leaves these namespaces.
 */
final class Bed implements AutoCloseable {

    static final String TERMINAL_MAC = "00:00:5e:00:53:2b";
    static final String NEXT_MAC = "00:00:5e:00:53:2a";
    static final String STRANGER_MAC = "00:00:5e:00:53:4e";
    static final String SERIAL = "OC2-7H41-0093";
    static final int PORT = 7454;

    static final String OWN_TIME = "local stratum 3\n";

    final Namespaces net;
    final Path files;
    String terminalPort = "";
    String herePort = "";
    String partnerPort = "";

    Bed(String tag) throws IOException {
        net = new Namespaces(tag);
        files = Files.createTempDirectory("bed");
        Files.setPosixFilePermissions(
                Files.createDirectory(files.resolve("boxes")), PosixFilePermissions.fromString("rwxrwxrwx"));
        Files.setPosixFilePermissions(files, PosixFilePermissions.fromString("rwxr-xr-x"));
        wires();
        servers();
    }

    private record Server(String machine, String key, String line) {}

    private final List<Server> usual = new ArrayList<>();

    private void serve(String machine, String key, String line) {
        usual.removeIf(u -> u.machine().equals(machine) && u.key().equals(key));
        usual.add(new Server(machine, key, line));
        net.serve(machine, key, line);
    }

    /** Undoes whatever a fault has done, wherever it was. */
    void heal() {
        for (String guest : new String[] {"stranger", "second"}) if (net.has(guest)) net.remove(guest);
        everyPort("shop", "up");
        net.sh(
                "switch",
                "nft flush ruleset; for p in " + terminalPort + " " + herePort + " " + partnerPort
                        + "; do ip link set $p master shop up; bridge link set dev $p isolated off; done");
        net.sh(
                "router",
                "nft flush ruleset; ip addr flush dev shop; ip addr add 10.80.16.1/24 dev shop; ip link set shop up; ip "
                        + "link set office up; ip link set wan mtu 1500 up; ip route replace default via 198.51.100.1; "
                        + "ip neigh flush all");
        net.stop("router", "portal");
        for (String outside : new String[] {"names", "web", "mail", "time"}) net.sh(outside, "nft flush ruleset");
        home("terminal", "10.80.16.54", TERMINAL_MAC);
        home("partner", "10.80.16.34", "00:00:5e:00:53:94");
        home("here", "10.80.16.250", "");
        net.signal("terminal", "CONT");
        for (var server : usual)
            if (!net.runs(server.machine(), server.key(), server.line())) {
                net.stop(server.machine(), server.key());
                net.serve(server.machine(), server.key(), server.line());
            }
        waitForServers();
    }

    private void home(String name, String address, String mac) {
        net.sh(
                name,
                "nft flush ruleset; ip -4 addr flush dev eth0; "
                        + (mac.isEmpty()
                                ? ""
                                : "[ $(cat /sys/class/net/eth0/address) = " + mac
                                        + " ] || { ip link set eth0 down; ip link set eth0 address " + mac + "; }; ")
                        + "ip link set eth0 up; ip addr add " + address
                        + "/24 dev eth0; ip route replace default via 10.80.16.1; ip neigh flush all");
    }

    /** A question for the address of a name (RFC 1035, 4.1), which the router passes on and has to bring back. */
    private static final String NAME_FOUND =
            "printf '\\0\\001\\001\\0\\0\\001\\0\\0\\0\\0\\0\\0\\003pay\\005cards\\007example\\0\\0\\001\\0\\001'"
                    + " | timeout 1 socat -t 0.5 - UDP:10.80.16.1:53 | od -An -v -tu1 -w4096 | grep -q '198 *51 *100 *80'";

    /** Lets names be had over TCP only, as behind a filter for the other kind, once that works. */
    void namesOverTcpOnly() {
        net.sh("router", drop("udp dport 53"));
        net.sh(
                "here",
                "for n in $(seq 1 20); do "
                        + NAME_FOUND.replace("printf '", "printf '\\0\\043").replace("UDP", "TCP")
                        + " && exit 0; sleep 0.2; done; echo no names over TCP; exit 1");
    }

    /** Waits until those that faults stop most are there again. */
    void waitForServers() {
        net.sh(
                "here",
                "for n in $(seq 1 60); do ok=1; for at in 10.80.16.54/7454 10.80.16.34/7500 198.51.100.80/443 10.80.16.1/53; do"
                        + " timeout 1 bash -c \"exec 3<>/dev/tcp/$at\" 2>/dev/null || ok=0; done; " + NAME_FOUND
                        + " || ok=0; [ $ok = 1 ] && exit 0; sleep 0.05; done; echo not up; exit 1");
    }

    private void wires() {
        net.add("switch");
        net.sh("switch", "sysctl -qw net.ipv6.conf.default.disable_ipv6=1");
        for (String bridge : new String[] {"shop", "office", "out", "guest", "nowhere"}) {
            net.ip("switch", "link add " + bridge + " type bridge forward_delay 0");
            net.ip("switch", "link set " + bridge + " up");
        }
        net.add("router");
        net.plug("router", "shop", "00:00:5e:00:53:01", "shop");
        net.plug("router", "office", "00:00:5e:00:53:02", "office");
        net.plug("router", "wan", "", "out");
        net.ip("router", "addr add 10.80.16.1/24 dev shop");
        net.ip("router", "addr add 10.80.17.1/24 dev office");
        net.ip("router", "addr add 198.51.100.2/24 dev wan");
        net.ip("router", "route add default via 198.51.100.1");
        net.ip("router", "route add unreachable 10.80.18.0/24");
        net.sh("router", "sysctl -qw net.ipv4.ip_forward=1");
        outside("names", "198.51.100.1");
        outside("web", "198.51.100.80");
        outside("mail", "198.51.100.25");
        outside("time", "198.51.100.123");
        herePort = host("here", "10.80.16.250", "", "shop");
        host("there", "10.80.17.250", "", "office");
        terminalPort = host("terminal", "10.80.16.54", TERMINAL_MAC, "shop");
        partnerPort = host("partner", "10.80.16.34", "00:00:5e:00:53:94", "shop");
        host("other", "10.80.16.55", "00:00:5e:00:53:55", "shop");
        host("files", "10.80.16.61", "00:00:5e:00:53:61", "shop");
        host("copier", "10.80.16.60", "00:00:5e:00:53:60", "shop");
        host("noecho", "10.80.16.73", "00:00:5e:00:53:73", "shop");
        net.sh("noecho", drop("icmp type echo-request"));
        host("reset", "10.80.16.71", "00:00:5e:00:53:71", "shop");
        net.sh("reset", rule("tcp dport 7454 reject with tcp reset"));
        host("barred", "10.80.16.72", "00:00:5e:00:53:72", "shop");
        net.sh("barred", rule("reject with icmp type admin-prohibited"));
        host("mute", "10.80.16.70", "00:00:5e:00:53:70", "shop");
        net.sh("mute", rule("drop"));
        host("leased", "10.80.16.215", "00:00:5e:00:53:75", "shop");
        net.add("six");
        net.plug("six", "eth0", "00:00:5e:00:53:76", "shop");
    }

    private void outside(String name, String address) {
        net.add(name);
        net.plug(name, "eth0", "", "out");
        net.ip(name, "addr add " + address + "/24 dev eth0");
        net.ip(name, "route add 10.80.0.0/16 via 198.51.100.2");
    }

    private String host(String name, String address, String mac, String bridge) {
        net.add(name);
        String port = net.plug(name, "eth0", mac, bridge);
        net.ip(name, "addr add " + address + "/24 dev eth0");
        net.ip(name, "route add default via " + address.replaceAll("\\d+$", "1"));
        return port;
    }

    /** Lines of the shell that put a rule before all that comes in. */
    static String rule(String rule) {
        return "nft add table inet t; nft 'add chain inet t in { type filter hook input priority 0; }'; nft 'add rule inet t in "
                + rule + "'";
    }

    static String drop(String what) {
        return rule(what + " drop");
    }

    Path write(String name, String text) {
        try {
            var path = files.resolve(name);
            Files.createDirectories(path.getParent());
            Files.writeString(path, text);
            return path;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void servers() {
        serve("terminal", "line", line(PORT, "I AM " + SERIAL));
        serve("other", "line", line(PORT, "I AM OC2-7H41-0055"));
        serve("partner", "test", "socat TCP-LISTEN:7500,fork,reuseaddr EXEC:" + test("10.80.16.54", PORT));
        for (String name : new String[] {"noecho", "reset", "mute"}) serve(name, "line", line(PORT, "WHO"));
        routerServices();
        serve(
                "names",
                "dns",
                "dnsmasq -k -u root --no-resolv --no-hosts --pid-file=/run/d.pid --host-record=pay.cards.example,198.51.100.80"
                        + " --host-record=mail.cards.example,198.51.100.25 --host-record=time.cards.example,198.51.100.123"
                        + " --dns-rr=.,2,0161013e00");
        certificates();
        serve("web", "pages", web("443", "right"));
        mail();
        time(OWN_TIME);
        copier("Idle", "");
        serve("copier", "raw", "socat -u TCP-LISTEN:9100,fork,reuseaddr OPEN:/dev/null,wronly");
        fileServer();
    }

    static String line(int port, String answer) {
        return "socat TCP-LISTEN:" + port + ",fork,reuseaddr SYSTEM:'read l; echo \"" + answer + "\"'";
    }

    /** The till's side: it calls the terminal that it is set up for, and says which serial it got. */
    private String test(String address, int port) {
        var path = write("partner-" + address + "-" + port, """
                #!/bin/bash
                read -r line
                if timeout 2 bash -c 'exec 3<>/dev/tcp/%s/%d || exit 1; echo WHO ARE YOU >&3; read -t 1 -r a <&3; [ -n "$a" ] && echo \
                "$a"' >/tmp/$$.a 2>/tmp/$$.e; then
                  a=$(cat /tmp/$$.a); case "$a" in "I AM "*) echo "REACHED ${a#I AM }";; *) echo "REFUSED: a strange answer";; esac
                elif grep -q refused /tmp/$$.e; then echo REFUSED; else echo NONE; fi
                rm -f /tmp/$$.a /tmp/$$.e
                """.formatted(address, port));
        path.toFile().setExecutable(true, false);
        return path.toString();
    }

    void routerServices() {
        routerServices("10.80.16.200,10.80.16.239", "");
    }

    /** Names and leases of the router; what is served otherwise than usual is served as usual again after. */
    void routerServices(String range, String more) {
        net.stop("router", "dns");
        String line =
                "dnsmasq -k -u root --no-resolv --no-hosts --pid-file=/run/d.pid --server=198.51.100.1 --cache-size=0"
                        + " --dhcp-range=" + range + ",255.255.255.0,1h --dhcp-leasefile=" + files + "/leases-"
                        + (more.isEmpty() ? "usual" : System.nanoTime())
                        + " --interface=shop --interface=office --bind-interfaces --dhcp-authoritative" + more;
        if (more.isEmpty()) serve("router", "dns", line);
        else net.serve("router", "dns", line);
    }

    /** A second box that hands out addresses, as a router does that was meant for its sockets only. */
    void secondServer() {
        net.add("second");
        net.plug("second", "eth0", "", "shop");
        net.ip("second", "addr add 192.168.77.1/24 dev eth0");
        net.serve(
                "second",
                "dhcp",
                "dnsmasq -k -u root --port=0 --no-ping --pid-file=/run/d2.pid "
                        + "--dhcp-range=192.168.77.100,192.168.77.200,1h --dhcp-leasefile="
                        + files + "/second --interface=eth0 --bind-interfaces");
        net.sh("second", "for n in $(seq 1 50); do ss -lun | grep -q ':67 ' && exit 0; sleep 0.1; done; exit 1");
    }

    /** Returns the address that a laptop on automatic gets at a socket of the shop, or that it gets none. */
    String lease(String mac) {
        var script = write("lease", "#!/bin/sh\n[ \"$1\" = bound ] && echo LEASE $ip\nexit 0\n");
        script.toFile().setExecutable(true, false);
        net.add("laptop");
        try {
            net.plug("laptop", "eth0", mac, "shop");
            return net.sh(
                            "laptop",
                            "timeout 20 udhcpc -f -n -q -i eth0 -t 8 -T 1 -s " + script + " 2>/dev/null || echo none")
                    .replaceAll("(?s).*LEASE (\\S+).*", "$1")
                    .strip();
        } finally {
            net.remove("laptop");
        }
    }

    // What faults do

    /** Gives the terminal another address, and a way out by the same gateway if that can be reached. */
    void terminal(String address) {
        net.ip("terminal", "-4 addr flush dev eth0");
        net.ip("terminal", "addr add " + address + " dev eth0");
        net.sh("terminal", "ip route replace default via 10.80.16.1 2>/dev/null || true");
    }

    void mac(String mac) {
        net.ip("terminal", "link set eth0 down");
        net.ip("terminal", "link set eth0 address " + mac);
        net.ip("terminal", "link set eth0 up");
        net.ip("terminal", "route replace default via 10.80.16.1");
        announce("terminal");
    }

    /** What starts anew tells everybody its address (RFC 5227, 2.3). */
    private void announce(String name) {
        net.sh(name, "arping -q -U -c 2 -w 2 -I eth0 10.80.16.54 || true");
    }

    /** Changes what the terminal's service says; nothing makes it hang up at once. */
    void says(String words) {
        net.stop("terminal", "line");
        net.serve(
                "terminal",
                "line",
                words.isEmpty() ? "socat TCP-LISTEN:" + PORT + ",fork,reuseaddr SYSTEM:'read l'" : line(PORT, words));
        listening("terminal", PORT);
    }

    void listening(String name, int port) {
        listening(name, "127.0.0.1", port);
    }

    private void listening(String name, String address, int port) {
        net.sh(
                name,
                "for n in $(seq 1 100); do timeout 1 bash -c 'exec 3<>/dev/tcp/" + address + "/" + port
                        + "' 2>/dev/null && exit 0; sleep 0.05; done; exit 1");
    }

    void partner(String address, int port) {
        net.stop("partner", "test");
        net.serve("partner", "test", "socat TCP-LISTEN:7500,fork,reuseaddr EXEC:" + test(address, port));
        listening("partner", 7500);
    }

    /** Somebody else takes the terminal's address. */
    void stranger() {
        net.add("stranger");
        net.plug("stranger", "eth0", STRANGER_MAC, "shop");
        net.ip("stranger", "addr add 10.80.16.54/24 dev eth0");
        net.ip("stranger", "route add default via 10.80.16.1");
        announce("stranger");
    }

    void pages(String certificate) {
        net.stop("web", "pages");
        net.serve("web", "pages", web("443", certificate));
        listening("web", 443);
    }

    void portalPages() {
        var config = nginx(
                "portal.conf",
                ("server { listen 8442 ssl; ssl_certificate %1$s/other.pem; ssl_certificate_key %1$s/other.key; location "
                                + "/ { return 200 'sign in'; } }")
                        .formatted(files));
        net.serve("router", "portal", "nginx -c " + config + " -e stderr");
    }

    void everyPort(String bridge, String state) {
        net.sh("switch", "for p in $(ls /sys/class/net/" + bridge + "/brif); do ip link set $p " + state + "; done");
    }

    static String forward(String rule) {
        return "nft add table inet f; nft 'add chain inet f f { type filter hook forward priority 0; }'; nft 'add rule inet f f "
                + rule + "'";
    }

    private void certificates() {
        String dir = files.toString();
        Namespaces.run("bash", "-c", """
                cd %s; set -e
                ec="-newkey ec -pkeyopt ec_paramgen_curve:P-256 -nodes"
                openssl req -x509 $ec -keyout ca.key -out ca.pem -days 60 -subj /CN=bed
                openssl req -x509 $ec -keyout other.key -out other.pem -days 60 -subj /CN=pay.cards.example -addext \
                subjectAltName=DNS:pay.cards.example
                make() { openssl req $ec -keyout $1.key -out $1.csr -subj /CN=$2
                  openssl x509 -req -in $1.csr -CA ca.pem -CAkey ca.key -CAcreateserial -days $3 -out $1.pem -extfile <(echo \
                  subjectAltName=DNS:$2); }
                make right pay.cards.example 60; make mail mail.cards.example 60; make misnamed www.else.example 60
                openssl req $ec -keyout expired.key -out expired.csr -subj /CN=pay.cards.example
                mkdir -p ca.d; : > ca.d/index; echo 01 > ca.d/serial
                printf '[ca]\\ndefault_ca=d\\n[d]\\ndatabase=ca.d/index\\nserial=ca.d/serial\\nnew_certs_dir=ca.d\\n\
                default_md=sha256\\npolicy=p\\nx509_extensions=x\\n[p]\\ncommonName=supplied\\n[x]\\n\
                subjectAltName=DNS:pay.cards.example\\n' > ca.cnf
                openssl ca -batch -config ca.cnf -cert ca.pem -keyfile ca.key -in expired.csr -out expired.pem -startdate \
                20200101000000Z -enddate 20210101000000Z -notext
                chmod 600 *.key
                keytool -importcert -noprompt -alias bed -file ca.pem -keystore trust.p12 -storepass changeit -storetype PKCS12
                """.formatted(dir));
    }

    private String web(String port, String certificate) {
        var servers = new StringBuilder();
        String[][] all = {{port, certificate}, {"8441", "expired"}, {"8442", "other"}, {"8443", "misnamed"}};
        for (String[] one : all)
            servers.append(
                    ("server { listen %s ssl; ssl_certificate %s/%s.pem; ssl_certificate_key %s/%s.key; location / { "
                                    + "return 200 'ok'; } location /forbidden { return 403; } location /broken { return 503; } "
                                    + "location /signin { return 401; } }\n")
                            .formatted(one[0], files, one[1], files, one[1]));
        return "nginx -c "
                + nginx(certificate + ".conf", "server { listen 80; location / { return 200 'ok'; } }\n" + servers)
                + " -e stderr";
    }

    private Path nginx(String name, String servers) {
        return write(name, """
                daemon off; pid /run/nginx.pid; error_log stderr; events {}
                http { access_log off; client_body_temp_path /run/b; proxy_temp_path /run/p; fastcgi_temp_path /run/f; uwsgi_temp_path \
                /run/u; scgi_temp_path /run/s;
                %s}
                """.formatted(servers));
    }

    private void mail() {
        mail("accept");
    }

    /** A relay with its rule for whoever calls: accept, defer (puts off) or deny. */
    void mail(String rule) {
        net.stop("mail", "mail");
        var config = write("exim.conf", """
                exim_user = root
                spool_directory = %1$s/exim
                log_file_path = %1$s/exim-%%slog
                pid_file_path = /run/exim.pid
                local_interfaces = 198.51.100.25
                daemon_smtp_ports = 25 : 465 : 587
                tls_on_connect_ports = 465
                tls_advertise_hosts = ${if eq{$received_port}{25}{}{*}}
                tls_certificate = %1$s/mail.pem
                tls_privatekey = %1$s/mail.key
                acl_smtp_connect = by_rule
                acl_smtp_rcpt = to_us
                host_lookup =
                rfc1413_query_timeout = 0s
                begin acl
                by_rule:
                %2$s
                to_us:
                deny recipients = nobody@cards.example
                message = nobody reads that here
                accept domains = cards.example
                deny message = relay not permitted
                begin routers
                all:
                driver = accept
                transport = box
                begin transports
                box:
                driver = appendfile
                envelope_to_add
                file = %1$s/boxes/all
                user = nobody
                group = nogroup
                begin authenticators
                plain:
                driver = plaintext
                public_name = PLAIN
                server_prompts = :
                server_condition = no
                server_advertise_condition = ${if def:tls_in_cipher}
                """.formatted(files, rule));
        serve("mail", "mail", "exim4 -bdf -C " + config);
        listening("mail", "198.51.100.25", 25);
    }

    /** What the relay put into its box, for whomever; waits until something lies there. */
    String box() throws IOException, InterruptedException {
        var box = files.resolve("boxes/all");
        for (int n = 0; n < 100 && !Files.exists(box); n++) Thread.sleep(100);
        if (!Files.exists(box)) throw new AssertionError(Files.readString(files.resolve("exim-mainlog")));
        Thread.sleep(200);
        return Files.readString(box);
    }

    /** Keeps the time without ever setting this machine's clock. */
    void time(String source) {
        net.stop("time", "time");
        var config =
                write("chrony.conf", source + "allow 0.0.0.0/0\ncmdport 0\npidfile /run/c.pid\ndriftfile /run/drift\n");
        serve("time", "time", "chronyd -x -d -u root -f " + config);
    }

    /** A printer with its queue in a state, such as Idle or Stopped, and a reason for it. */
    void copier(String state, String reason) {
        net.stop("copier", "ipp");
        for (String d : new String[] {"spool", "cache", "state", "tmp"})
            files.resolve("cups/" + d).toFile().mkdirs();
        write("cups/etc/printers.conf", """
                <Printer Copier>
                DeviceURI file:///dev/null
                State %s
                %sAccepting Yes
                Shared Yes
                </Printer>
                """.formatted(state, reason.isEmpty() ? "" : "Reason " + reason + "\n"));
        write("cups/cupsd.conf", """
                Listen 10.80.16.60:631
                ServerAlias *
                WebInterface No
                DefaultAuthType None
                LogLevel warn
                MaxLogSize 0
                <Location />
                Order allow,deny
                Allow all
                </Location>
                """);
        write("cups/cups-files.conf", """
                ServerRoot %1$s/cups/etc
                RequestRoot %1$s/cups/spool
                CacheDir %1$s/cups/cache
                StateDir %1$s/cups/state
                TempDir %1$s/cups/tmp
                FileDevice Yes
                ErrorLog stderr
                AccessLog %1$s/cups/access
                PageLog %1$s/cups/page
                """.formatted(files));
        serve("copier", "ipp", "cupsd -f -c " + files + "/cups/cupsd.conf -s " + files + "/cups/cups-files.conf");
        listening("copier", "10.80.16.60", 631);
    }

    /** The router tells of itself, and the switch of its bridge as the kernel keeps it (RFC 4188). */
    void agents() {
        net.ip("switch", "addr add 10.80.16.2/24 dev shop");
        var rows = write("bridge-rows", """
                # The rows of the bridge in the order of their identifiers: so that they sort, identifier, type, value.
                pad() { echo "a$1" | awk -F. '{ o = $1; for (i = 2; i <= NF; i++) o = o sprintf("%010d", $i); print o }'; }
                row() { echo "$(pad $1) $1 integer $2"; }
                B=.1.3.6.1.2.1.17
                for p in /sys/class/net/shop/brif/*; do
                  row $B.1.4.1.2.$(($(cat $p/port_no))) $(cat /sys/class/net/${p##*/}/ifindex)
                done > $0.all
                bridge fdb show br shop | while read mac dev port rest; do
                  [ -e /sys/class/net/shop/brif/$port ] || continue
                  i=$(echo $mac | tr : ' ' | { read a b c d e f; printf '%d.%d.%d.%d.%d.%d' 0x$a 0x$b 0x$c 0x$d 0x$e 0x$f; })
                  row $B.4.3.1.2.$i $(($(cat /sys/class/net/shop/brif/$port/port_no)))
                  case "$rest" in *permanent*) row $B.4.3.1.3.$i 4 ;; *) row $B.4.3.1.3.$i 3 ;; esac
                done >> $0.all
                sort -u $0.all > $0.sorted
                """);
        net.sh("switch", "sh " + rows);
        var pass = write("bridge", """
                #!/bin/sh
                at=$(echo "a$2" | awk -F. '{ o = $1; for (i = 2; i <= NF; i++) o = o sprintf("%%010d", $i); print o }')
                awk -v at="$at" -v ask="$1" '(ask == "-n" ? $1 > at : $1 == at) { print $2; print $3; print $4; exit }' %s.sorted
                """.formatted(rows));
        pass.toFile().setExecutable(true, false);
        agent("router", "10.80.16.1", "");
        agent("switch", "10.80.16.2", "pass .1.3.6.1.2.1.17 " + pass + "\n");
    }

    private void agent(String name, String address, String more) {
        var config = write("snmpd-" + name + ".conf", """
                rocommunity shopwords
                createUser reader SHA correcthorse AES batterystaple
                rouser reader authpriv
                %s""".formatted(more));
        net.serve(
                name,
                "agent",
                "env SNMP_PERSISTENT_DIR=" + files + "/snmp-" + name + " snmpd -f -Lo -C -c " + config
                        + " -p /run/snmpd.pid udp:" + address + ":161");
        net.sh(name, "for n in $(seq 1 50); do ss -lun | grep -q ':161 ' && exit 0; sleep 0.1; done; exit 1");
    }

    private void fileServer() {
        var config = write("smb.conf", """
                [global]
                workgroup = SHOP
                private dir = %1$s/smb
                lock directory = %1$s/smb
                state directory = %1$s/smb
                cache directory = %1$s/smb
                pid directory = /run
                ncalrpc dir = /run/ncalrpc
                log file = %1$s/smb/log
                disable netbios = yes
                smb ports = 445
                [scans]
                path = %1$s
                """.formatted(files));
        files.resolve("smb").toFile().mkdirs();
        serve("files", "smb", "smbd -F --no-process-group -s " + config);
    }

    @Override
    public void close() throws IOException {
        net.close();
        try (Stream<Path> all = Files.walk(files)) {
            all.sorted(Comparator.reverseOrder()).forEach(p -> p.toFile().delete());
        }
    }
}
