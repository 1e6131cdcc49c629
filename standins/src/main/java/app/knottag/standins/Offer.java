package app.knottag.standins;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.reach.NetworkState;
import app.knottag.core.reach.Outcome;
import app.knottag.core.reach.SiteModel;
import app.knottag.core.reach.SiteModel.Station;
import java.util.List;

/**
 * What a station offers at an address just now; when any of it changes the sockets are opened anew.
 *
 * @param port how its service port answers: open, refused, silent or unreachable
 * @param echo how it answers echoes: answers, lossy or silent
 * @param service what its service does with a caller: right, none or barred, among others
 * @param network what stands between here and the services of its network
 */
record Offer(
        Station station, Ipv4Address at, Outcome port, Outcome echo, String says, Outcome service, Network network) {

    /** What is wrong in a network as a whole, brought about at any device in it. */
    record Network(boolean resolver, boolean uplink, boolean server, boolean provider, boolean certificate) {
        static Network of(List<Station> stations, Ipv4Address address) {
            var scenes = stations.stream()
                    .filter(s -> SiteModel.network(s.leased()).equals(SiteModel.network(address)))
                    .map(Station::scene)
                    .toList();
            return new Network(
                    scenes.stream().allMatch(NetworkState::resolverUp),
                    scenes.stream().allMatch(NetworkState::uplinkUp),
                    scenes.stream().allMatch(NetworkState::serverUp),
                    scenes.stream().allMatch(NetworkState::providerLetsThrough),
                    scenes.stream().allMatch(NetworkState::certificateGood));
        }
    }

    static Offer of(Station s, Ipv4Address at, Network network) {
        var scene = s.scene();
        boolean away = !at.equals(s.planned());
        var port = s.port() == 0 ? Outcome.REFUSED : away ? Outcome.OPEN : scene.portState();
        return new Offer(
                s, at, port, away ? Outcome.ANSWERS : scene.echoState(), s.says(), scene.serviceState(), network);
    }

    /** Everything that decides, as one text. */
    String key() {
        return String.join(
                " ",
                station.id(),
                at.toString(),
                "" + station.port(),
                "" + port,
                says,
                "" + echo,
                "" + service,
                "" + station.scene().clockRight(),
                "" + network);
    }
}
