package app.knottag.server.register;

import app.knottag.core.register.CalendarText;
import app.knottag.core.register.LeadTimes;
import app.knottag.core.register.Reminders.Reminder;
import app.knottag.server.record.Appointments;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Idempotency;
import app.knottag.server.web.Problem;
import java.security.Principal;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import net.fortuna.ical4j.model.Calendar;
import net.fortuna.ical4j.model.TimeZoneRegistryFactory;
import net.fortuna.ical4j.model.component.VAlarm;
import net.fortuna.ical4j.model.component.VEvent;
import net.fortuna.ical4j.model.property.Action;
import net.fortuna.ical4j.model.property.Description;
import net.fortuna.ical4j.model.property.ProdId;
import net.fortuna.ical4j.model.property.Uid;
import net.fortuna.ical4j.model.property.XProperty;
import net.fortuna.ical4j.model.property.immutable.ImmutableMethod;
import net.fortuna.ical4j.model.property.immutable.ImmutableVersion;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Reminders as iCalendar (RFC 5545): a file, and a feed whose address is its key. */
@RestController
class Calendars {

    private static final String TYPE = "text/calendar;charset=UTF-8";
    private static final int FEEDS_EACH = 5;

    @Mapper
    interface Feeds {
        @Insert("insert into calendar_feed (token_hash, site_id, person) values (#{hash}, #{siteId}, #{person})")
        void add(@Param("hash") byte[] hash, @Param("siteId") long siteId, @Param("person") String person);

        /** As long as whoever began it works at the site. */
        @Select("""
                select f.site_id from calendar_feed f join person p on p.name = f.person and p.closed_at is null
                where f.token_hash = #{hash} and (p.role = 'LEAD' or p.every_site
                  or exists (select 1 from person_site w where w.person_id = p.id and w.site_id = f.site_id))""")
        Long site(byte[] hash);

        @Select("select count(*) from calendar_feed where site_id = #{siteId} and person = #{person}")
        int count(@Param("siteId") long siteId, @Param("person") String person);

        @Delete("delete from calendar_feed where site_id = #{siteId} and person = #{person}")
        int end(@Param("siteId") long siteId, @Param("person") String person);
    }

    record FeedView(String path) {}

    record FeedCount(int feeds) {}

    private final Feeds feeds;
    private final Housekeeping housekeeping;
    private final RegistryLines shown;
    private final Sites sites;
    private final List<Appointments> appointments;
    private final Clock clock;
    private final SecureRandom random = new SecureRandom();

    Calendars(
            Feeds feeds,
            Housekeeping housekeeping,
            RegistryLines shown,
            Sites sites,
            List<Appointments> appointments,
            Clock clock) {
        this.feeds = feeds;
        this.housekeeping = housekeeping;
        this.shown = shown;
        this.sites = sites;
        this.appointments = appointments;
        this.clock = clock;
    }

