package app.knottag.server.visit;

import app.knottag.server.db.Json;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Visits as they stand in the database. */
@Mapper
interface VisitStore {

    record VisitRow(
            long id,
            long siteId,
            String name,
            Instant begins,
            @Nullable Instant due,
            Json brief,
            @Nullable Json plan,
            @Nullable Instant beganAt,
            @Nullable Instant endedAt,
            int version) {}

    record UnitRow(long endpointId, boolean bench) {}

    record HandRow(int person, long endpointId, Json steps, Instant since) {}

    /** Hands of one step as they really were, beside what was planned. */
    record MinutesRow(long endpointId, String kind, String step, int minutes, int planned) {}

    String ROW = "select id, site_id, name, begins, due, brief, plan, began_at, ended_at, version from visit ";

    @Select(ROW + "where id = #{id}")
    @Nullable
    VisitRow find(long id);

    record LineRow(
            long id,
            long siteId,
            String site,
            String name,
            Instant begins,
            @Nullable Instant due,
            Json brief,
            @Nullable Instant beganAt,
            @Nullable Instant endedAt,
            int units) {}

    String LINE = """
            select v.id, v.site_id, s.name as site, v.name, v.begins, v.due, v.brief, v.began_at, v.ended_at,
            (select count(*)::int from visit_unit u where u.visit_id = v.id) as units
            from visit v join site s on s.id = v.site_id """;

    @Select(LINE + " where v.ended_at is null order by v.begins, v.id limit 100")
    List<LineRow> open();

    @Select(LINE + " where v.site_id = #{siteId} order by v.begins desc, v.id desc limit 100")
    List<LineRow> ofSite(long siteId);

    @Select("""
            insert into visit (site_id, name, begins, due, brief)
            values (#{siteId}, #{name}, #{begins}, #{due}, #{brief}) returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long add(VisitRow row);

    @Update("""
            update visit set name = #{name}, begins = #{begins}, due = #{due}, brief = #{brief}, version = version + 1
            where id = #{id} and version = #{version} and ended_at is null""")
    int change(VisitRow row);

    @Update(
            "update visit set brief = #{brief}, version = version + 1 where id = #{id} and version = #{version} and ended_at is null")
    int brief(@Param("id") long id, @Param("version") int version, @Param("brief") Json brief);

    @Update("update visit set plan = #{plan} where id = #{id} and version = #{version}")
    int plan(@Param("id") long id, @Param("version") int version, @Param("plan") Json plan);

    @Update(
            "update visit set began_at = #{at}, version = version + 1 where id = #{id} and version = #{version} and began_at is null")
    int begin(@Param("id") long id, @Param("version") int version, @Param("at") Instant at);

    @Update("""
            update visit set ended_at = #{at}, version = version + 1
            where id = #{id} and version = #{version} and began_at is not null and ended_at is null""")
    int end(@Param("id") long id, @Param("version") int version, @Param("at") Instant at);

    @Select("select endpoint_id, bench from visit_unit where visit_id = #{id} order by endpoint_id")
    List<UnitRow> units(long id);

    /** Those of some endpoints that are at a site, and not retired. */
    @Select("""
            <script>select id from endpoint where site_id = #{siteId} and retired_at is null and id in
            <foreach collection="ids" item="id" open="(" separator="," close=")">#{id}</foreach></script>""")
    Set<Long> there(@Param("siteId") long siteId, @Param("ids") Collection<Long> ids);

    record NameRow(long endpointId, String name, String place) {}

    @Select("""
            select u.endpoint_id, e.name, coalesce(p.name, '') as place from visit_unit u
            join endpoint e on e.id = u.endpoint_id left join place p on p.id = e.place_id where u.visit_id = #{id}""")
    List<NameRow> names(long id);

    @Insert("insert into visit_unit (visit_id, endpoint_id, bench) values (#{id}, #{u.endpointId}, #{u.bench})"
            + " on conflict (visit_id, endpoint_id) do update set bench = excluded.bench")
    void keepUnit(@Param("id") long id, @Param("u") UnitRow unit);

    @Delete("delete from visit_unit where visit_id = #{id} and endpoint_id = #{endpointId}")
    void dropUnit(@Param("id") long id, @Param("endpointId") long endpointId);

    @Select("select person, endpoint_id, steps, since from visit_hand where visit_id = #{id}")
    List<HandRow> hands(long id);

    /** Takes a device in hand; 0 when it is in hand already, or the person has another. */
    @Insert("""
            insert into visit_hand (visit_id, person, endpoint_id, steps, since)
            values (#{id}, #{h.person}, #{h.endpointId}, #{h.steps}, #{h.since}) on conflict do nothing""")
    int take(@Param("id") long id, @Param("h") HandRow hand);

    @Delete("delete from visit_hand where visit_id = #{id} and person = #{person}")
    int release(@Param("id") long id, @Param("person") int person);

    @Insert("""
            insert into visit_minutes (visit_id, endpoint_id, kind, step, minutes, planned)
            values (#{id}, #{m.endpointId}, #{m.kind}, #{m.step}, #{m.minutes}, #{m.planned})
            on conflict (visit_id, endpoint_id, step) do nothing""")
    void note(@Param("id") long id, @Param("m") MinutesRow minutes);

    @Select(
            "select endpoint_id, kind, step, minutes, planned from visit_minutes where visit_id = #{id} order by endpoint_id, step")
    List<MinutesRow> minutes(long id);

    /** The latest of what is on record, enough for every kind and step. */
    @Select("select endpoint_id, kind, step, minutes, planned from visit_minutes order by visit_id desc limit 20000")
    List<MinutesRow> learned();
}
