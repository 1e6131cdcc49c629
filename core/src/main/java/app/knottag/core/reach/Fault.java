package app.knottag.core.reach;

import app.knottag.core.reach.NetworkState.Box;
import app.knottag.core.reach.NetworkState.Dhcp;
import app.knottag.core.reach.NetworkState.Entry;
import app.knottag.core.reach.NetworkState.Lan;
import app.knottag.core.reach.NetworkState.Mood;
import app.knottag.core.reach.NetworkState.Names;
import app.knottag.core.reach.NetworkState.Parts;
import app.knottag.core.reach.NetworkState.Port;
import app.knottag.core.reach.NetworkState.Rule;
import app.knottag.core.reach.NetworkState.Server;
import app.knottag.core.reach.NetworkState.Unit;
import java.util.Arrays;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Predicate;

/**
 * Why an endpoint may not reach its service: each is a pure change of the network's state, or a few such changes when the same
 * fault shows itself in several ways. Words and priors stand in faults.yaml.
 */
public enum Fault {
    NO_POWER(p -> p.endpoint.power = false),
    ROW_POWER(p -> {
        p.endpoint.power = false;
        p.rowPower = false;
    }),
    POWER_CUT(p -> {
        p.endpoint.power = false;
        p.partner.power = false;
        p.rowPower = false;
        p.routerOn = false;
    }),
    POE_BUDGET(p -> {
        p.endpoint.power = false;
        p.port = Port.NO_POWER;
    }),
    WEAK_SUPPLY(p -> {
        p.endpoint.mood = Mood.RESTARTING;
        p.supply = false;
    }),
    CABLE_OUT_AT_DEVICE(p -> p.deviceEnd = false),
    CABLE_OUT_AT_WALL(p -> p.wallEnd = false),
    OUTLET_DEAD(p -> p.outletPatched = false),
    PORT_OFF(p -> p.port = Port.OFF),
    PORT_SECURITY(p -> p.port = Port.LOCKED),
    PORT_TAGGED(p -> p.port = Port.TAGGED),
    LOOP(p -> p.port = Port.LOOPED),
    DUPLEX(p -> p.port = Port.LOSSY),
    BAD_PAIR(p -> {
        p.port = Port.LOSSY;
        p.badLead = true;
    }),
    SWITCH_DEAD(
            // The machine that looks, and the router, are usually on another one.
            p -> p.nearSwitchOn = false,
            p -> p.switchOn = false),
    SWITCH_CUT_OFF(p -> p.nearCutOff = true),
    OUTLET_IN_OTHER_SEGMENT(p -> p.outletLan = Lan.OTHER),
    WAN_SOCKET(p -> p.wanSocket = true),
    ON_WIRELESS(p -> p.onWireless = true),
    NETWORK_PART_BROKEN(p -> p.socketBroken = true, p -> {
        p.socketBroken = true;
        p.socketLit = true;
    }),
    WIRELESS_APART(p -> p.apart = true),
    WIRELESS_WEAK(p -> p.weak = true),
    WIRELESS_NOT_JOINED(p -> p.wirelessLeft = true, p -> {
        p.wirelessLeft = true;
        p.restarted = true;
    }),
    WIRELESS_OTHER(p -> p.onWireless = true),
    NOT_RESTARTED(p -> p.joined = false),
    NOT_REGISTERED(p -> p.entry = Entry.NONE),
    OTHER_INTERFACE_REGISTERED(p -> p.entry = Entry.SIBLING),
    MISTYPED_AT_REGISTRY(p -> p.entry = Entry.MISTYPED),
    REGISTRATION_ENDED(p -> p.entry = Entry.ENDED),
    STILL_AUTOMATIC(p -> p.endpoint.automatic = true),
    NOT_SAVED(
            p -> {
                p.endpoint.automatic = true;
                p.saved = false;
            },
            // Until it starts anew, it works with what was typed.
            p -> p.saved = false),
    ADDRESS_SLIP(p -> p.endpoint.address = p.planned ^ 3 << 8, p -> p.endpoint.address = p.slip),
    HELD_BY_NEWER(p -> p.stranger = stranger()),
    HELD_BY_OLDER(p -> {
        p.stranger = stranger();
        p.strangerFirst = true;
    }),
    MASK_WRONG(
            p -> p.endpoint.length = Math.min(30, p.prefixLength + 4),
            p -> p.endpoint.length = Math.min(30, p.prefixLength + 1),
            p -> p.endpoint.length = 30,
            p -> p.endpoint.length = 16,
            p -> p.endpoint.length = 8),
    GATEWAY_WRONG(
            p -> p.endpoint.gateway = p.router ^ 1 << 4,
            p -> p.endpoint.gateway = p.router ^ 1 << 9,
            p -> p.endpoint.gateway = 0),
    RESOLVER_WRONG(p -> p.endpoint.resolver = p.resolver ^ 1 << 4),
    RESOLVER_MISSING(p -> p.endpoint.resolver = 0),
    RESOLVER_DOWN(p -> p.resolverUp = false, p -> p.resolverOverTcpOnly = true),
    RESOLVER_SLOW(p -> p.names = Names.SLOW),
    OLD_NAME(p -> p.names = Names.OLD),
    GATEWAY_DOWN(p -> p.routerOn = false),
    ROUTER_REPLACED(p -> p.routerReplaced = true),
    DHCP_DOWN(p -> p.dhcp = Dhcp.DOWN, p -> {
        p.dhcp = Dhcp.DOWN;
        p.restarted = true;
    }),
    DHCP_FULL(p -> p.dhcp = Dhcp.FULL, p -> {
        p.dhcp = Dhcp.FULL;
        p.restarted = true;
    }),
    DHCP_SECOND(p -> p.dhcp = Dhcp.SECOND),
    SERVICE_OFF(p -> p.serviceOn = false),
    OTHER_PORT(p -> p.portRight = false),
    DEVICE_FIREWALL(
            p -> p.firewall = Rule.DROP,
            p -> p.firewall = Rule.RESET,
            p -> p.firewall = Rule.BAR,
            p -> p.firewallDropsAll = true),
    ALLOW_LIST(p -> p.callers = Rule.DROP, p -> p.callers = Rule.BAR, p -> p.callers = Rule.RESET, p -> {
        p.callers = Rule.DROP;
        p.hangUpIsRefusal = true;
    }),
    ASLEEP(p -> p.endpoint.mood = Mood.ASLEEP),
    HUNG(
            p -> p.endpoint.mood = Mood.HUNG,
            p -> p.endpoint.mood = Mood.FROZEN,
            // Once enough callers wait at a service that takes nobody, further ones hear nothing.
            p -> {
                p.endpoint.mood = Mood.HUNG;
                p.firewall = Rule.DROP;
            }),
    FULL(p -> p.endpoint.mood = Mood.FULL),
    PARTNER_DOWN(p -> p.partner.power = false),
    PARTNER_POINTS_ELSEWHERE(p -> p.partnerAddress = false),
    PARTNER_OTHER_PORT(p -> p.partnerPort = false),
    PARTNER_FIREWALL(p -> p.partnerFirewall = true),
    DEVICE_POINTS_ELSEWHERE(p -> p.toPartner = false),
    CROSSED_PAIR(p -> p.crossed = true),
    STALE_NEIGHBOUR(
            p -> {
                p.partner.forgets = p.planned;
                p.partner.learns = true;
            },
            p -> p.partner.forgets = p.planned),
    WRONG_UNIT(p -> p.unit = Unit.SWAPPED),
    WRONG_VARIANT(p -> p.unit = Unit.VARIANT),
    OTHER_INTERFACE_ON_RECORD(
            p -> p.siblingMac = true,
            // A card that was put in later has a MAC of its own, far from the old one.
            p -> p.strangeMac = true),
    SERVER_DOWN(p -> p.server = Server.SILENT, p -> p.server = Server.REFUSES),
    CLOCK_WRONG(p -> p.clock = false, p -> p.clockByAnHour = true),
    CERTIFICATE(p -> p.certificate = false),
    OPENED_ON_THE_WAY(p -> p.opened = true),
    SIGN_IN(p -> p.signIn = false),
    CONTRACT_LAPSED(p -> p.contract = false),
    UPLINK_DOWN(p -> p.uplink = false),
    PROVIDER_FILTER(p -> p.provider = false),
    SITE_FIREWALL(p -> p.outbound = Rule.DROP, p -> p.outbound = Rule.BAR, p -> p.outbound = Rule.RESET),
    SEGMENT_FIREWALL(p -> p.between = Rule.DROP, p -> p.between = Rule.BAR, p -> p.between = Rule.RESET),
    SMALL_PACKETS(p -> p.smallPackets = true),
    PORTAL(p -> p.portal = true),
    PROXY(p -> p.proxy = true),
    OWN_VANTAGE(p -> p.here.lan = Lan.ELSEWHERE, p -> {
        p.here.lan = Lan.ELSEWHERE;
        p.hereLost = true;
    }),
    /** Nothing is wrong now: what was seen has passed, or was misread. */
    NOTHING(p -> {});

