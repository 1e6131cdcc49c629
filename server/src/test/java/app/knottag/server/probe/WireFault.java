package app.knottag.server.probe;

import static app.knottag.core.reach.Fault.*;

import app.knottag.core.reach.Fault;
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
            "LINK=DARK SWITCH_LIGHT=DARK PLUGS=AT_DEVICE OTHER_LEAD=YES REAL_JOB=FAILS OUTSIDE=NO NAMES=NOT_FOUND DEVICE_TEST=FAILS"),
    SWITCHED_OFF(
            b -> b.net.ip("terminal", "link set eth0 down"),
            NO_POWER,
            0,
            "POWER=OFF LINK=DARK SWITCH_LIGHT=DARK ADDRESS_SHOWN=NOTHING REAL_JOB=FAILS DEVICE_TEST=FAILS OTHER_SOCKET=DARK"),
    PORT_SHUT(
            b -> b.net.ip("switch", "link set " + b.terminalPort + " nomaster"),
            PORT_TAGGED,
            0,
            "PORT_PAGE=TAGGED LAPTOP_LEASE=SELF TRY_AUTOMATIC=SELF REAL_JOB=FAILS OUTSIDE=NO NAMES=NOT_FOUND "
                    + "DEVICE_TEST=FAILS RESTART_PING=SILENT"),
    OTHER_VLAN(
            b -> b.net.ip("switch", "link set " + b.terminalPort + " master office"),
            OUTLET_IN_OTHER_SEGMENT,
            0,
            "PORT_PAGE=OTHER_NETWORK LAPTOP_LEASE=FOREIGN TRY_AUTOMATIC=FOREIGN REAL_JOB=FAILS OUTSIDE=NO "
                    + "NAMES=NOT_FOUND DEVICE_TEST=FAILS RESTART_PING=SILENT"),
    LOCKED_PORT(
            b -> b.net.sh(
                    "switch",
                    "nft add table bridge t; nft 'add chain bridge t f { type filter hook prerouting priority 0; }'; "
                            + "nft 'add rule bridge t f ether saddr "
                            + Bed.TERMINAL_MAC + " drop'"),
            PORT_SECURITY,
            0,
            "PORT_PAGE=LOCKED TRY_AUTOMATIC=SELF LAPTOP_LEASE=SELF REAL_JOB=FAILS OUTSIDE=NO NAMES=NOT_FOUND "
                    + "DEVICE_TEST=FAILS RESTART_PING=SILENT"),
    ON_AUTOMATIC(
            b -> b.terminal("10.80.16.231/24"),
            STILL_AUTOMATIC,
            0,
            "ADDRESS_SHOWN=POOL FIELDS=AUTOMATIC AFTER_RESTART=POOL RESTART_PING=SILENT REAL_JOB=FAILS DEVICE_TEST=FAILS"),
    SLIP_NEAR(
            b -> b.terminal("10.80.16.45/24"),
            ADDRESS_SLIP,
            1,
            "ADDRESS_SHOWN=SLIP FIELDS=ADDRESS AFTER_RESTART=SLIP RESTART_PING=SILENT REAL_JOB=FAILS DEVICE_TEST=FAILS"),
    SLIP_FAR(
            b -> b.terminal("10.80.61.54/24"),
            ADDRESS_SLIP,
            0,
            "ADDRESS_SHOWN=SLIP FIELDS=ADDRESS AFTER_RESTART=SLIP RESTART_PING=SILENT REAL_JOB=FAILS DEVICE_TEST=FAILS "
                    + "OUTSIDE=NO NAMES=NOT_FOUND"),
    MASK_28(
            b -> b.terminal("10.80.16.54/28"),
            MASK_WRONG,
            0,
            "FIELDS=MASK REAL_JOB=FAILS DEVICE_TEST=FAILS OUTSIDE=NO NAMES=NOT_FOUND RESTART_PING=SILENT"),
    MASK_25(b -> b.terminal("10.80.16.54/25"), MASK_WRONG, 1, "FIELDS=MASK"),
    MASK_30(
            b -> b.terminal("10.80.16.54/30"),
            MASK_WRONG,
            2,
            "FIELDS=MASK REAL_JOB=FAILS DEVICE_TEST=FAILS OUTSIDE=NO NAMES=NOT_FOUND RESTART_PING=SILENT"),
    MASK_16(b -> b.terminal("10.80.16.54/16"), MASK_WRONG, 3, "FIELDS=MASK"),
    GATEWAY_SLIP(
            b -> b.net.ip("terminal", "route replace default via 10.80.16.11"),
            GATEWAY_WRONG,
            0,
            "FIELDS=GATEWAY REAL_JOB=FAILS OUTSIDE=NO NAMES=FOUND"),
    NO_GATEWAY(
            b -> b.net.ip("terminal", "route del default"),
            GATEWAY_WRONG,
            2,
            "FIELDS=GATEWAY REAL_JOB=FAILS OUTSIDE=NO"),
    RESOLVER_SLIP(b -> {}, RESOLVER_WRONG, 0, "FIELDS=RESOLVER NAMES=NOT_FOUND REAL_JOB=FAILS"),
    NO_RESOLVER(b -> {}, RESOLVER_MISSING, 0, "FIELDS=NO_RESOLVER NAMES=NOT_FOUND REAL_JOB=FAILS"),
    ROUTER_OFF(
            b -> b.net.sh("router", "ip link set shop down; ip link set office down; ip link set wan down"),
            GATEWAY_DOWN,
            0,
            "OUTSIDE=NO OTHERS_OUTSIDE=NO NAMES=NOT_FOUND BROWSE=NOTHING LARGE=STOP OTHERS_HERE=NONE_AT_ALL REAL_JOB=FAILS"),
    LINE_CUT(
            b -> b.net.ip("router", "link set wan down"),
            UPLINK_DOWN,
            0,
            "OUTSIDE=NO OTHERS_OUTSIDE=NO NAMES=NOT_FOUND BROWSE=NOTHING LARGE=STOP OTHERS_HERE=NONE_AT_ALL REAL_JOB=FAILS"),
    NAMES_OFF(b -> b.net.stop("router", "dns"), RESOLVER_DOWN, 0, "NAMES=NOT_FOUND BROWSE=NOTHING REAL_JOB=FAILS"),
    NAMES_OVER_TCP_ONLY(Bed::namesOverTcpOnly, RESOLVER_DOWN, 1, "NAMES=NOT_FOUND BROWSE=NOTHING REAL_JOB=FAILS"),
    SERVICE_STOPPED(b -> b.net.stop("terminal", "line"), SERVICE_OFF, 0, "REAL_JOB=FAILS"),
    PORT_SLIP(
            b -> {
                b.net.stop("terminal", "line");
                b.net.serve("terminal", "line", Bed.line(Bed.PORT + 1, "I AM " + Bed.SERIAL));
                b.listening("terminal", Bed.PORT + 1);
            },
            OTHER_PORT,
            0,
            "FIELDS=PORT REAL_JOB=FAILS"),
    FIREWALL_DROPS(b -> b.net.sh("terminal", Bed.drop("tcp dport 7454")), DEVICE_FIREWALL, 0, "REAL_JOB=FAILS"),
    FIREWALL_RESETS(
            b -> b.net.sh("terminal", Bed.rule("tcp dport 7454 reject with tcp reset")),
            DEVICE_FIREWALL,
            1,
            "REAL_JOB=FAILS"),
    FIREWALL_BARS(
            b -> b.net.sh("terminal", Bed.rule("tcp dport 7454 reject with icmp type admin-prohibited")),
            DEVICE_FIREWALL,
            2,
            "REAL_JOB=FAILS"),
    FIREWALL_DROPS_ALL(b -> b.net.sh("terminal", Bed.rule("ct state new drop")), DEVICE_FIREWALL, 3, "REAL_JOB=FAILS"),
    DUPLICATE(
            b -> b.stranger(),
            HELD_BY_NEWER,
            0,
            "PULL=ANSWERS REAL_JOB=FAILS DEVICE_TEST=FAILS OUTSIDE=NO NAMES=NOT_FOUND"),
    TAKEN(
            b -> {
                b.net.ip("terminal", "-4 addr flush dev eth0");
                b.stranger();
            },
            HELD_BY_OLDER,
            0,
            "ADDRESS_SHOWN=IN_USE PULL=ANSWERS AFTER_RESTART=IN_USE REAL_JOB=FAILS DEVICE_TEST=FAILS OUTSIDE=NO NAMES=NOT_FOUND"),
    OTHER_UNIT(
            b -> {
                b.mac("00:00:5e:00:53:77");
                b.says("I AM OC2-7H41-0011");
            },
            WRONG_UNIT,
            0,
            "LABEL=OTHER REAL_JOB=FAILS"),
    NEW_CARD(b -> b.mac(Bed.NEXT_MAC), OTHER_INTERFACE_ON_RECORD, 0, ""),
    OTHER_MODEL(b -> b.says("HELLO"), WRONG_VARIANT, 0, "MODEL=OTHER REAL_JOB=FAILS"),
    HANGS_UP(b -> b.says(""), ALLOW_LIST, 0, "REAL_JOB=FAILS"),
    SERVICE_HANGS(
            b -> b.net.signal("terminal", "STOP"),
            HUNG,
            0,
            "SCREEN=FROZEN REAL_JOB=FAILS OUTSIDE=NO NAMES=NOT_FOUND DEVICE_TEST=FAILS"),
    SLEEPS(
            b -> b.net.sh(
                    "terminal",
                    "nft add table netdev t; nft 'add chain netdev t i { type filter hook ingress device eth0 priority "
                            + "0; }'; nft 'add rule netdev t i drop'"),
            ASLEEP,
            0,
            "SCREEN=ASLEEP REAL_JOB=FAILS OUTSIDE=NO NAMES=NOT_FOUND DEVICE_TEST=FAILS"),
    PARTNER_OFF(
            b -> b.net.ip("partner", "link set eth0 down"),
            PARTNER_DOWN,
            0,
            "PARTNER_FIELDS=OFF DEVICE_TEST=FAILS PARTNER_ANEW=REACHES REAL_JOB=FAILS"),
    PARTNER_ASKS_ELSEWHERE(
            b -> b.partner("10.80.16.98", Bed.PORT),
            PARTNER_POINTS_ELSEWHERE,
            0,
            "PARTNER_FIELDS=ADDRESS PARTNER_ANEW=STILL_NOT REAL_JOB=FAILS"),
    PARTNER_ASKS_OTHER_PORT(
            b -> b.partner("10.80.16.54", Bed.PORT + 2),
            PARTNER_OTHER_PORT,
            0,
            "PARTNER_FIELDS=PORT PARTNER_ANEW=STILL_NOT REAL_JOB=FAILS"),
    CROSSED(
            b -> b.partner("10.80.16.55", Bed.PORT),
            CROSSED_PAIR,
            0,
            "PAIR_NAME=OTHER DEVICE_TEST=FAILS PARTNER_ANEW=STILL_NOT REAL_JOB=FAILS"),
    OLD_ENTRY(
            b -> b.net.ip("partner", "neigh replace 10.80.16.54 lladdr 00:00:5e:00:53:ff nud permanent dev eth0"),
            STALE_NEIGHBOUR,
            0,
            "DEVICE_TEST=FAILS REAL_JOB=FAILS"),
    SERVER_REFUSES(b -> b.net.stop("web", "pages"), SERVER_DOWN, 1, "SERVICE_WORD=DOWN REAL_JOB=FAILS"),
    SERVER_SILENT(b -> b.net.sh("web", Bed.rule("drop")), SERVER_DOWN, 0, "SERVICE_WORD=DOWN REAL_JOB=FAILS"),
    EXPIRED(b -> b.pages("expired"), CERTIFICATE, 0, "REAL_JOB=CERTIFICATE"),
    OUTBOUND_DROPPED(
            b -> b.net.sh("router", Bed.forward("oifname wan tcp dport 443 drop")),
            SITE_FIREWALL,
            0,
            "RULES=OUTSIDE OTHER_LINE=YES REAL_JOB=FAILS"),
    OUTBOUND_BARRED(
            b -> b.net.sh("router", Bed.forward("oifname wan tcp dport 443 reject with icmp type admin-prohibited")),
            SITE_FIREWALL,
            1,
            "RULES=OUTSIDE OTHER_LINE=YES REAL_JOB=FAILS"),
    OUTBOUND_RESET(
            b -> b.net.sh("router", Bed.forward("oifname wan tcp dport 443 reject with tcp reset")),
            SITE_FIREWALL,
            2,
            "RULES=OUTSIDE OTHER_LINE=YES REAL_JOB=FAILS"),
    SMALL_FRAMES(
            b -> {
                b.net.ip("router", "link set wan mtu 600");
                b.net.sh(
                        "router",
                        "nft add table inet o; nft 'add chain inet o o { type filter hook output priority 0; }'; nft "
                                + "'add rule inet o o icmp type destination-unreachable drop'");
                b.net.sh(
                        "web",
                        "nft add table inet o; nft 'add chain inet o o { type filter hook output priority 0; }'; nft "
                                + "'add rule inet o o meta length > 600 drop'");
            },
            SMALL_PACKETS,
            0,
            "LARGE=STOP OTHER_LINE=YES REAL_JOB=FAILS"),
    SIGN_IN_PAGE(
            b -> {
                b.portalPages();
                b.net.sh(
                        "router",
                        "nft add table ip n; nft 'add chain ip n p { type nat hook prerouting priority -100; }'; nft "
                                + "'add rule ip n p tcp dport 443 redirect to :8442'");
            },
            PORTAL,
            0,
            "BROWSE=PORTAL OUTSIDE=NO OTHERS_OUTSIDE=NO OTHER_LINE=YES REAL_JOB=FAILS"),
    LOSES_PACKETS(
            b -> b.net.sh("terminal", Bed.rule("icmp type echo-request numgen inc mod 3 0 drop")),
            DUPLEX,
            0,
            "PORT_PAGE=ERRORS REAL_JOB=FAILS"),
    SWITCH_OFF(
            b -> b.everyPort("shop", "down"),
            SWITCH_DEAD,
            1,
            "OTHERS_HERE=NONE_ON_SWITCH LINK=DARK SWITCH_LIGHT=DARK OTHER_SOCKET=DARK REAL_JOB=FAILS OUTSIDE=NO "
                    + "OTHERS_OUTSIDE=NO NAMES=NOT_FOUND DEVICE_TEST=FAILS"),
    SWITCH_LEAD_OUT(
            b -> b.net.sh(
                    "switch",
                    "ip link set " + b.terminalPort + " master nowhere; ip link set " + b.partnerPort
                            + " master nowhere"),
            SWITCH_CUT_OFF,
            0,
            "OTHERS_HERE=NONE_ON_SWITCH REAL_JOB=FAILS OUTSIDE=NO OTHERS_OUTSIDE=NO NAMES=NOT_FOUND TRY_AUTOMATIC=SELF "
                    + "LAPTOP_LEASE=SELF RESTART_PING=SILENT BROWSE=NOTHING"),
    NEW_ROUTER(
            b -> {
                b.net.ip("router", "addr flush dev shop");
                b.net.ip("router", "addr add 192.168.7.1/24 dev shop");
                b.net.stop("router", "dns");
            },
            ROUTER_REPLACED,
            0,
            "ROUTER=OTHER OUTSIDE=NO OTHERS_OUTSIDE=NO NAMES=NOT_FOUND BROWSE=NOTHING LARGE=STOP "
                    + "OTHERS_HERE=NONE_AT_ALL TRY_AUTOMATIC=FOREIGN LAPTOP_LEASE=FOREIGN REAL_JOB=FAILS"),
    KEPT_APART(
            b -> {
                for (String port : List.of(b.terminalPort, b.herePort, b.partnerPort))
                    b.net.sh("switch", "bridge link set dev " + port + " isolated on");
            },
            WIRELESS_APART,
            0,
            "DEVICE_TEST=FAILS REAL_JOB=FAILS"),
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
    final Fault fault;
    final int way;
    final String eyes;

    WireFault(Consumer<Bed> make, Fault fault, int way, String eyes) {
        this.make = make;
        this.fault = fault;
        this.way = way;
        this.eyes = eyes;
    }

    void make(Bed bed) {
        make.accept(bed);
    }
}
