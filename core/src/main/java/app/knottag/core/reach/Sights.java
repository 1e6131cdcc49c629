package app.knottag.core.reach;

import app.knottag.core.reach.NetworkState.Box;
import app.knottag.core.reach.NetworkState.Dhcp;
import app.knottag.core.reach.NetworkState.Joined;
import app.knottag.core.reach.NetworkState.Lan;
import app.knottag.core.reach.NetworkState.Mood;
import app.knottag.core.reach.NetworkState.Names;
import app.knottag.core.reach.NetworkState.Parts;
import app.knottag.core.reach.NetworkState.Port;
import app.knottag.core.reach.NetworkState.Rule;
import app.knottag.core.reach.NetworkState.Server;
import app.knottag.core.reach.NetworkState.Unit;
import app.knottag.core.reach.Packets.Way;

/** What each look shows in a state of the network. */
final class Sights {

    /** Nobody can say beforehand. */
    private static final String UNKNOWN = "?";

    private final Parts p;
    private final Packets packets;

    Sights(Parts parts) {
        p = parts;
        packets = new Packets(parts);
    }

    static boolean possible(Parts p, Look look) {
        return switch (look) {
            case SERIAL -> p.hasService;
            case PARTNER_TEST, DEVICE_TEST, PAIR_NAME, PARTNER_ANEW, PARTNER_FIELDS -> p.hasPartner;
            case REGISTRY -> p.registryAsked;
            case GATEWAY -> p.router != 0;
            case NEIGHBOUR, LEASES -> p.hereWithin;
            case LINK, SWITCH_LIGHT, PLUGS, SOCKET, PULL, PORT_PAGE, OTHER_LEAD, OTHER_SOCKET, LAPTOP_LEASE ->
                p.traits.joined() != Joined.WIRELESS;
            case SIGNAL -> p.traits.joined() != Joined.CABLE;
            case OUTSIDE, OTHERS_OUTSIDE, NAMES, OTHER_LINE, RESOLVER, FAR, BROWSE, LARGE, NAME_GIVES, SERVICE_WORD ->
                p.hasLine;
            default -> true;
        };
    }

    String seen(Look look) {
        return switch (look) {
            case VANTAGE -> packets.lan(p.here) == null ? "no-network" : p.here.lan == Lan.OWN ? "own" : "elsewhere";
            case GATEWAY -> routerAnswers(p.here) ? "answers" : "silent";
            // From elsewhere nobody's MAC is seen.
            case NEIGHBOUR -> p.here.lan == Lan.OWN ? neighbour() : "nobody";
            case PING -> ping();
            case PORT -> held() ? UNKNOWN : port(p.here);
            case SERIAL -> held() ? UNKNOWN : serial(p.here);
            case LEASES -> p.here.lan == Lan.OWN ? elsewhere() : "absent";
            case RESOLVER -> resolver(p.here, p.resolver);
            case FAR -> far();
            case PARTNER_TEST -> held() ? UNKNOWN : partnerTest();
            default -> byEyes(look);
        };
    }

    /** Whether nobody can say what one would see, because the device is dark, or has no plug. */
    private boolean cannotBeTold(Look look) {
        return switch (look) {
            case LINK, SWITCH_LIGHT -> p.endpoint.mood == Mood.RESTARTING || p.apart || p.weak;
            case PLUGS, SOCKET, PULL, PORT_PAGE, OTHER_LEAD, OTHER_SOCKET -> p.apart || p.weak;
            // A handed-out address goes with the link on some devices, and stays on others.
            case ADDRESS_SHOWN -> p.layout.reserved() && p.endpoint.power && !packets.linked() && !p.onWireless;
            // Who hangs on the same switch still hears it.
            case DEVICE_TEST, PARTNER_ANEW -> p.nearCutOff;
            case SCREEN, SIGNAL -> !p.endpoint.power || p.endpoint.mood == Mood.RESTARTING;
            default -> false;
        };
    }

