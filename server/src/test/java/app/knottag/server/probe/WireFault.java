package app.knottag.server.probe;

import static app.knottag.core.reach.Cause.*;

import app.knottag.core.reach.Cause;
import java.util.List;
import java.util.function.Consumer;

/**
 * Faults that are made for real: cables, addresses, masks, routes, rules, servers. Each says which cause it is, in which of
 * that cause's ways, and what somebody who stands there sees of it beyond the usual.
 */
enum WireFault {
    WELL(b -> {}, NOTHING, 0, ""),
    ECHOES_OFF(b -> b.net.sh("terminal", Bed.drop("icmp type echo-request")), NOTHING, 0, ""),
    UNPLUGGED(
            b -> b.net.ip("switch", "link set " + b.terminalPort + " down"),
            CABLE_OUT_AT_DEVICE,
            0,
            "LINK=dark SWITCH_LIGHT=dark PLUGS=at-device OTHER_LEAD=yes REAL_JOB=fails OUTSIDE=no NAMES=not-found DEVICE_TEST=fails"),
    SWITCHED_OFF(
            b -> b.net.ip("terminal", "link set eth0 down"),
            NO_POWER,
            0,
            "POWER=off LINK=dark SWITCH_LIGHT=dark ADDRESS_SHOWN=nothing REAL_JOB=fails DEVICE_TEST=fails OTHER_SOCKET=dark"),
    PORT_SHUT(
            b -> b.net.ip("switch", "link set " + b.terminalPort + " nomaster"),
            PORT_TAGGED,
            0,
            "PORT_PAGE=tagged LAPTOP_LEASE=self TRY_AUTOMATIC=self REAL_JOB=fails OUTSIDE=no NAMES=not-found DEVICE_TEST=fails RESTART_PING=silent"),
    OTHER_VLAN(
            b -> b.net.ip("switch", "link set " + b.terminalPort + " master office"),
            OUTLET_IN_OTHER_SEGMENT,
            0,
            "PORT_PAGE=other-network LAPTOP_LEASE=foreign TRY_AUTOMATIC=foreign REAL_JOB=fails OUTSIDE=no NAMES=not-found DEVICE_TEST=fails RESTART_PING=silent"),
    LOCKED_PORT(
            b -> b.net.sh(
                    "switch",
                    "nft add table bridge t; nft 'add chain bridge t f { type filter hook prerouting priority 0; }'; nft 'add rule bridge t f ether saddr "
                            + Bed.TERMINAL_MAC + " drop'"),
            PORT_SECURITY,
            0,
            "PORT_PAGE=locked TRY_AUTOMATIC=self LAPTOP_LEASE=self REAL_JOB=fails OUTSIDE=no NAMES=not-found DEVICE_TEST=fails RESTART_PING=silent"),
    ON_AUTOMATIC(
            b -> b.terminal("10.80.16.231/24"),
            STILL_AUTOMATIC,
            0,
            "ADDRESS_SHOWN=pool FIELDS=automatic AFTER_RESTART=pool RESTART_PING=silent REAL_JOB=fails DEVICE_TEST=fails"),
    SLIP_NEAR(
            b -> b.terminal("10.80.16.45/24"),
            ADDRESS_SLIP,
            1,
            "ADDRESS_SHOWN=slip FIELDS=address AFTER_RESTART=slip RESTART_PING=silent REAL_JOB=fails DEVICE_TEST=fails"),
    SLIP_FAR(
            b -> b.terminal("10.80.61.54/24"),
            ADDRESS_SLIP,
            0,
            "ADDRESS_SHOWN=slip FIELDS=address AFTER_RESTART=slip RESTART_PING=silent REAL_JOB=fails DEVICE_TEST=fails OUTSIDE=no NAMES=not-found"),
    MASK_28(
            b -> b.terminal("10.80.16.54/28"),
            MASK_WRONG,
            0,
            "FIELDS=mask REAL_JOB=fails DEVICE_TEST=fails OUTSIDE=no NAMES=not-found RESTART_PING=silent"),
    MASK_25(b -> b.terminal("10.80.16.54/25"), MASK_WRONG, 1, "FIELDS=mask"),
    MASK_30(
            b -> b.terminal("10.80.16.54/30"),
            MASK_WRONG,
            2,
            "FIELDS=mask REAL_JOB=fails DEVICE_TEST=fails OUTSIDE=no NAMES=not-found RESTART_PING=silent"),
    MASK_16(b -> b.terminal("10.80.16.54/16"), MASK_WRONG, 3, "FIELDS=mask"),
    GATEWAY_SLIP(
            b -> b.net.ip("terminal", "route replace default via 10.80.16.11"),
            GATEWAY_WRONG,
            0,
            "FIELDS=gateway REAL_JOB=fails OUTSIDE=no NAMES=found"),
    NO_GATEWAY(
            b -> b.net.ip("terminal", "route del default"),
            GATEWAY_WRONG,
            2,
            "FIELDS=gateway REAL_JOB=fails OUTSIDE=no"),
    RESOLVER_SLIP(b -> {}, RESOLVER_WRONG, 0, "FIELDS=resolver NAMES=not-found REAL_JOB=fails"),
    NO_RESOLVER(b -> {}, RESOLVER_MISSING, 0, "FIELDS=no-resolver NAMES=not-found REAL_JOB=fails"),
    ROUTER_OFF(
            b -> b.net.sh("router", "ip link set shop down; ip link set office down; ip link set wan down"),
            GATEWAY_DOWN,
            0,
            "OUTSIDE=no OTHERS_OUTSIDE=no NAMES=not-found BROWSE=nothing LARGE=stop OTHERS_HERE=none-at-all REAL_JOB=fails"),
    LINE_CUT(
            b -> b.net.ip("router", "link set wan down"),
            UPLINK_DOWN,
            0,
            "OUTSIDE=no OTHERS_OUTSIDE=no NAMES=not-found BROWSE=nothing LARGE=stop OTHERS_HERE=none-at-all REAL_JOB=fails"),
    NAMES_OFF(b -> b.net.stop("router", "dns"), RESOLVER_DOWN, 0, "NAMES=not-found BROWSE=nothing REAL_JOB=fails"),
    NAMES_OVER_TCP_ONLY(Bed::namesOverTcpOnly, RESOLVER_DOWN, 1, "NAMES=not-found BROWSE=nothing REAL_JOB=fails"),
    SERVICE_STOPPED(b -> b.net.stop("terminal", "line"), SERVICE_OFF, 0, "REAL_JOB=fails"),
    PORT_SLIP(
            b -> {
                b.net.stop("terminal", "line");
                b.net.serve("terminal", "line", Bed.line(Bed.PORT + 1, "I AM " + Bed.SERIAL));
                b.listening("terminal", Bed.PORT + 1);
            },
            OTHER_PORT,
            0,
            "FIELDS=port REAL_JOB=fails"),
    FIREWALL_DROPS(b -> b.net.sh("terminal", Bed.drop("tcp dport 7454")), DEVICE_FIREWALL, 0, "REAL_JOB=fails"),
    FIREWALL_RESETS(
            b -> b.net.sh("terminal", Bed.rule("tcp dport 7454 reject with tcp reset")),
            DEVICE_FIREWALL,
            1,
            "REAL_JOB=fails"),
    FIREWALL_BARS(
            b -> b.net.sh("terminal", Bed.rule("tcp dport 7454 reject with icmp type admin-prohibited")),
            DEVICE_FIREWALL,
            2,
            "REAL_JOB=fails"),
    FIREWALL_DROPS_ALL(b -> b.net.sh("terminal", Bed.rule("ct state new drop")), DEVICE_FIREWALL, 3, "REAL_JOB=fails"),
    DUPLICATE(
            b -> b.stranger(),
            HELD_BY_NEWER,
            0,
            "PULL=answers REAL_JOB=fails DEVICE_TEST=fails OUTSIDE=no NAMES=not-found"),
    TAKEN(
            b -> {
                b.net.ip("terminal", "-4 addr flush dev eth0");
                b.stranger();
            },
            HELD_BY_OLDER,
            0,
            "ADDRESS_SHOWN=in-use PULL=answers AFTER_RESTART=in-use REAL_JOB=fails DEVICE_TEST=fails OUTSIDE=no NAMES=not-found"),
    OTHER_UNIT(
            b -> {
                b.mac("00:00:5e:00:53:77");
                b.says("I AM OC2-7H41-0011");
            },
            WRONG_UNIT,
            0,
            "LABEL=other REAL_JOB=fails"),
    NEW_CARD(b -> b.mac(Bed.NEXT_MAC), OTHER_INTERFACE_ON_RECORD, 0, ""),
    OTHER_MODEL(b -> b.says("HELLO"), WRONG_VARIANT, 0, "MODEL=other REAL_JOB=fails"),
    HANGS_UP(b -> b.says(""), ALLOW_LIST, 0, "REAL_JOB=fails"),
    SERVICE_HANGS(
            b -> b.net.signal("terminal", "STOP"),
            HUNG,
            0,
            "SCREEN=frozen REAL_JOB=fails OUTSIDE=no NAMES=not-found DEVICE_TEST=fails"),
    SLEEPS(
            b -> b.net.sh(
                    "terminal",
                    "nft add table netdev t; nft 'add chain netdev t i { type filter hook ingress device eth0 priority 0; }'; nft 'add rule netdev t i drop'"),
            ASLEEP,
            0,
            "SCREEN=asleep REAL_JOB=fails OUTSIDE=no NAMES=not-found DEVICE_TEST=fails"),
    PARTNER_OFF(
            b -> b.net.ip("partner", "link set eth0 down"),
            PARTNER_DOWN,
            0,
            "PARTNER_FIELDS=off DEVICE_TEST=fails PARTNER_ANEW=reaches REAL_JOB=fails"),
    PARTNER_ASKS_ELSEWHERE(
            b -> b.partner("10.80.16.98", Bed.PORT),
            PARTNER_POINTS_ELSEWHERE,
            0,
            "PARTNER_FIELDS=address PARTNER_ANEW=still-not REAL_JOB=fails"),
    PARTNER_ASKS_OTHER_PORT(
            b -> b.partner("10.80.16.54", Bed.PORT + 2),
            PARTNER_OTHER_PORT,
            0,
            "PARTNER_FIELDS=port PARTNER_ANEW=still-not REAL_JOB=fails"),
    CROSSED(
            b -> b.partner("10.80.16.55", Bed.PORT),
            CROSSED_PAIR,
            0,
            "PAIR_NAME=other DEVICE_TEST=fails PARTNER_ANEW=still-not REAL_JOB=fails"),
    OLD_ENTRY(
            b -> b.net.ip("partner", "neigh replace 10.80.16.54 lladdr 00:00:5e:00:53:ff nud permanent dev eth0"),
            STALE_NEIGHBOUR,
            0,
            "DEVICE_TEST=fails REAL_JOB=fails"),
    SERVER_REFUSES(b -> b.net.stop("web", "pages"), SERVER_DOWN, 1, "SERVICE_WORD=down REAL_JOB=fails"),
    SERVER_SILENT(b -> b.net.sh("web", Bed.rule("drop")), SERVER_DOWN, 0, "SERVICE_WORD=down REAL_JOB=fails"),
    EXPIRED(b -> b.pages("expired"), CERTIFICATE, 0, "REAL_JOB=certificate"),
    OUTBOUND_DROPPED(
            b -> b.net.sh("router", Bed.forward("oifname wan tcp dport 443 drop")),
            SITE_FIREWALL,
            0,
            "RULES=outside OTHER_LINE=yes REAL_JOB=fails"),
    OUTBOUND_BARRED(
            b -> b.net.sh("router", Bed.forward("oifname wan tcp dport 443 reject with icmp type admin-prohibited")),
            SITE_FIREWALL,
            1,
            "RULES=outside OTHER_LINE=yes REAL_JOB=fails"),
    OUTBOUND_RESET(
            b -> b.net.sh("router", Bed.forward("oifname wan tcp dport 443 reject with tcp reset")),
            SITE_FIREWALL,
            2,
            "RULES=outside OTHER_LINE=yes REAL_JOB=fails"),
    SMALL_FRAMES(
            b -> {
                b.net.ip("router", "link set wan mtu 600");
                b.net.sh(
                        "router",
                        "nft add table inet o; nft 'add chain inet o o { type filter hook output priority 0; }'; nft 'add rule inet o o icmp type destination-unreachable drop'");
                b.net.sh(
                        "web",
                        "nft add table inet o; nft 'add chain inet o o { type filter hook output priority 0; }'; nft 'add rule inet o o meta length > 600 drop'");
            },
            SMALL_PACKETS,
            0,
            "LARGE=stop OTHER_LINE=yes REAL_JOB=fails"),
    SIGN_IN_PAGE(
            b -> {
                b.portalPages();
                b.net.sh(
                        "router",
                        "nft add table ip n; nft 'add chain ip n p { type nat hook prerouting priority -100; }'; nft 'add rule ip n p tcp dport 443 redirect to :8442'");
            },
            PORTAL,
            0,
            "BROWSE=portal OUTSIDE=no OTHERS_OUTSIDE=no OTHER_LINE=yes REAL_JOB=fails"),
    LOSES_PACKETS(
            b -> b.net.sh("terminal", Bed.rule("icmp type echo-request numgen inc mod 3 0 drop")),
            DUPLEX,
            0,
            "PORT_PAGE=errors REAL_JOB=fails"),
    SWITCH_OFF(
            b -> b.everyPort("shop", "down"),
            SWITCH_DEAD,
            1,
            "OTHERS_HERE=none-on-switch LINK=dark SWITCH_LIGHT=dark OTHER_SOCKET=dark REAL_JOB=fails OUTSIDE=no OTHERS_OUTSIDE=no NAMES=not-found DEVICE_TEST=fails"),
    SWITCH_LEAD_OUT(
            b -> b.net.sh(
                    "switch",
                    "ip link set " + b.terminalPort + " master nowhere; ip link set " + b.partnerPort
                            + " master nowhere"),
            SWITCH_CUT_OFF,
            0,
            "OTHERS_HERE=none-on-switch REAL_JOB=fails OUTSIDE=no OTHERS_OUTSIDE=no NAMES=not-found TRY_AUTOMATIC=self LAPTOP_LEASE=self RESTART_PING=silent BROWSE=nothing"),
    NEW_ROUTER(
            b -> {
                b.net.ip("router", "addr flush dev shop");
                b.net.ip("router", "addr add 192.168.7.1/24 dev shop");
                b.net.stop("router", "dns");
            },
            ROUTER_REPLACED,
            0,
            "ROUTER=other OUTSIDE=no OTHERS_OUTSIDE=no NAMES=not-found BROWSE=nothing LARGE=stop OTHERS_HERE=none-at-all TRY_AUTOMATIC=foreign LAPTOP_LEASE=foreign REAL_JOB=fails"),
    KEPT_APART(
            b -> {
                for (String port : List.of(b.terminalPort, b.herePort, b.partnerPort))
                    b.net.sh("switch", "bridge link set dev " + port + " isolated on");
            },
            WIRELESS_APART,
            0,
            "DEVICE_TEST=fails REAL_JOB=fails"),
    LOOKED_FROM_ELSEWHERE(
            b -> {
                b.net.ip("switch", "link set " + b.herePort + " master guest");
                b.net.ip("here", "-4 addr flush dev eth0");
                b.net.ip("here", "addr add 192.168.44.7/24 dev eth0");
            },
            OWN_VANTAGE,
            1,
            "");

    private final Consumer<Bed> make;
    final Cause cause;
    final int way;
    final String eyes;

    WireFault(Consumer<Bed> make, Cause cause, int way, String eyes) {
        this.make = make;
        this.cause = cause;
        this.way = way;
        this.eyes = eyes;
    }

    void make(Bed bed) {
        make.accept(bed);
    }
}
