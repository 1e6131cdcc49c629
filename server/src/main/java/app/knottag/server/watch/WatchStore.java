package app.knottag.server.watch;

import app.knottag.core.time.DateStyle;
import java.time.Instant;
import java.time.LocalTime;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** At which sites somebody looks every night, and in which hours. */
@Mapper
interface WatchStore {

    record WatchRow(
            long siteId,
            String site,
            String zone,
            DateStyle dates,
            LocalTime fromTime,
            LocalTime untilTime,
            Instant since,
            String by) {}

    String WATCH = """
            select w.site_id, s.name as site, s.zone, s.dates, w.from_time, w.until_time, w.since, w.by
            from watch w join site s on s.id = w.site_id\s""";

    @Select(WATCH + "order by s.name, s.id")
    List<WatchRow> all();

    @Select(WATCH + "where w.site_id = #{siteId}")
    Optional<WatchRow> find(long siteId);

    @Insert("""
            insert into watch (site_id, from_time, until_time, since, by) values (#{siteId}, #{from}, #{until}, #{since}, #{by})
            on conflict (site_id) do update set from_time = excluded.from_time, until_time = excluded.until_time,
            since = excluded.since, by = excluded.by""")
    void put(
            @Param("siteId") long siteId,
            @Param("from") LocalTime from,
            @Param("until") LocalTime until,
            @Param("since") Instant since,
            @Param("by") String by);

    @Delete("delete from watch where site_id = #{siteId}")
    int end(long siteId);
}