    private String byEyes(Look look) {
        if (cannotBeTold(look)) return UNKNOWN;
        return switch (look) {
            case POWER -> !p.endpoint.power ? "off" : p.endpoint.mood == Mood.RESTARTING ? "restarts" : "on";
            case LINK -> packets.linked() ? "lit" : "dark";
            case SWITCH_LIGHT -> packets.linked() ? "lit" : "dark";
            case SCREEN -> screen();
            case CLOCK -> p.clock ? p.clockByAnHour ? "hour" : "right" : "wrong";
            case ADDRESS_SHOWN -> shown();
            case OTHERS_HERE -> othersHere();
            case LABEL -> p.unit == Unit.SWAPPED ? "other" : "same";
            case MODEL -> p.unit == Unit.VARIANT ? "other" : "same";
            case SOCKET -> p.wanSocket ? "wan" : "lan";
            case PULL -> p.stranger != null ? "answers" : "silent";
            case PLUGS -> !p.deviceEnd ? "at-device" : p.wallEnd ? "no" : "at-wall";
            case PARTNER_FIELDS ->
                !p.partner.power ? "off" : !p.partnerAddress ? "address" : p.partnerPort ? "right" : "port";
            case SIGNAL -> p.wirelessLeft ? "not-joined" : p.weak ? "weak" : "good";
            case ROUTER -> p.routerReplaced ? "other" : "same";
            case SUPPLY -> p.supply ? "right" : "other";
            case OTHERS_OUTSIDE -> packets.outside(p.mate).way() == Way.OUTSIDE && !p.portal && !p.proxy ? "yes" : "no";
            case DEVICE_TEST -> deviceTest() ? "reaches" : "fails";
            case PAIR_NAME -> p.crossed ? "other" : "own";
            case NAMES -> names();
            case OUTSIDE -> outside() ? "yes" : "no";
            case BROWSE -> browse();
            case LARGE ->
                p.smallPackets
                        ? "stop"
                        : packets.outside(p.nearSwitchOn && !p.nearCutOff ? p.mate : p.here)
                                                .way()
                                        == Way.OUTSIDE
                                ? "pass"
                                : "stop";
            case REGISTRY -> entry();
            case POOL -> p.dhcp == Dhcp.FULL ? "full" : p.dhcp == Dhcp.DOWN ? "off" : "room";
            case PORT_PAGE -> portPage();
            case FIELDS -> fields();
            case REAL_JOB -> realJob();
            case RULES -> p.between != Rule.PASS ? "segments" : p.outbound != Rule.PASS ? "outside" : "through";
            case TRY_AUTOMATIC -> onAutomatic();
            case LAPTOP_LEASE -> laptopLease();
            case NAME_GIVES -> p.names == Names.OLD ? "old" : "now";
            case PARTNER_ANEW -> partnerAnew();
            case SERVICE_WORD ->
                p.server != Server.UP ? "down" : !p.contract ? "contract" : !p.signIn ? "account" : "all-fine";
            case OTHER_LEAD -> p.badLead || !p.deviceEnd || !p.wallEnd ? "yes" : "no";
            case OTHER_SOCKET ->
                p.endpoint.power && p.switchOn && p.nearSwitchOn && (!p.socketBroken || p.socketLit) ? "lit" : "dark";
            case OTHER_LINE -> p.endpoint.power && lineAtFault() && worksOnAnotherLine() ? "yes" : "no";
            case RESTART_PING -> restarted().heard() ? "answers" : "silent";
            case AFTER_RESTART -> restarted().shown();
            default -> throw new IllegalArgumentException(look + " is made by a machine");
        };
    }

    private boolean routerAnswers(Box from) {
        var trip = packets.trip(from, p.router);
        return trip.way() == Way.ARRIVES && trip.at() == null;
    }

    /** Whether a stranger answers in its place. */
    private boolean held() {
        return p.stranger != null
                && (p.here.lan == Lan.OWN || packets.trip(p.here, p.planned).at() == p.stranger);
    }

