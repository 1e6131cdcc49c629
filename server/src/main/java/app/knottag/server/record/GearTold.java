package app.knottag.server.record;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.gear.GearReading;
import app.knottag.core.reach.CheckRunner;
import app.knottag.core.reach.Target.Told;
import app.knottag.server.db.Json;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/**
 * What routers that were read just now say of an address in their own tables: they send there by them. What a switch keeps of whom
 * it once talked with itself says nothing of who answers now.
 */
@Component
public class GearTold {

    record ReadingRow(String gear, Instant at, Json reading) {}

    @Mapper
    interface Fresh {

        @Select("""
                select g.name as gear, r.at, r.reading from gear_reading r join gear g on g.id = r.gear_id
                where r.site_id = #{siteId} and g.type = 'ROUTER' and r.at > #{since} order by r.at desc""")
        List<ReadingRow> readings(@Param("siteId") long siteId, @Param("since") Instant since);
    }

    private final Fresh store;
    private final Clock clock;
    private final JsonMapper json;

    GearTold(Fresh store, Clock clock, JsonMapper json) {
        this.store = store;
        this.clock = clock;
        this.json = json;
    }

    /** Returns who has an address by the table that was read last. */
    public Optional<Told> of(long siteId, Ipv4Address address) {
        var since = clock.instant().minus(Duration.ofMinutes(CheckRunner.TABLE_MINUTES));
        return store.readings(siteId, since).stream()
                .flatMap(r -> json.readValue(r.reading().text(), GearReading.class).neighbours().stream()
                        .filter(n -> n.address().equals(address))
                        .map(n -> new Told(n.mac(), r.gear(), r.at())))
                .findFirst();
    }
}
