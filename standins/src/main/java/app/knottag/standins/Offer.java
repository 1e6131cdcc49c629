package app.knottag.standins;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.reach.Scene;
import app.knottag.core.reach.SiteModel;
import app.knottag.core.reach.SiteModel.Station;
import java.util.List;

/**
 * What a station offers at an address just now; when any of it changes the sockets are opened anew.
 *
 * @param port how its service port answers: open, refused or silent
 * @param network what stands between here and the services of its network
 */
record Offer(Station station, Ipv4Address at, String port, boolean echo, String says, boolean lets, Network network) {

    /** What is wrong in a network as a whole, brought about at any device in it. */
    record Network(boolean resolver, boolean uplink, boolean server, boolean provider, boolean certificate) {
        static Network of(List<Station> stations, Ipv4Address address) {
            var scenes = stations.stream()
                    .filter(s -> SiteModel.network(s.leased()).equals(SiteModel.network(address)))
                    .map(Station::scene)
                    .toList();
            return new Network(
                    scenes.stream().allMatch(Scene::resolverUp),
                    scenes.stream().allMatch(Scene::uplinkUp),
                    scenes.stream().allMatch(Scene::serverUp),
                    scenes.stream().allMatch(Scene::providerLetsThrough),
                    scenes.stream().allMatch(Scene::certificateGood));
        }
    }

    static Offer of(Station s, Ipv4Address at, Network network) {
        String port = s.port() == 0
                ? "refused"
                : s.scene().stands() == Scene.Stands.POOL ? "open" : s.scene().portState();
        return new Offer(
                s, at, port, s.scene().answersBack(), s.says(), s.scene().letsCallersIn(), network);
    }

    /** Everything that decides, as one text. */
    String key() {
        return String.join(
                " ", station.id(), at.toString(), "" + station.port(), port, says, "" + echo, "" + lets, "" + network);
    }
}