    /** Whether the endpoint itself stands at its planned address, for all who ask in its segment. */
    private boolean standing() {
        return packets.lan(p.endpoint) == Lan.OWN
                && packets.hears(p.endpoint)
                && packets.address(p.endpoint) == p.planned;
    }

    private String neighbour() {
        boolean own = standing() && !p.apart;
        if (p.stranger != null) return own ? "two" : "other";
        if (!own) return "nobody";
        if (p.unit == Unit.SWAPPED || p.strangeMac) return "other";
        return p.siblingMac ? "sibling" : "right";
    }

    /** Where its MAC answers instead, when it does not at the planned address. */
    private String elsewhere() {
        if (packets.lan(p.endpoint) != Lan.OWN || !packets.hears(p.endpoint) || p.apart || recordIsOther())
            return "absent";
        int at = packets.address(p.endpoint);
        if (at == p.planned || at == 0 || !Packets.same(at, p.planned, p.prefixLength)) return "absent";
        return at == p.pool ? "leased" : "elsewhere";
    }

    private boolean recordIsOther() {
        return p.unit == Unit.SWAPPED || p.siblingMac || p.strangeMac;
    }

    private String ping() {
        if (p.stranger != null) return "answers";
        var trip = packets.trip(p.here, p.planned);
        if (trip.way() == Way.BARRED || p.hereLost) return "unreachable";
        return heard() ? p.port == Port.LOSSY || p.weak ? "lossy" : "answers" : "silent";
    }

    /** Whether it gives any answer but that for its MAC. */
    private boolean heard() {
        if (p.stranger != null) return true;
        return standing() && !p.firewallDropsAll && packets.bothWays(p.here, p.endpoint) && !silentEcho();
    }

    private boolean silentEcho() {
        return p.firewallDropsEcho && port(p.here).equals("silent");
    }

    /** How its service port answers somebody. */
    private String port(Box from) {
        if (p.stranger != null) return "refused";
        var trip = packets.trip(from, p.planned);
        switch (trip.way()) {
            case RESET:
                return "refused";
            case BARRED:
                return "unreachable";
            case ARRIVES:
                break;
            default:
                return from == p.here && p.hereLost ? "unreachable" : "silent";
        }
        if (trip.at() != p.endpoint || p.firewallDropsAll || !packets.back(p.endpoint, from)) return "silent";
        if (p.firewall != Rule.PASS)
            return p.firewall == Rule.DROP ? "silent" : p.firewall == Rule.RESET ? "refused" : "unreachable";
        return p.serviceOn && p.portRight && p.callers != Rule.RESET ? "open" : "refused";
    }

    String serial(Box from) {
        if (!port(from).equals("open") || p.endpoint.mood == Mood.HUNG) return "none";
        if (p.callers != Rule.PASS) return p.callers == Rule.BAR ? "barred" : "none";
        return switch (p.unit) {
            case SWAPPED -> "other";
            case VARIANT -> "strange";
            case OWN -> "right";
        };
    }

    private String partnerTest() {
        var test = packets.bothWays(p.here, p.partner);
        if (!test || !packets.hears(p.partner) || !p.partnerAddress) return "none";
        if (p.crossed) return "other";
        String port = p.partner.forgets == p.planned ? "silent" : port(p.partner);
        if (port.equals("silent") || port.equals("unreachable")) return "none";
        if (port.equals("refused") || !p.partnerPort || p.callers == Rule.RESET) return "refused";
        if (p.callers != Rule.PASS) return p.hangUpIsRefusal ? "refused" : "none";
        if (p.endpoint.mood == Mood.HUNG) return "none";
        return p.unit == Unit.SWAPPED ? "other" : p.unit == Unit.VARIANT ? "refused" : "reaches";
    }

    /** What a resolver gives somebody: {@code at} is the one that is asked, 0 for none. */
    private String resolver(Box from, int at) {
        return p.resolverOverTcpOnly ? "silent" : either(from, at);
    }