    private final List<Consumer<Parts>> ways;

    @SafeVarargs
    @SuppressWarnings("varargs")
    Fault(Consumer<Parts>... ways) {
        this.ways = List.of(ways);
    }

    private static Box stranger() {
        var box = new Box();
        box.mac = NetworkState.MAC_STRANGER;
        return box;
    }

    /** Returns the state with this cause in it, as it is met most often. */
    public NetworkState apply(NetworkState state) {
        return apply(state, 0);
    }

    NetworkState apply(NetworkState state, int way) {
        return state.but(ways.get(way));
    }

    /** Returns the state with this cause in it, once for each way in which it shows itself; equal ones are left out. */
    public List<NetworkState> ways(NetworkState state) {
        return ways.stream().map(state::but).toList();
    }

    /** Whether a device that is joined in that way can have it. */
    private boolean suits(NetworkState.Joined joined) {
        return switch (this) {
            case WIRELESS_APART, WIRELESS_WEAK -> joined != NetworkState.Joined.CABLE;
            case WIRELESS_NOT_JOINED, WIRELESS_OTHER -> joined == NetworkState.Joined.WIRELESS;
            case POE_BUDGET,
                    CABLE_OUT_AT_DEVICE,
                    CABLE_OUT_AT_WALL,
                    OUTLET_DEAD,
                    PORT_OFF,
                    PORT_SECURITY,
                    PORT_TAGGED,
                    LOOP,
                    DUPLEX,
                    BAD_PAIR,
                    OUTLET_IN_OTHER_SEGMENT,
                    WAN_SOCKET,
                    ON_WIRELESS -> joined != NetworkState.Joined.WIRELESS;
            default -> true;
        };
    }

    /** Whether it would show at all, beyond its own direct look. */
    public boolean shows(NetworkState intended) {
        return shows(intended, Question::ofEndpoint);
    }

    /** Whether it would show in any look at all, also in one that is not about the endpoint. */
    public boolean showsAnywhere(NetworkState intended) {
        return shows(intended, l -> true);
    }

    /** Whether it would show in one of these looks. */
    private boolean shows(NetworkState intended, Predicate<Question> questions) {
        if (!suits(intended.parts.traits.joined())) return false;
        return this == NOTHING
                || ways(intended).stream()
                        .anyMatch(s -> Arrays.stream(Question.values())
                                .filter(l -> questions.test(l) && intended.possible(l))
                                .anyMatch(l -> s.observe(l) != intended.observe(l)));
    }
}
