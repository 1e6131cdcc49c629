package app.knottag.server.record;

import app.knottag.core.kind.Opening.Danger;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** What is known of endpoints beside their steps: answers, openings, seals, and the busy hours of a site. */
@Mapper
public interface OnboardStore {

    record FactRow(long endpointId, String key, String value) {}

    record OpeningRow(
            long endpointId,
            String key,
            Danger danger,
            String title,
            String owner,
            @Nullable LocalDate endsOn,
            boolean closed,
            String note,
            String by) {}

    record BusyRow(LocalTime fromTime, LocalTime untilTime, String what) {}

    @Select("select endpoint_id, key, value from endpoint_fact where endpoint_id = #{id}")
    List<FactRow> facts(long id);

    @Select("""
            select f.endpoint_id, f.key, f.value from endpoint_fact f join endpoint e on e.id = f.endpoint_id
            where e.site_id = #{siteId} and e.retired_at is null""")
    List<FactRow> factsOfSite(long siteId);

    @Insert("""
            insert into endpoint_fact (endpoint_id, key, value) values (#{id}, #{key}, #{value})
            on conflict (endpoint_id, key) do update set value = excluded.value""")
    void keepFact(@Param("id") long id, @Param("key") String key, @Param("value") String value);

    @Delete("delete from endpoint_fact where endpoint_id = #{id} and key = #{key}")
    void dropFact(@Param("id") long id, @Param("key") String key);

    @Select("""
            select endpoint_id, key, danger, title, owner, ends_on, closed, note, by from opening where endpoint_id = #{id} order by
                key""")
    List<OpeningRow> openings(long id);

    @Select("""
            select o.endpoint_id, o.key, o.danger, o.title, o.owner, o.ends_on, o.closed, o.note, o.by
            from opening o join endpoint e on e.id = o.endpoint_id
            where e.site_id = #{siteId} and e.retired_at is null order by o.endpoint_id, o.key""")
    List<OpeningRow> openingsOfSite(long siteId);

    @Insert("""
            insert into opening (endpoint_id, key, danger, title, owner, ends_on, closed, note, by)
            values (#{endpointId}, #{key}, #{danger}, #{title}, #{owner}, #{endsOn}, #{closed}, #{note}, #{by})
            on conflict (endpoint_id, key) do update set danger = excluded.danger, title = excluded.title, owner = excluded.owner,
                ends_on = excluded.ends_on, closed = excluded.closed, note = excluded.note, at = now(), by = excluded.by""")
    void keepOpening(OpeningRow row);

    @Delete("delete from opening where endpoint_id = #{id}")
    void dropOpenings(long id);

    @Select("select number from seal")
    List<String> seals();

    @Insert("""
            insert into seal (number, endpoint_id, case_number, by) values (#{number}, #{id}, #{case}, #{by}) on conflict do nothing""")
    int keepSeal(
            @Param("number") String number,
            @Param("id") long id,
            @Param("case") String caseNumber,
            @Param("by") String by);

    @Select("select from_time, until_time, what from busy_time where site_id = #{siteId} order by from_time, id")
    List<BusyRow> busy(long siteId);

    @Delete("delete from busy_time where site_id = #{siteId}")
    void dropBusy(long siteId);

    @Insert("""
            insert into busy_time (site_id, from_time, until_time, what) values (#{siteId}, #{b.fromTime}, #{b.untilTime}, #{b.what})""")
    void keepBusy(@Param("siteId") long siteId, @Param("b") BusyRow row);
}
