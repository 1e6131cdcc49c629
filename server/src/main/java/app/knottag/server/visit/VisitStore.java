package app.knottag.server.visit;

import app.knottag.server.db.Json;
import java.time.Instant;
import java.util.Collection;
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
            Json whereabouts,
            int version) {
        Optional<Instant> latest() {
            return Optional.ofNullable(due);
        }

        boolean begun() {
            return beganAt != null;
        }

        boolean over() {
            return endedAt != null;
        }
    }

    /**
     * @param site the name of its site when that is another one than the visit's, else empty
     * @param model its model, or empty
     * @param aside whether it was left for another day
     */
    record UnitRow(
            long endpointId, long siteId, String site, String model, boolean bench, boolean first, boolean aside) {}

    String ROW =
            "select id, site_id, name, begins, due, brief, plan, began_at, ended_at, whereabouts, version from visit ";

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
            Json whereabouts,
            boolean begun,
            boolean over,
            int units) {}

    String LINE = """
            select v.id, v.site_id, s.name as site, v.name, v.begins, v.due, v.brief, v.whereabouts,
            v.began_at is not null as begun, v.ended_at is not null as over,
            (select count(*)::int from visit_unit u where u.visit_id = v.id) as units
            from visit v join site s on s.id = v.site_id""";

    /** Holds back others who plan anybody's time, until this transaction ends: who is free is looked at and then written. */
    @Select("select count(*) from (select pg_advisory_xact_lock(7406, 0)) held")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    int oneAtATime();

    /** Visits of whatever site that are not over and begin before a moment, other than one of them. */
    @Select(ROW + "where ended_at is null and id <> #{id} and begins < #{before} order by begins desc limit 50")
    List<VisitRow> openBefore(@Param("id") long id, @Param("before") Instant before);

    @Select(ROW + "where site_id = #{siteId} and ended_at is null order by begins, id limit 50")
    List<VisitRow> openOf(long siteId);

    /** A visit is seen by whoever sees every site that it goes to. */
    String SEEN = """
             (#{within}::text is null or v.site_id = any(string_to_array(#{within}, ' ')::bigint[])
              and not exists (select from visit_unit w join endpoint e on e.id = w.endpoint_id
                where w.visit_id = v.id and e.site_id <> all(string_to_array(#{within}, ' ')::bigint[])))\s""";

    @Select(LINE + " where v.ended_at is null and" + SEEN + "order by v.begins, v.id limit 100")
    List<LineRow> open(@Param("within") @Nullable String within);

    @Select(LINE + " where" + SEEN
            + "and (v.site_id = #{siteId} or exists (select from visit_unit w join endpoint e on e.id = w.endpoint_id"
            + " where w.visit_id = v.id and e.site_id = #{siteId})) order by v.begins desc, v.id desc limit 100")
    List<LineRow> ofSite(@Param("siteId") long siteId, @Param("within") @Nullable String within);

    @Select("""
            insert into visit (site_id, name, begins, due, brief)
            values (#{siteId}, #{name}, #{begins}, #{due}, #{brief}) returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long add(VisitRow row);

    @Update("""
            update visit set name = #{name}, begins = #{begins}, due = #{due}, brief = #{brief}, version = version + 1
            where id = #{id} and version = #{version} and ended_at is null""")
    int change(VisitRow row);

    @Update("update visit set plan = #{plan} where id = #{id} and version = #{version}")
    int plan(@Param("id") long id, @Param("version") int version, @Param("plan") Json plan);

    /** Somebody goes to a place; nobody who changes the visit meanwhile has seen less of it. */
    @Update("""
            update visit set whereabouts = whereabouts ||
              jsonb_build_object(cast(#{name} as text), jsonb_build_object('place', cast(#{at.place} as text), 'gone', #{at.gone},
                'since', cast(#{at.since} as timestamptz)))
            where id = #{id}""")
    void goes(@Param("id") long id, @Param("name") String name, @Param("at") VisitBrief.Whereabouts at);

    @Update(
            "update visit set began_at = #{at}, version = version + 1 where id = #{id} and version = #{version} and began_at is null")
    int begin(@Param("id") long id, @Param("version") int version, @Param("at") Instant at);

    @Update("""
            update visit set ended_at = #{at}, version = version + 1
            where id = #{id} and version = #{version} and began_at is not null and ended_at is null""")
    int end(@Param("id") long id, @Param("version") int version, @Param("at") Instant at);

    @Select("""
            select u.endpoint_id, e.site_id, case when e.site_id = v.site_id then '' else s.name end as site, e.model, u.bench,
              u.first, u.aside
            from visit_unit u join visit v on v.id = u.visit_id join endpoint e on e.id = u.endpoint_id
            join site s on s.id = e.site_id where u.visit_id = #{id} order by u.endpoint_id""")
    List<UnitRow> units(long id);

    record ThereRow(long id, long siteId) {}

    /** Those of some endpoints that are not retired. */
    @Select("""
            <script>select id, site_id from endpoint where retired_at is null and id in
            <foreach collection="ids" item="id" open="(" separator="," close=")">#{id}</foreach></script>""")
    List<ThereRow> there(@Param("ids") Collection<Long> ids);

    record NameRow(long endpointId, long siteId, String name, String place, String serial) {}

    @Select("""
            select u.endpoint_id, e.site_id, e.name, case when e.site_id = v.site_id then coalesce(p.name, '')
              else s.name || coalesce(': ' || p.name, '') end as place, e.serial
            from visit_unit u join visit v on v.id = u.visit_id join endpoint e on e.id = u.endpoint_id
            join site s on s.id = e.site_id left join place p on p.id = e.place_id where u.visit_id = #{id}""")
    List<NameRow> names(long id);

    @Insert("insert into visit_unit (visit_id, endpoint_id, bench, first)"
            + " values (#{id}, #{u.endpointId}, #{u.bench}, #{u.first})"
            + " on conflict (visit_id, endpoint_id) do update set bench = excluded.bench, first = excluded.first")
    void keepUnit(@Param("id") long id, @Param("u") UnitRow unit);

    @Update("update visit_unit set aside = #{aside} where visit_id = #{id} and endpoint_id = #{endpointId}")
    int aside(@Param("id") long id, @Param("endpointId") long endpointId, @Param("aside") boolean aside);

    @Delete("delete from visit_unit where visit_id = #{id} and endpoint_id = #{endpointId}")
    void dropUnit(@Param("id") long id, @Param("endpointId") long endpointId);
}