    @GetMapping(path = "/api/sites/{siteId}/reminders.ics", produces = TYPE)
    ResponseEntity<String> file(@PathVariable long siteId) {
        return ResponseEntity.ok()
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        "attachment; filename=\"" + sites.site(siteId).code() + "-reminders.ics\"")
                .body(calendar(siteId));
    }

    /** How many feeds this person has of this site; their addresses are not kept. */
    @GetMapping("/api/sites/{siteId}/calendar-feeds")
    FeedCount feeds(@PathVariable long siteId, Principal by) {
        return new FeedCount(feeds.count(siteId, by.getName()));
    }

    @PostMapping("/api/sites/{siteId}/calendar-feeds")
    @ResponseStatus(HttpStatus.CREATED)
    @Transactional
    public FeedView begin(@PathVariable long siteId, Principal by) {
        sites.site(siteId);
        if (feeds.count(siteId, by.getName()) >= FEEDS_EACH)
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "too-many-feeds",
                    "You have " + FEEDS_EACH + " feeds of this site. End them first.");
        byte[] key = new byte[24];
        random.nextBytes(key);
        String token = HexFormat.of().formatHex(key);
        feeds.add(Idempotency.sha256(token), siteId, by.getName());
        return new FeedView("/feeds/" + token + ".ics");
    }

    @DeleteMapping("/api/sites/{siteId}/calendar-feeds")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    @Transactional
    public void end(@PathVariable long siteId, Principal by) {
        feeds.end(siteId, by.getName());
    }

    /** Calendars cannot sign in: whoever has the address may read. It tells what is due and no MAC or serial. */
    @GetMapping(path = "/feeds/{token}.ics", produces = TYPE)
    ResponseEntity<String> feed(@PathVariable String token) {
        Long siteId = token.matches("[0-9a-f]{48}") ? feeds.site(Idempotency.sha256(token)) : null;
        if (siteId == null) throw Problem.notFound("There is no such feed, or it was ended.");
        return ResponseEntity.ok().cacheControl(CacheControl.noStore()).body(calendar(siteId));
    }

    private String calendar(long siteId) {
        var site = sites.site(siteId);
        var zone = shown.clock(siteId).zone();
        var held = housekeeping.site(siteId);
        var calendar = new Calendar();
        calendar.add(new ProdId("-//Knot Tag//Register//EN"));
        calendar.add(ImmutableVersion.VERSION_2_0);
        calendar.add(ImmutableMethod.PUBLISH);
        calendar.add(new XProperty("X-WR-CALNAME", site.name() + ": due"));
        // Calendars that do not know the zone by its name need its rules.
        var rules = TimeZoneRegistryFactory.getInstance().createRegistry().getTimeZone(zone.getId());
        if (rules != null) calendar.add(rules.getVTimeZone());
        for (var r : housekeeping.reminders(held)) calendar.add(event(r, site.code(), zone));
        for (var o : housekeeping.leadTimes(held).items())
            o.by().filter(d -> !o.item().done()).ifPresent(d -> calendar.add(order(o, d, site.code())));
        for (var a : appointments) a.of(siteId).forEach(v -> calendar.add(visit(v, site.code(), zone)));
        return CalendarText.fold(calendar.toString());
    }

    private VEvent event(Reminder r, String code, ZoneId zone) {
        var now = clock.instant();
        // What is overdue is due today, at the next full hour.
        ZonedDateTime at = (r.at().isBefore(now) ? now : r.at()).atZone(zone);
        var start = r.at().isBefore(now)
                ? at.withMinute(0).withSecond(0).withNano(0).plusHours(1)
                : at;
        var event = new VEvent(start, Duration.ofMinutes(15), r.title());
        event.add(new Uid(r.key() + "@" + code.toLowerCase(Locale.ROOT) + ".knot-tag"));
        if (!r.detail().isEmpty()) event.add(new Description(r.detail()));
        var alarm = new VAlarm(Duration.ofMinutes(-30));
        alarm.add(new Action("DISPLAY"));
        alarm.add(new Description(r.title()));
        event.add(alarm);
        return event;
    }

    private static VEvent visit(Appointments.Appointment a, String code, ZoneId zone) {
        var from = a.from().atZone(zone);
        var event = a.wholeDay()
                ? new VEvent(from.toLocalDate(), a.title())
                : new VEvent(from, Duration.between(a.from(), a.until()), a.title());
        event.add(new Uid(a.key() + "@" + code.toLowerCase(Locale.ROOT) + ".knot-tag"));
        event.add(new Description(a.detail()));
        return event;
    }

    private static VEvent order(LeadTimes.OrderBy o, LocalDate by, String code) {
        var event = new VEvent(by, "Order: " + o.item().name());
        event.add(new Uid(
                "order-" + Math.abs(o.item().name().hashCode()) + "@" + code.toLowerCase(Locale.ROOT) + ".knot-tag"));
        event.add(new Description("Takes " + o.item().days() + " days"
                + (o.item().who().isEmpty() ? "." : " by " + o.item().who() + ".")));
        return event;
    }
}
