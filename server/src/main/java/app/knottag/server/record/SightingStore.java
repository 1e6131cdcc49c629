package app.knottag.server.record;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Sighting.Source;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** What pasted lists say about who was seen where. */
@Mapper
public interface SightingStore {

    record SightingRow(Ipv4Address address, Mac mac, Source source, Instant seenAt, Instant leaseEnds) {

        /** Somebody who answered. */
        public static SightingRow heard(Ipv4Address address, Mac mac, Instant at) {
            return new SightingRow(address, mac, Source.NEIGHBOURS, at, null);
        }
    }

    record AnswerRow(Source source, Instant at) {}

    // The newest word of each source on each address and MAC is enough to judge by.
    @Select("""
            select distinct on (source, address, mac) address, mac, source, seen_at, lease_ends from sighting
            where site_id = #{siteId} and seen_at > now() - interval '400 days' order by source, address, mac, seen_at desc""")
    List<SightingRow> latest(long siteId);

    @Select("select source, at from look where site_id = #{siteId}")
    List<AnswerRow> questions(long siteId);

    @Insert("""
            insert into sighting (site_id, address, mac, source, seen_at, lease_ends, by)
            values (#{siteId}, #{s.address}, #{s.mac}, #{s.source}, #{s.seenAt}, #{s.leaseEnds}, #{by})""")
    void add(@Param("siteId") long siteId, @Param("s") SightingRow sighting, @Param("by") String by);

    @Insert("""
            insert into look (site_id, source, at) values (#{siteId}, #{source}, #{at})
            on conflict (site_id, source) do update set at = greatest(look.at, excluded.at)""")
    void looked(@Param("siteId") long siteId, @Param("source") Source source, @Param("at") Instant at);
}
