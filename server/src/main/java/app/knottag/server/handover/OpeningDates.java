package app.knottag.server.handover;

import app.knottag.core.time.DateStyle;
import app.knottag.core.time.SiteClock;
import app.knottag.core.today.Notice;
import app.knottag.server.record.Appointments;
import app.knottag.server.record.Noticing;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Scope;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.OptionalLong;
import java.util.stream.Collectors;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.springframework.stereotype.Component;

/** Tells of what stands open when its day comes: in calendars, and once it has passed under what is due today. */
@Component
class OpeningDates implements Noticing, Appointments {

    record OpenRow(
            long siteId,
            String site,
            String zone,
            DateStyle dates,
            long endpointId,
            String endpoint,
            String key,
            String title,
            String owner,
            LocalDate endsOn) {}

    @Mapper
    interface Openings {

        String OPEN = """
                select s.id as site_id, s.name as site, s.zone, s.dates, e.id as endpoint_id, e.name as endpoint, o.key, o.title, o.owner,
                o.ends_on from opening o join endpoint e on e.id = o.endpoint_id and e.retired_at is null join site s on s.id = e.site_id
                where not o.closed and o.ends_on is not null\s""";

        /** Those whose day has passed by the clock of their site; never more than a page of them. */
        @Select(OPEN + "and o.ends_on < #{latest} order by o.ends_on, e.id limit 200")
        List<OpenRow> before(LocalDate latest);

        @Select(OPEN + "and s.id = #{siteId} order by o.ends_on, e.id limit 500")
        List<OpenRow> ofSite(long siteId);
    }

    private final Openings openings;
    private final Sites sites;

    OpeningDates(Openings openings, Sites sites) {
        this.openings = openings;
        this.sites = sites;
    }

    private record Together(long siteId, String title, String owner, LocalDate endsOn) {}

    @Override
    public List<Notice> notices(Instant now, Scope scope) {
        // Nowhere on earth is it later than a day after UTC.
        return openings.before(now.atZone(ZoneOffset.UTC).toLocalDate().plusDays(1)).stream()
                .filter(o -> o.endsOn().isBefore(now.atZone(ZoneId.of(o.zone())).toLocalDate()))
                .collect(Collectors.groupingBy(
                        o -> new Together(o.siteId(), o.title(), o.owner(), o.endsOn()),
                        LinkedHashMap::new,
                        Collectors.toList()))
                .values()
                .stream()
                .map(alike -> notice(alike, now))
                .toList();
    }

    private static Notice notice(List<OpenRow> alike, Instant now) {
        var o = alike.get(0);
        return Notice.closing(
                new Notice.Site(o.siteId(), o.site()),
                o.title(),
                o.owner(),
                alike.stream().map(OpenRow::endpoint).toList(),
                alike.size() == 1 ? OptionalLong.of(o.endpointId()) : OptionalLong.empty(),
                o.endsOn(),
                new SiteClock(now, ZoneId.of(o.zone()), o.dates()));
    }

    @Override
    public List<Appointment> of(long siteId) {
        var zone = sites.clock(siteId).zone();
        return openings.ofSite(siteId).stream()
                .map(o -> {
                    var day = o.endsOn().atStartOfDay(zone).toInstant();
                    return new Appointment(
                            "opening-" + o.endpointId() + "-" + o.key(),
                            day,
                            day,
                            true,
                            "Close “" + o.title() + "” on " + o.endpoint(),
                            o.owner() + " has it in hand.");
                })
                .toList();
    }
}
