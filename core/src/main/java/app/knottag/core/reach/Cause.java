package app.knottag.core.reach;

import app.knottag.core.reach.Scene.Entry;
import app.knottag.core.reach.Scene.Holder;
import app.knottag.core.reach.Scene.Names;
import app.knottag.core.reach.Scene.State;
import app.knottag.core.reach.Scene.Unit;
import app.knottag.core.reach.Scene.Where;
import java.util.function.Consumer;

/** Why an endpoint may not reach its service: each is a pure change of the scene. Words and priors stand in causes.yaml. */
public enum Cause {
    NO_POWER(s -> s.power = false),
    CABLE_OUT_AT_DEVICE(s -> s.deviceEnd = false),
    CABLE_OUT_AT_WALL(s -> s.wallEnd = false),
    OUTLET_DEAD(s -> s.outletPatched = false),
    PORT_OFF(s -> s.portOn = false),
    OUTLET_IN_OTHER_SEGMENT(s -> s.segment = Where.OTHER),
    WAN_SOCKET(s -> s.wanSocket = true),
    ON_WIRELESS(s -> s.onWireless = true),
    NOT_RESTARTED(s -> s.joined = false),
    NOT_REGISTERED(s -> s.entry = Entry.NONE),
    OTHER_INTERFACE_REGISTERED(s -> s.entry = Entry.SIBLING),
    MISTYPED_AT_REGISTRY(s -> s.entry = Entry.MISTYPED),
    REGISTRATION_ENDED(s -> s.entry = Entry.ENDED),
    STILL_AUTOMATIC(s -> s.address = Scene.Set.AUTOMATIC),
    NOT_SAVED(s -> {
        s.address = Scene.Set.AUTOMATIC;
        s.saved = false;
    }),
    ADDRESS_SLIP(s -> s.address = Scene.Set.SLIP),
    HELD_BY_NEWER(s -> s.holder = Holder.NEWER),
    HELD_BY_OLDER(s -> s.holder = Holder.OLDER),
    MASK_WRONG(s -> s.mask = false),
    GATEWAY_WRONG(s -> s.gateway = false),
    RESOLVER_WRONG(s -> s.resolver = Names.WRONG),
    RESOLVER_MISSING(s -> s.resolver = Names.MISSING),
    RESOLVER_DOWN(s -> s.resolverUp = false),
    GATEWAY_DOWN(s -> s.gatewayUp = false),
    SERVICE_OFF(s -> s.serviceOn = false),
    OTHER_PORT(s -> s.portRight = false),
    DEVICE_FIREWALL(s -> s.firewall = true),
    ALLOW_LIST(s -> s.allowed = false),
    PARTNER_DOWN(s -> s.partnerUp = false),
    PARTNER_POINTS_ELSEWHERE(s -> s.partnerAddress = false),
    PARTNER_OTHER_PORT(s -> s.partnerPort = false),
    PARTNER_FIREWALL(s -> s.partnerFirewall = true),
    DEVICE_POINTS_ELSEWHERE(s -> s.toPartner = false),
    CROSSED_PAIR(s -> s.crossed = true),
    WRONG_UNIT(s -> s.unit = Unit.SWAPPED),
    WRONG_VARIANT(s -> s.unit = Unit.VARIANT),
    OTHER_INTERFACE_ON_RECORD(s -> s.siblingMac = true),
    SERVER_DOWN(s -> s.serverUp = false),
    CLOCK_WRONG(s -> s.clock = false),
    CERTIFICATE(s -> s.certificate = false),
    SIGN_IN(s -> s.signIn = false),
    UPLINK_DOWN(s -> s.uplink = false),
    PROVIDER_FILTER(s -> s.providerLetsThrough = false),
    OWN_VANTAGE(s -> s.vantage = Where.OTHER);

    private final Consumer<State> change;

    Cause(Consumer<State> change) {
        this.change = change;
    }

    /** Returns the scene with this cause in it. */
    public Scene apply(Scene scene) {
        return scene.but(change);
    }
}
