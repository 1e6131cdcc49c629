package app.knottag.server.visit;

import app.knottag.server.db.Json;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Who has what in hand, and how long it really took, as it stands in the database. */
@Mapper
interface HandStore {

    /**
     * @param unitId an endpoint, or a task counted below zero
     * @param way minutes to get there
     */
    record HandRow(int person, long unitId, Json steps, Instant since, int way) {}

    /** Hands of one step, to be noted. */
    record NotedRow(long endpointId, String kind, String step, int minutes, int planned) {}

    /** Hands of one step as they really were, beside what was planned. */
    record MinutesRow(long endpointId, String kind, String model, String step, int minutes, int planned) {}

    @Select("select person, unit_id, steps, since, way from visit_hand where visit_id = #{id}")
    List<HandRow> hands(long id);

    /** What somebody has in hand on a visit that runs. */
    record HeldRow(long visitId, int person, String what) {}

    @Select("""
            select h.visit_id, h.person, coalesce(e.name, t.title, '') as what
            from visit_hand h join visit v on v.id = h.visit_id
            left join endpoint e on e.id = h.unit_id left join visit_task t on t.id = - h.unit_id
            where v.ended_at is null limit 500""")
    List<HeldRow> running();

    /** Takes a device in hand; 0 when it is in hand already, or the person has another. */
    @Insert("""
            insert into visit_hand (visit_id, person, unit_id, steps, since, way)
            values (#{id}, #{h.person}, #{h.unitId}, #{h.steps}, #{h.since}, #{h.way}) on conflict do nothing""")
    int take(@Param("id") long id, @Param("h") HandRow hand);

    @Delete("delete from visit_hand where visit_id = #{id} and person = #{person}")
    int release(@Param("id") long id, @Param("person") int person);

    @Insert("""
            insert into visit_minutes (visit_id, endpoint_id, kind, step, minutes, planned)
            values (#{id}, #{m.endpointId}, #{m.kind}, #{m.step}, #{m.minutes}, #{m.planned})
            on conflict (visit_id, endpoint_id, step) do nothing""")
    void note(@Param("id") long id, @Param("m") NotedRow minutes);

    @Select("""
            select m.endpoint_id, m.kind, e.model, m.step, m.minutes, m.planned
            from visit_minutes m join endpoint e on e.id = m.endpoint_id where m.visit_id = #{id} order by m.endpoint_id, m.step""")
    List<MinutesRow> minutes(long id);

    /** The latest fifty of each step of each model of some kinds. */
    @Select("""
            <script>select endpoint_id, kind, model, step, minutes, planned from (
              select m.*, e.model, row_number() over (partition by m.kind, e.model, m.step
                order by m.visit_id desc, m.endpoint_id) as n
              from visit_minutes m join endpoint e on e.id = m.endpoint_id
              where m.kind in <foreach collection="kinds" item="kind" open="(" separator="," close=")">#{kind}</foreach>) latest
            where n &lt;= 50</script>""")
    List<MinutesRow> learned(@Param("kinds") Collection<String> kinds);
}
