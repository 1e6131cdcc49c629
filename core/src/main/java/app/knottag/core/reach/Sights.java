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

    private final Parts p;
    private final Packets packets;

    Sights(Parts parts) {
        p = parts;
        packets = new Packets(parts);
    }

    static boolean possible(Parts p, Question question) {
        return switch (question) {
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

    Outcome seen(Question question) {
        return switch (question) {
            case VANTAGE ->
                packets.lan(p.here) == null
                        ? Outcome.NO_NETWORK
                        : p.here.lan == Lan.OWN ? Outcome.OWN : Outcome.ELSEWHERE;
            case GATEWAY -> routerAnswers(p.here) ? Outcome.ANSWERS : Outcome.SILENT;
            // From elsewhere nobody's MAC is seen.
            case NEIGHBOUR -> p.here.lan == Lan.OWN ? neighbour() : Outcome.NOBODY;
            case PING -> ping();
            case PORT -> held() ? Outcome.CANNOT_BE_TOLD : port(p.here);
            case SERIAL -> held() ? Outcome.CANNOT_BE_TOLD : serial(p.here);
            case LEASES -> p.here.lan == Lan.OWN ? elsewhere() : Outcome.ABSENT;
            case RESOLVER -> resolver(p.here, p.resolver);
            case FAR -> far();
            case PARTNER_TEST -> held() ? Outcome.CANNOT_BE_TOLD : partnerTest();
            default -> byEyes(question);
        };
    }

    /** Whether nobody can say what one would see, because the device is dark, or has no plug. */
    private boolean cannotBeTold(Question question) {
        return switch (question) {
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

    private Outcome byEyes(Question question) {
        if (cannotBeTold(question)) return Outcome.CANNOT_BE_TOLD;
        return switch (question) {
            case POWER ->
                !p.endpoint.power ? Outcome.OFF : p.endpoint.mood == Mood.RESTARTING ? Outcome.RESTARTS : Outcome.ON;
            case LINK -> packets.linked() ? Outcome.LIT : Outcome.DARK;
            case SWITCH_LIGHT -> packets.linked() ? Outcome.LIT : Outcome.DARK;
            case SCREEN -> screen();
            case CLOCK -> p.clock ? p.clockByAnHour ? Outcome.HOUR : Outcome.RIGHT : Outcome.WRONG;
            case ADDRESS_SHOWN -> shown();
            case OTHERS_HERE -> othersHere();
            case LABEL -> p.unit == Unit.SWAPPED ? Outcome.OTHER : Outcome.SAME;
            case MODEL -> p.unit == Unit.VARIANT ? Outcome.OTHER : Outcome.SAME;
            case SOCKET -> p.wanSocket ? Outcome.WAN : Outcome.LAN;
            case PULL -> p.stranger != null ? Outcome.ANSWERS : Outcome.SILENT;
            case PLUGS -> !p.deviceEnd ? Outcome.AT_DEVICE : p.wallEnd ? Outcome.NO : Outcome.AT_WALL;
            case PARTNER_FIELDS ->
                !p.partner.power
                        ? Outcome.OFF
                        : !p.partnerAddress ? Outcome.ADDRESS : p.partnerPort ? Outcome.RIGHT : Outcome.PORT;
            case SIGNAL -> p.wirelessLeft ? Outcome.NOT_JOINED : p.weak ? Outcome.WEAK : Outcome.GOOD;
            case ROUTER -> p.routerReplaced ? Outcome.OTHER : Outcome.SAME;
            case SUPPLY -> p.supply ? Outcome.RIGHT : Outcome.OTHER;
            case OTHERS_OUTSIDE ->
                packets.outside(p.mate).way() == Way.OUTSIDE && !p.portal && !p.proxy ? Outcome.YES : Outcome.NO;
            case DEVICE_TEST -> deviceTest() ? Outcome.REACHES : Outcome.FAILS;
            case PAIR_NAME -> p.crossed ? Outcome.OTHER : Outcome.OWN;
            case NAMES -> names();
            case OUTSIDE -> outside() ? Outcome.YES : Outcome.NO;
            case BROWSE -> browse();
            case LARGE ->
                p.smallPackets
                        ? Outcome.STOP
                        : packets.outside(p.nearSwitchOn && !p.nearCutOff ? p.mate : p.here)
                                                .way()
                                        == Way.OUTSIDE
                                ? Outcome.PASS
                                : Outcome.STOP;
            case REGISTRY -> entry();
            case POOL -> p.dhcp == Dhcp.FULL ? Outcome.FULL : p.dhcp == Dhcp.DOWN ? Outcome.OFF : Outcome.ROOM;
            case PORT_PAGE -> portPage();
            case FIELDS -> fields();
            case REAL_JOB -> realJob();
            case RULES ->
                p.between != Rule.PASS ? Outcome.SEGMENTS : p.outbound != Rule.PASS ? Outcome.OUTSIDE : Outcome.THROUGH;
            case TRY_AUTOMATIC -> onAutomatic();
            case LAPTOP_LEASE -> laptopLease();
            case NAME_GIVES -> p.names == Names.OLD ? Outcome.OLD : Outcome.NOW;
            case PARTNER_ANEW -> partnerAnew();
            case SERVICE_WORD ->
                p.server != Server.UP
                        ? Outcome.DOWN
                        : !p.contract ? Outcome.CONTRACT : !p.signIn ? Outcome.ACCOUNT : Outcome.ALL_FINE;
            case OTHER_LEAD -> p.badLead || !p.deviceEnd || !p.wallEnd ? Outcome.YES : Outcome.NO;
            case OTHER_SOCKET ->
                p.endpoint.power && p.switchOn && p.nearSwitchOn && (!p.socketBroken || p.socketLit)
                        ? Outcome.LIT
                        : Outcome.DARK;
            case OTHER_LINE -> p.endpoint.power && lineAtFault() && worksOnAnotherLine() ? Outcome.YES : Outcome.NO;
            case RESTART_PING -> restarted().heard() ? Outcome.ANSWERS : Outcome.SILENT;
            case AFTER_RESTART -> restarted().shown();
            default -> throw new IllegalArgumentException(question + " is made by a machine");
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

    private Outcome neighbour() {
        boolean own = standing() && !p.apart;
        if (p.stranger != null) return own ? Outcome.TWO : Outcome.OTHER;
        if (!own) return Outcome.NOBODY;
        if (p.unit == Unit.SWAPPED || p.strangeMac) return Outcome.OTHER;
        return p.siblingMac ? Outcome.SIBLING : Outcome.RIGHT;
    }

    /** Where its MAC answers instead, when it does not at the planned address. */
    private Outcome elsewhere() {
        if (packets.lan(p.endpoint) != Lan.OWN || !packets.hears(p.endpoint) || p.apart || recordIsOther())
            return Outcome.ABSENT;
        int at = packets.address(p.endpoint);
        if (at == p.planned || at == 0 || !Packets.same(at, p.planned, p.prefixLength)) return Outcome.ABSENT;
        return at == p.pool ? Outcome.LEASED : Outcome.ELSEWHERE;
    }

    private boolean recordIsOther() {
        return p.unit == Unit.SWAPPED || p.siblingMac || p.strangeMac;
    }

    private Outcome ping() {
        if (p.stranger != null) return Outcome.ANSWERS;
        var trip = packets.trip(p.here, p.planned);
        if (trip.way() == Way.BARRED || p.hereLost) return Outcome.UNREACHABLE;
        return heard() ? p.port == Port.LOSSY || p.weak ? Outcome.LOSSY : Outcome.ANSWERS : Outcome.SILENT;
    }

    /** Whether it gives any answer but that for its MAC. */
    private boolean heard() {
        if (p.stranger != null) return true;
        return standing() && !p.firewallDropsAll && packets.bothWays(p.here, p.endpoint) && !silentEcho();
    }

    private boolean silentEcho() {
        return p.firewallDropsEcho && port(p.here) == Outcome.SILENT;
    }

    /** How its service port answers somebody. */
    private Outcome port(Box from) {
        if (p.stranger != null) return Outcome.REFUSED;
        var trip = packets.trip(from, p.planned);
        switch (trip.way()) {
            case RESET:
                return Outcome.REFUSED;
            case BARRED:
                return Outcome.UNREACHABLE;
            case ARRIVES:
                break;
            default:
                return from == p.here && p.hereLost ? Outcome.UNREACHABLE : Outcome.SILENT;
        }
        if (trip.at() != p.endpoint || p.firewallDropsAll || !packets.back(p.endpoint, from)) return Outcome.SILENT;
        if (p.firewall != Rule.PASS)
            return p.firewall == Rule.DROP
                    ? Outcome.SILENT
                    : p.firewall == Rule.RESET ? Outcome.REFUSED : Outcome.UNREACHABLE;
        return p.serviceOn && p.portRight && p.callers != Rule.RESET ? Outcome.OPEN : Outcome.REFUSED;
    }

    Outcome serial(Box from) {
        if (port(from) != Outcome.OPEN || p.endpoint.mood == Mood.HUNG) return Outcome.NONE;
        if (p.callers != Rule.PASS) return p.callers == Rule.BAR ? Outcome.BARRED : Outcome.NONE;
        return switch (p.unit) {
            case SWAPPED -> Outcome.OTHER;
            case VARIANT -> Outcome.STRANGE;
            case OWN -> Outcome.RIGHT;
        };
    }

    private Outcome partnerTest() {
        var test = packets.bothWays(p.here, p.partner);
        if (!test || !packets.hears(p.partner) || !p.partnerAddress) return Outcome.NONE;
        if (p.crossed) return Outcome.OTHER;
        Outcome port = p.partner.forgets == p.planned ? Outcome.SILENT : port(p.partner);
        if (port == Outcome.SILENT || port == Outcome.UNREACHABLE) return Outcome.NONE;
        if (port == Outcome.REFUSED || !p.partnerPort || p.callers == Rule.RESET) return Outcome.REFUSED;
        if (p.callers != Rule.PASS) return p.hangUpIsRefusal ? Outcome.REFUSED : Outcome.NONE;
        if (p.endpoint.mood == Mood.HUNG) return Outcome.NONE;
        return p.unit == Unit.SWAPPED ? Outcome.OTHER : p.unit == Unit.VARIANT ? Outcome.REFUSED : Outcome.REACHES;
    }

    /** What a resolver gives somebody: {@code at} is the one that is asked, 0 for none. */
    private Outcome resolver(Box from, int at) {
        return p.resolverOverTcpOnly ? Outcome.SILENT : either(from, at);
    }

    /** The same for a machine that also asks over TCP. */
    private Outcome either(Box from, int at) {
        boolean reached = p.resolver == p.router
                ? routerAnswers(from)
                : packets.outside(from).way() == Way.OUTSIDE;
        if (at != p.resolver || !reached || !p.resolverUp) return Outcome.SILENT;
        return p.uplink ? Outcome.ANSWERS : Outcome.EMPTY;
    }

    private Outcome far() {
        Outcome resolver = either(p.here, p.resolver);
        if (resolver != Outcome.ANSWERS) return Outcome.NO_NAME;
        if (p.names == Names.OLD) return Outcome.CANNOT_BE_TOLD;
        if (packets.outside(p.here).way() != Way.OUTSIDE) return Outcome.SILENT;
        if (p.proxy || !p.provider || p.outbound == Rule.DROP || p.smallPackets) return Outcome.SILENT;
        if (p.outbound != Rule.PASS) return Outcome.REFUSED;
        if (p.portal || p.opened) return Outcome.CERTIFICATE;
        return switch (p.server) {
            case UP -> p.certificate ? Outcome.ANSWERS : Outcome.CERTIFICATE;
            case SILENT -> Outcome.SILENT;
            case REFUSES -> Outcome.REFUSED;
        };
    }

    private Outcome screen() {
        return switch (p.endpoint.mood) {
            case ASLEEP -> Outcome.ASLEEP;
            case HUNG, FROZEN -> Outcome.FROZEN;
            case FULL -> Outcome.FULL;
            default -> Outcome.REACTS;
        };
    }

    private Outcome shown() {
        if (!p.endpoint.power || p.endpoint.mood == Mood.RESTARTING) return Outcome.NOTHING;
        if (p.strangerFirst && packets.lan(p.endpoint) == Lan.OWN && !p.endpoint.automatic) return Outcome.IN_USE;
        int at = packets.address(p.endpoint);
        if (at == p.planned) return Outcome.PLANNED;
        if (at == p.pool) return Outcome.POOL;
        return at == Packets.SELF
                ? Outcome.SELF
                : at == Packets.FOREIGN ? Outcome.FOREIGN : at == 0 ? Outcome.NOTHING : Outcome.SLIP;
    }

    private Outcome othersHere() {
        if (!p.rowPower) return Outcome.NO_POWER;
        if (!p.switchOn || !p.nearSwitchOn || p.nearCutOff) return Outcome.NONE_ON_SWITCH;
        return p.uplink && p.routerOn && !p.routerReplaced ? Outcome.YES : Outcome.NONE_AT_ALL;
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

    private Outcome names() {
        boolean onTheWay = packets.address(p.endpoint) == Packets.FOREIGN
                ? outside()
                : resolver(p.endpoint, packets.resolver(p.endpoint)) == Outcome.ANSWERS;
        if (!outside() && !p.portal && !p.proxy || !onTheWay) return Outcome.NOT_FOUND;
        return p.names == Names.SLOW ? Outcome.SLOWLY : Outcome.FOUND;
    }

    private Outcome browse() {
        if (packets.outside(p.nearSwitchOn && !p.nearCutOff ? p.mate : p.here).way() != Way.OUTSIDE
                || !p.resolverUp
                || p.resolverOverTcpOnly) return Outcome.NOTHING;
        return p.portal ? Outcome.PORTAL : p.proxy ? Outcome.PROXY : Outcome.PAGE;
    }

    private Outcome entry() {
        return switch (p.entry) {
            case RIGHT -> Outcome.RIGHT;
            case NONE -> Outcome.ABSENT;
            case SIBLING -> Outcome.SIBLING;
            case MISTYPED -> Outcome.MISTYPED;
            case ENDED -> Outcome.ENDED;
        };
    }

    private Outcome portPage() {
        return switch (p.port) {
            case OFF -> Outcome.OFF;
            case LOCKED -> Outcome.LOCKED;
            case TAGGED -> Outcome.TAGGED;
            case LOSSY -> Outcome.ERRORS;
            case LOOPED -> Outcome.LOOP;
            case NO_POWER -> Outcome.NO_POWER;
            case FINE -> p.outletLan == Lan.OWN ? Outcome.FINE : Outcome.OTHER_NETWORK;
        };
    }

    private Outcome fields() {
        var e = p.endpoint;
        if (e.automatic != p.layout.reserved()) return e.automatic ? Outcome.AUTOMATIC : Outcome.ADDRESS;
        if (e.automatic)
            return p.portRight ? p.toPartner || !p.hasPartner ? Outcome.NOTHING : Outcome.PARTNER : Outcome.PORT;
        if (e.address != p.planned) return Outcome.ADDRESS;
        if (e.length != p.prefixLength) return Outcome.MASK;
        // What it never needs is no cause of anything here.
        if (p.hasLine && e.gateway != p.router) return Outcome.GATEWAY;
        if (p.hasLine && e.resolver != p.resolver) return e.resolver == 0 ? Outcome.NO_RESOLVER : Outcome.RESOLVER;
        if (!p.portRight) return Outcome.PORT;
        return p.toPartner || !p.hasPartner ? Outcome.NOTHING : Outcome.PARTNER;
    }

    private boolean works() {
        boolean partner = !p.hasPartner || deviceTest() && partnerTest() == Outcome.REACHES;
        boolean line = !p.hasLine || outside() && names() != Outcome.NOT_FOUND;
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

    private Outcome realJob() {
        if (!works()) return Outcome.FAILS;
        if (p.hasLine) {
            if (lineAtFault() && !p.opened || p.server != Server.UP || p.names != Names.RIGHT) return Outcome.FAILS;
            if (!p.contract) return Outcome.SIGN_IN;
        }
        if (!p.clock || !p.certificate || p.hasLine && p.opened) return Outcome.CERTIFICATE;
        return p.signIn ? Outcome.DONE : Outcome.SIGN_IN;
    }

    private Outcome onAutomatic() {
        var copy = p.copy();
        copy.endpoint.automatic = true;
        copy.joined = true;
        copy.restarted = true;
        return new Sights(copy).leased();
    }

    /** Which sort of address it has on automatic. */
    private Outcome leased() {
        if (!p.endpoint.power || p.endpoint.mood == Mood.RESTARTING) return Outcome.NOTHING;
        int at = packets.address(p.endpoint);
        return at == p.pool ? Outcome.POOL : at == Packets.FOREIGN ? Outcome.FOREIGN : Outcome.SELF;
    }

    /** A laptop has power, a registered MAC and a plug of its own. */
    private Outcome laptopLease() {
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
        return there.packets.linked() ? there.leased() : Outcome.DARK;
    }

    private Outcome partnerAnew() {
        if (partnerTest() == Outcome.REACHES) return Outcome.REACHES;
        var copy = p.copy();
        copy.partner.forgets = 0;
        if (copy.partner.mood == Mood.HUNG) copy.partner.mood = Mood.AWAKE;
        return new Sights(copy).partnerTest() == Outcome.REACHES ? Outcome.REACHES : Outcome.STILL_NOT;
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
