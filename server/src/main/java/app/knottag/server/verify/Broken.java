package app.knottag.server.verify;

import app.knottag.core.runbook.Stage.Station;
import app.knottag.core.today.Notice;
import app.knottag.server.record.Noticing;
import app.knottag.server.verify.BrokenStore.BrokenRow;
import app.knottag.server.web.Scope;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.OptionalLong;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Tells what does not hold any more, or never did: one line for each site and station. */
@Component
class Broken implements Noticing {

    private final BrokenStore store;

    Broken(BrokenStore store) {
        this.store = store;
    }

    private record Together(Notice.Site site, Station station) {}

    @Override
    public List<Notice> notices(Instant now, Scope scope) {
        return store.broken().stream()
                .collect(Collectors.groupingBy(
                        r -> new Together(new Notice.Site(r.siteId(), r.site()), r.station()),
                        LinkedHashMap::new,
                        Collectors.toList()))
                .entrySet()
                .stream()
                .map(e -> notice(e.getKey(), e.getValue()))
                .toList();
    }

    private static Notice notice(Together where, List<BrokenRow> rows) {
        var since = rows.stream().map(BrokenRow::since).min(Instant::compareTo).orElseThrow();
        return Notice.broken(
                where.site,
                where.station,
                rows.stream().map(BrokenRow::endpoint).toList(),
                rows.size() == 1 ? OptionalLong.of(rows.get(0).endpointId()) : OptionalLong.empty(),
                since);
    }
}
