package app.knottag.server.change;

import app.knottag.core.handover.TagCode;
import app.knottag.core.kind.Kind;
import app.knottag.core.plan.NameRule;
import app.knottag.core.series.Series.Counts;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.SiteStore.SeriesRow;
import app.knottag.server.record.Sites;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** The series, ports, names and codes that a new endpoint gets by the rules of its site. */
@Component
public class Numbering {

    private final EndpointStore store;
    private final SiteStore siteStore;
    private final Sites sites;

    Numbering(EndpointStore store, SiteStore siteStore, Sites sites) {
        this.store = store;
        this.siteStore = siteStore;
        this.sites = sites;
    }

    /** The series that an endpoint is numbered in: the one asked for, none for 0, else that of its kind's name. */
    public Optional<SeriesRow> seriesOf(long siteId, Kind kind, Long wanted) {
        return siteStore.series(siteId).stream()
                .filter(s -> wanted != null ? s.id() == wanted : s.name().equals(kind.series()))
                .findFirst();
    }

    /** The series that count along with another one, such as listening ports with the tills. */
    public List<SeriesRow> following(SeriesRow main) {
        return siteStore.series(main.siteId()).stream()
                .filter(s -> Objects.equals(s.followsId(), main.id()))
                .toList();
    }

    /** The port that goes with the number, or the kind's own. */
    public Integer servicePort(Kind kind, Optional<SeriesRow> series, Integer number) {
        return series.flatMap(s -> Sites.plain(s).port(number).stream().boxed().findFirst())
                .orElse(kind.service().defaultPort());
    }

    /** The port on which the partner listens for this one, when a series of listening ports counts along. */
    public Optional<Integer> partnerPort(Optional<SeriesRow> series, Integer number) {
        return series.flatMap(main -> following(main).stream()
                .filter(s -> s.counts() == Counts.LISTENING_PORT)
                .flatMap(s -> Sites.plain(s).port(number).stream().boxed())
                .findFirst());
    }

    /** The host name that the site's rule gives. */
    public String hostName(long siteId, Kind kind, Optional<SeriesRow> series, Integer number, String place) {
        var site = sites.site(siteId);
        return new NameRule(site.nameRule())
                .name(
                        Map.of(
                                "site",
                                site.code(),
                                "kind",
                                kind.shortName(),
                                "series",
                                series.map(SeriesRow::name).orElse(""),
                                "number",
                                number == null ? "" : "" + number,
                                "place",
                                place),
                        store.hostNames(siteId));
    }

    /** The next free tag code of a kind. */
    public String tagCode(long siteId, Kind kind, Integer number) {
        String site = sites.site(siteId).code();
        var used = store.tagCodes(site + "-" + kind.codeLetter());
        for (int n = number == null ? 1 : number; ; n++) {
            String code = TagCode.of(site, kind.codeLetter() + n);
            if (!used.contains(code)) return code;
        }
    }
}