    /** The same for a machine that also asks over TCP. */
    private String either(Box from, int at) {
        boolean reached = p.resolver == p.router
                ? routerAnswers(from)
                : packets.outside(from).way() == Way.OUTSIDE;
        if (at != p.resolver || !reached || !p.resolverUp) return "silent";
        return p.uplink ? "answers" : "empty";
    }

    private String far() {
        String resolver = either(p.here, p.resolver);
        if (!resolver.equals("answers")) return "no-name";
        if (p.names == Names.OLD) return UNKNOWN;
        if (packets.outside(p.here).way() != Way.OUTSIDE) return "silent";
        if (p.proxy || !p.provider || p.outbound == Rule.DROP || p.smallPackets) return "silent";
        if (p.outbound != Rule.PASS) return "refused";
        if (p.portal || p.opened) return "certificate";
        return switch (p.server) {
            case UP -> p.certificate ? "answers" : "certificate";
            case SILENT -> "silent";
            case REFUSES -> "refused";
        };
    }

    private String screen() {
        return switch (p.endpoint.mood) {
            case ASLEEP -> "asleep";
            case HUNG, FROZEN -> "frozen";
            case FULL -> "full";
            default -> "reacts";
        };
    }

    private String shown() {
        if (!p.endpoint.power || p.endpoint.mood == Mood.RESTARTING) return "nothing";
        if (p.strangerFirst && packets.lan(p.endpoint) == Lan.OWN && !p.endpoint.automatic) return "in-use";
        int at = packets.address(p.endpoint);
        if (at == p.planned) return "planned";
        if (at == p.pool) return "pool";
        return at == Packets.SELF ? "self" : at == Packets.FOREIGN ? "foreign" : at == 0 ? "nothing" : "slip";
    }

    private String othersHere() {
        if (!p.rowPower) return "no-power";
        if (!p.switchOn || !p.nearSwitchOn || p.nearCutOff) return "none-on-switch";
        return p.uplink && p.routerOn && !p.routerReplaced ? "yes" : "none-at-all";
    }

    private boolean deviceTest() {
        return standing()
                && p.stranger == null
                && packets.bothWays(p.endpoint, p.partner)
                && packets.hears(p.partner)
                && p.endpoint.mood == Mood.AWAKE
                && p.toPartner
                && !p.partnerFirewall
                && !p.crossed;
    }

    private boolean outside() {
        return p.stranger == null
                && packets.hears(p.endpoint)
                && p.endpoint.mood != Mood.HUNG
                && !p.portal
                && !p.proxy
                && packets.outside(p.endpoint).way() == Way.OUTSIDE;
    }

    private String names() {
        boolean onTheWay = packets.address(p.endpoint) == Packets.FOREIGN
                ? outside()
                : resolver(p.endpoint, packets.resolver(p.endpoint)).equals("answers");
        if (!outside() && !p.portal && !p.proxy || !onTheWay) return "not-found";
        return p.names == Names.SLOW ? "slowly" : "found";
    }

    private String browse() {
        if (packets.outside(p.nearSwitchOn && !p.nearCutOff ? p.mate : p.here).way() != Way.OUTSIDE
                || !p.resolverUp
                || p.resolverOverTcpOnly) return "nothing";
        return p.portal ? "portal" : p.proxy ? "proxy" : "page";
    }

    private String entry() {
        return switch (p.entry) {
            case RIGHT -> "right";
            case NONE -> "absent";
            case SIBLING -> "sibling";
            case MISTYPED -> "mistyped";
            case ENDED -> "ended";
        };
    }

    private String portPage() {
        return switch (p.port) {
            case OFF -> "off";
            case LOCKED -> "locked";
            case TAGGED -> "tagged";
            case LOSSY -> "errors";
            case LOOPED -> "loop";
            case NO_POWER -> "no-power";
            case FINE -> p.outletLan == Lan.OWN ? "fine" : "other-network";
        };
    }

