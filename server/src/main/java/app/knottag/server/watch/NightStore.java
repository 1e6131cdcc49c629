package app.knottag.server.watch;

import app.knottag.core.watch.Morning.News;
import app.knottag.server.db.Json;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Nights as they went, look by look, and what they have to tell. */
@Mapper
interface NightStore {

    /**
     * One night.
     *
     * @param morning the day on which it ended; null for looks that somebody asked for
     * @param endedAt null while it goes on
     */
    record NightRow(
            long id,
            long siteId,
            String site,
            @Nullable LocalDate morning,
            String by,
            Instant startedAt,
            @Nullable Instant endedAt,
            Json outcome,
            boolean read) {

        boolean goesOn() {
            return Optional.ofNullable(endedAt).isEmpty();
        }

        boolean asked() {
            return Optional.ofNullable(morning).isEmpty();
        }
    }

    String NIGHT = """
            select n.id, n.site_id, s.name as site, n.morning, n.by, n.started_at, n.ended_at, n.outcome, n.read_at is not null as read
            from night n join site s on s.id = n.site_id\s""";

    @Select("""
            insert into night (site_id, morning, by, started_at) values (#{siteId}, #{morning}, #{by}, #{at})
            on conflict (site_id, morning) do nothing returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    Optional<Long> begin(
            @Param("siteId") long siteId,
            @Param("morning") LocalDate morning,
            @Param("by") String by,
            @Param("at") Instant at);

    @Select("insert into night (site_id, by, started_at) values (#{siteId}, #{by}, #{at}) returning id")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long beginNow(@Param("siteId") long siteId, @Param("by") String by, @Param("at") Instant at);

    @Select(NIGHT + "where n.id = #{id}")
    Optional<NightRow> find(long id);

    @Select(NIGHT + "where n.site_id = #{siteId} and n.morning = #{morning}")
    Optional<NightRow> of(@Param("siteId") long siteId, @Param("morning") LocalDate morning);

    @Select(NIGHT + "where n.ended_at is null order by n.id")
    List<NightRow> open();

    @Select(NIGHT + "where n.site_id = #{siteId} order by n.id desc limit 60")
    List<NightRow> lately(long siteId);

    /** The last night of each site, when it has ended since and nobody has read it; who asked for looks has seen them. */
    @Select(NIGHT + """
            where n.ended_at > #{since} and n.read_at is null
            and n.id = (select max(l.id) from night l
              where l.site_id = n.site_id and l.morning is not null and l.ended_at is not null)
            order by n.id limit 200""")
    List<NightRow> unread(Instant since);

    @Select(NIGHT
            + "where n.morning is not null and n.mailed_at is null and n.ended_at > #{since} order by s.name, n.id")
    List<NightRow> unmailed(Instant since);

    @Update("""
            update night set mailed_at = #{at} where id = any(
            #{ids,typeHandler=org.apache.ibatis.type.ArrayTypeHandler}::bigint[])""")
    int mailed(@Param("ids") Long[] ids, @Param("at") Instant at);

    @Update("update night set read_at = #{at} where id = #{id} and ended_at is not null")
    int read(@Param("id") long id, @Param("at") Instant at);

    @Update("update night set ended_at = #{at}, outcome = #{outcome} where id = #{id} and ended_at is null")
    int end(@Param("id") long id, @Param("at") Instant at, @Param("outcome") Json outcome);

    /**
     * One look of a night.
     *
     * @param answered how many answered, or -1 where nobody was counted
     */
    record LookRow(String key, String what, Instant at, String whyNot, int answered) {}

    @Insert("""
            insert into night_look (night_id, key, what, at, why_not, answered)
            values (#{nightId}, #{l.key}, #{l.what}, #{l.at}, #{l.whyNot}, #{l.answered}) on conflict do nothing""")
    void addLook(@Param("nightId") long nightId, @Param("l") LookRow look);

    @Select("select key, what, at, why_not, answered from night_look where night_id = #{nightId} order by at, key")
    List<LookRow> looks(long nightId);

    /** A line of what a night tells. */
    record LineRow(News news, String about, String what, long endpointId, String title, String detail, Instant since) {}

    @Insert("""
            insert into night_line (night_id, news, about, what, endpoint_id, title, detail, since) values (#{nightId}, #{l.news},
            #{l.about}, #{l.what}, nullif(#{l.endpointId}, 0), #{l.title}, #{l.detail}, #{l.since})""")
    void addLine(@Param("nightId") long nightId, @Param("l") LineRow line);

    @Select("""
            select news, about, what, coalesce(endpoint_id, 0) as endpoint_id, title, detail, since
            from night_line where night_id = #{nightId} order by array_position(array['NEW', 'STILL', 'WELL'], news), id""")
    List<LineRow> lines(long nightId);

    /** Of nights that are some weeks back only the news is kept. */
    @Delete("""
            with old as (
              select id from night where site_id = #{siteId} and ended_at < #{before}
              and ended_at > #{before}::timestamptz - interval '10 days'),
            looks as (delete from night_look where night_id in (select id from old))
            delete from night_line where news = 'STILL' and night_id in (select id from old)""")
    void thin(@Param("siteId") long siteId, @Param("before") Instant before);

    /** What stood not as it should when it was looked at last. */
    record StandingRow(String about, String what, long endpointId, String title, String detail, Instant since) {}

    @Select("""
            select about, what, coalesce(endpoint_id, 0) as endpoint_id, title, detail, since from watch_standing
            where site_id = #{siteId} and look = #{look} order by about, what""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<StandingRow> standing(@Param("siteId") long siteId, @Param("look") String look);

    @Delete("delete from watch_standing where site_id = #{siteId} and look = #{look}")
    void forget(@Param("siteId") long siteId, @Param("look") String look);

    /** Forgets what stood at what is looked at no longer. */
    @Delete("""
            delete from watch_standing where site_id = #{siteId} and not look = any(
            #{looks,typeHandler=org.apache.ibatis.type.ArrayTypeHandler}::text[])""")
    void forgetGone(@Param("siteId") long siteId, @Param("looks") String[] looks);

    @Insert("""
            insert into watch_standing (site_id, look, about, what, endpoint_id, title, detail, since) values (#{siteId}, #{look},
            #{s.about}, #{s.what}, nullif(#{s.endpointId}, 0), #{s.title}, #{s.detail}, #{s.since}) on conflict do nothing""")
    void stands(@Param("siteId") long siteId, @Param("look") String look, @Param("s") StandingRow standing);

    record HadRow(long siteId, LocalDate morning) {}

    /** The nights of some sites that had any look made, from a day on. */
    @Select("""
            select site_id, morning from night where morning >= #{from} and outcome->>'looked' <> '0'
            and site_id in (select site_id from watch)""")
    List<HadRow> had(LocalDate from);
}
