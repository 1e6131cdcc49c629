package app.knottag.standins;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.kind.Protocol;
import app.knottag.core.reach.NetworkState;
import app.knottag.core.reach.SiteModel.Role;
import app.knottag.core.reach.SiteModel.Station;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The made-up devices on the bench. MACs come from the block for documentation (RFC 7042). */
final class GardenCentre {

    /** Nothing but a device on the network. */
    static final NetworkState.Traits PLAIN = new NetworkState.Traits(false, false, false, false);

    private static final String NET = "10.44.16.";
    private static final String OFFICE = "10.44.17.";
    private static final Kinds KINDS = Kinds.shipped();

    private GardenCentre() {}

    /** A device, its kind where it is an endpoint, and whether somebody has set it up already. */
    record Made(Station station, Optional<Kind> kind, boolean setUp) {}

    static List<Made> devices() {
        var made = new ArrayList<Made>();
        made.add(new Made(
                station(
                        OFFICE,
                        "office-side",
                        "Router",
                        Role.GATEWAY,
                        "00:00:5E:00:53:02",
                        "",
                        1,
                        1,
                        0,
                        "",
                        "",
                        Protocol.LINE,
                        PLAIN),
                Optional.empty(),
                true));
        made.add(new Made(
                station(
                        NET,
                        "router",
                        "Router",
                        Role.GATEWAY,
                        "00:00:5E:00:53:01",
                        "",
                        1,
                        1,
                        0,
                        "",
                        "",
                        Protocol.LINE,
                        PLAIN),
                Optional.empty(),
                true));
        for (int n = 1; n <= 5; n++)
            made.add(partner(
                    "till-" + n + "-workstation",
                    "Till " + n + " workstation",
                    "00:00:5E:00:53:9" + n,
                    30 + n,
                    "WHO ARE YOU",
                    "I AM {serial}"));
        made.add(partner("attendance", "Attendance office", "00:00:5E:00:53:A1", 12, "SERIAL", "SERIAL {serial}"));
        made.add(endpoint(
                "till-1",
                "Till 1 payment terminal",
                "counter-payment-terminal",
                "00:00:5E:00:53:11",
                "OC2-7H41-0031",
                51,
                128,
                7451,
                true));
        made.add(endpoint(
                "till-2",
                "Till 2 payment terminal",
                "counter-payment-terminal",
                "00:00:5E:00:53:17",
                "OC2-7H41-0058",
                52,
                129,
                7452,
                true));
        made.add(endpoint(
                "till-3",
                "Till 3 payment terminal",
                "counter-payment-terminal",
                "00:00:5E:00:53:1E",
                "OC2-7H41-0064",
                53,
                130,
                7453,
                false));
        made.add(endpoint(
                "till-4",
                "Till 4 payment terminal",
                "counter-payment-terminal",
                "00:00:5E:00:53:2B",
                "OC2-7H41-0093",
                54,
                131,
                7454,
                false));
        made.add(endpoint(
                "till-5",
                "Till 5 payment terminal",
                "counter-payment-terminal",
                "00:00:5E:00:53:3D",
                "OC2-7H41-0107",
                55,
                132,
                7455,
                false));
        made.add(endpoint(
                "staff-clock", "Staff time clock", "time-clock", "00:00:5E:00:53:C4", "TK204417", 20, 140, 7300, true));
        made.add(endpoint(
                "goods-in-printer",
                "Goods-in label printer",
                "label-printer",
                "00:00:5E:00:53:D2",
                "LW-30418B",
                36,
                141,
                7100,
                false));
        made.add(endpoint(
                "nursery-printer",
                "Nursery label printer",
                "label-printer",
                "00:00:5E:00:53:D9",
                "LW-30533C",
                37,
                142,
                7100,
                false));
        made.add(endpoint(
                OFFICE,
                "accounts-scanner",
                "Accounts scanner",
                "document-scanner",
                "00:00:5E:00:53:E1",
                "NS204117",
                45,
                145,
                8610,
                true));
        made.add(endpoint(
                OFFICE,
                "adas-tablet",
                "Ada's tablet",
                "own-device",
                "00:00:5E:00:53:EA",
                "AT-2044-17",
                44,
                144,
                10080,
                true));
        for (String net : List.of(NET, OFFICE)) made.add(relay(net));
        made.addAll(OtherSites.devices());
        return made;
    }

    /** The mail relay of a network. */
    static Made relay(String net) {
        String third = net.split("\\.")[2];
        return new Made(
                station(
                        net,
                        "relay-" + third,
                        "Mail relay",
                        Role.RELAY,
                        "00:00:5E:00:53:A" + (Integer.parseInt(third) % 4 + 2),
                        "",
                        9,
                        9,
                        587,
                        "",
                        "",
                        Protocol.SMTP,
                        PLAIN),
                Optional.empty(),
                true);
    }

    private static Made partner(String id, String name, String mac, int host, String ask, String answer) {
        return partner(NET, id, name, mac, host, ask, answer);
    }

    static Made partner(String net, String id, String name, String mac, int host, String ask, String answer) {
        return new Made(
                station(net, id, name, Role.PARTNER, mac, "", host, host, 7500, ask, answer, Protocol.LINE, PLAIN),
                Optional.empty(),
                true);
    }

    private static Made endpoint(
            String id,
            String name,
            String kindId,
            String mac,
            String serial,
            int host,
            int leased,
            int port,
            boolean setUp) {
        return endpoint(NET, id, name, kindId, mac, serial, host, leased, port, setUp);
    }

    static Made endpoint(
            String net,
            String id,
            String name,
            String kindId,
            String mac,
            String serial,
            int host,
            int leased,
            int port,
            boolean setUp) {
        var kind = KINDS.get(kindId);
        var service = kind.service();
        var station = station(
                net,
                id,
                name,
                Role.ENDPOINT,
                mac,
                serial,
                host,
                leased,
                port,
                service.ask(),
                service.answer().replace("{serial}", serial),
                service.protocol(),
                new NetworkState.Traits(
                        net.equals(OFFICE),
                        !service.partnerAsk().isEmpty(),
                        service.tellsSerial(),
                        kind.talks().stream().anyMatch(t -> t.to() == Kind.Talk.To.INTERNET),
                        kind.wireless() ? NetworkState.Joined.WIRELESS : NetworkState.Joined.CABLE));
        return new Made(setUp ? station : station.withAddress(true, Optional.empty()), Optional.of(kind), setUp);
    }

    static Station station(
            String net,
            String id,
            String name,
            Role role,
            String mac,
            String serial,
            int host,
            int leased,
            int port,
            String ask,
            String answer,
            Protocol protocol,
            NetworkState.Traits traits) {
        return new Station(
                id,
                name,
                role,
                Mac.parse(mac),
                serial,
                false,
                Optional.of(Ipv4Address.parse(net + host)),
                Ipv4Address.parse(net + leased),
                port,
                ask,
                answer,
                protocol,
                traits,
                List.of());
    }
}