    private String fields() {
        var e = p.endpoint;
        if (e.automatic != p.layout.reserved()) return e.automatic ? "automatic" : "address";
        if (e.automatic) return p.portRight ? p.toPartner || !p.hasPartner ? "nothing" : "partner" : "port";
        if (e.address != p.planned) return "address";
        if (e.length != p.prefixLength) return "mask";
        // What it never needs is no cause of anything here.
        if (p.hasLine && e.gateway != p.router) return "gateway";
        if (p.hasLine && e.resolver != p.resolver) return e.resolver == 0 ? "no-resolver" : "resolver";
        if (!p.portRight) return "port";
        return p.toPartner || !p.hasPartner ? "nothing" : "partner";
    }

    private boolean works() {
        boolean partner = !p.hasPartner || deviceTest() && partnerTest().equals("reaches");
        boolean line = !p.hasLine || outside() && !names().equals("not-found");
        return p.stranger == null
                && standing()
                && p.endpoint.mood == Mood.AWAKE
                && p.port != Port.LOSSY
                && !p.weak
                && partner
                && line
                && p.serviceOn
                && p.portRight
                && p.firewall == Rule.PASS
                && !p.firewallDropsAll
                && p.callers == Rule.PASS
                && p.unit == Unit.OWN;
    }

    private boolean lineAtFault() {
        return !p.provider || p.outbound != Rule.PASS || p.smallPackets || p.proxy || p.portal || p.opened;
    }

    private boolean worksOnAnotherLine() {
        return p.unit == Unit.OWN && p.server == Server.UP && p.contract && p.signIn && p.clock && p.certificate;
    }

    private String realJob() {
        if (!works()) return "fails";
        if (p.hasLine) {
            if (lineAtFault() && !p.opened || p.server != Server.UP || p.names != Names.RIGHT) return "fails";
            if (!p.contract) return "sign-in";
        }
        if (!p.clock || !p.certificate || p.hasLine && p.opened) return "certificate";
        return p.signIn ? "done" : "sign-in";
    }

    private String onAutomatic() {
        var copy = p.copy();
        copy.endpoint.automatic = true;
        copy.joined = true;
        copy.restarted = true;
        return new Sights(copy).leased();
    }

    /** Which sort of address it has on automatic. */
    private String leased() {
        if (!p.endpoint.power || p.endpoint.mood == Mood.RESTARTING) return "nothing";
        int at = packets.address(p.endpoint);
        return at == p.pool ? "pool" : at == Packets.FOREIGN ? "foreign" : "self";
    }

    /** A laptop has power, a registered MAC and a plug of its own. */
    private String laptopLease() {
        var copy = p.copy();
        copy.endpoint.power = true;
        copy.endpoint.mood = Mood.AWAKE;
        copy.endpoint.automatic = true;
        copy.deviceEnd = true;
        copy.onWireless = false;
        copy.registryAsked = false;
        copy.socketBroken = false;
        copy.restarted = true;
        if (copy.port == Port.NO_POWER) copy.port = Port.FINE;
        var there = new Sights(copy);
        return there.packets.linked() ? there.leased() : "dark";
    }

    private String partnerAnew() {
        if (partnerTest().equals("reaches")) return "reaches";
        var copy = p.copy();
        copy.partner.forgets = 0;
        if (copy.partner.mood == Mood.HUNG) copy.partner.mood = Mood.AWAKE;
        return new Sights(copy).partnerTest().equals("reaches") ? "reaches" : "still-not";
    }

    /** What was not saved is gone; what waited for a restart joins with it; what hung or slept is awake. */
    private Sights restarted() {
        var copy = p.copy();
        copy.joined = true;
        copy.restarted = true;
        if (!copy.saved) copy.endpoint.automatic = true;
        switch (copy.endpoint.mood) {
            case HUNG, FROZEN, ASLEEP -> copy.endpoint.mood = Mood.AWAKE;
            default -> {}
        }
        return new Sights(copy);
    }
}
