package app.knottag.server.record;

import app.knottag.core.handover.TagCode;
import app.knottag.core.kind.Kinds;
import app.knottag.core.runbook.Stage;
import app.knottag.server.db.Json;
import app.knottag.server.log.Log;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Begins a site like another one: its layout, series, registries and plan, without any unit. */
@Service
public class SiteCopies {

    private final SiteCopyStore store;
    private final Sites sites;
    private final Kinds kinds;
    private final Log log;
    private final JsonMapper json;

    SiteCopies(SiteCopyStore store, Sites sites, Kinds kinds, Log log, JsonMapper json) {
        this.store = store;
        this.sites = sites;
        this.kinds = kinds;
        this.log = log;
        this.json = json;
    }

    private record Coded(long id, String code, int version) {}

    /** Takes over what is planned at a site into one that was just added. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void take(long from, long to, String by) {
        var like = sites.site(from);
        String code = sites.site(to).code();
        store.segments(from, to);
        store.pools(from, to);
        store.places(from, to);
        store.gear(from, to);
        store.ports(from, to);
        store.outlets(from, to);
        store.partners(from, to);
        store.series(from, to);
        store.follows(from, to);
        store.services(from, to);
        store.busyTimes(from, to);
        store.registries(from, to);
        store.rest(from, to);
        List<Coded> coded = store.endpoints(from).stream()
                .map(e -> new Coded(
                        e.id(),
                        TagCode.of(code, label(like.code(), e.tagCode())),
                        kinds.get(e.kind()).version()))
                .toList();
        int endpoints = store.planned(
                from, to, new Json(json.writeValueAsString(coded)), Stage.planned(false), Stage.planned(true));
        log.write(Log.entry(by, "began like another site")
                .at(to)
                .after(Map.of("name", like.name(), "endpoints", endpoints)));
    }

    /** What stands between the code of the site and the check characters, such as T4. */
    private static String label(String site, String code) {
        return code.substring(site.length() + 1, code.lastIndexOf('-'));
    }
}
