package app.knottag.server.verify;

import app.knottag.core.reach.Evidence;
import app.knottag.core.reach.FaultBook.Lately;
import app.knottag.core.reach.Outcome;
import app.knottag.core.reach.Question;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** What endpoints hang on together, what was last seen of them, and what was changed lately. */
@Mapper
interface CaseStore {

    /** What an endpoint hangs on. */
    record HangRow(
            long id,
            String name,
            String segment,
            @Nullable String gear,
            @Nullable String place,
            @Nullable String partner,
            @Nullable Instant renumberedAt) {}

    @Select("""
            select e.id, e.name, s.name as segment, g.name as gear, pl.name as place, p.name as partner,
                (select max(coalesce(r.ended_at, r.started_at)) from renumbering r where r.segment_id = e.segment_id
                    and coalesce(r.ended_at, now()) > #{since}) as renumbered_at
            from endpoint e join segment s on s.id = e.segment_id left join outlet o on o.id = e.outlet_id
            left join port po on po.id = coalesce(e.port_id, o.port_id) left join gear g on g.id = po.gear_id
            left join place pl on pl.id = e.place_id left join partner p on p.id = e.partner_id
            where e.site_id = #{siteId} and e.retired_at is null and e.id = any(string_to_array(#{ids}, ',')::bigint[])""")
    List<HangRow> hang(@Param("siteId") long siteId, @Param("ids") String ids, @Param("since") Instant since);

    /** An answer after the latest run of an endpoint. */
    record SeenRow(long endpointId, long checkRunId, Question question, Outcome outcome, Evidence evidence) {}

    @Select("""
            select l.endpoint_id, l.check_run_id, l.question, l.outcome, l.evidence from diagnosis_answer l
            where l.outcome <> 'CANNOT_BE_TOLD' and l.check_run_id in (select max(id) from check_run where at > #{since}
                and endpoint_id = any(string_to_array(#{ids}, ',')::bigint[]) group by endpoint_id)""")
    List<SeenRow> seen(@Param("ids") String ids, @Param("since") Instant since);

    /** Returns whose run it is, or empty when it is none of this site. */
    @Select("""
            select r.endpoint_id from check_run r join endpoint e on e.id = r.endpoint_id
            where e.site_id = #{siteId} and r.id = #{checkRunId}""")
    Optional<Long> endpointOf(@Param("siteId") long siteId, @Param("checkRunId") long checkRunId);

    @Delete("""
            delete from diagnosis_answer where check_run_id = #{checkRunId} and question = #{question} and by = #{by}
                and evidence = 'SEEN'""")
    int forget(@Param("checkRunId") long checkRunId, @Param("question") Question question, @Param("by") String by);

    /** Something that was changed. */
    record ChangeRow(Lately what, Instant at) {}

    @Select("""
            select what, max(at) as at from (
                select 'RENUMBERED' as what, coalesce(ended_at, started_at) as at from renumbering where segment_id = #{segmentId}
                union all select 'SWAPPED', started_at from swap where endpoint_id = #{endpointId}
                union all select case what when 'MOVE' then 'MOVED' else 'RESET' end, at from device_change where endpoint_id =
                    #{endpointId}
                union all select 'REGISTERED', coalesce(entered_at, asked_at) from registration where endpoint_id = #{endpointId}
                union all select 'FACTS', at from log_entry l where endpoint_id = #{endpointId} and action in ('facts changed',
                    'endpoint changed')
                    and exists (select 1 from sign_off s where s.endpoint_id = #{endpointId} and s.at < l.at)
                union all select 'SHEET', at from log_entry where site_id = #{siteId} and endpoint_id is null and action =
                    'segment changed'
            ) changes where at > #{since} group by what order by max(at) desc""")
    List<ChangeRow> lately(
            @Param("siteId") long siteId,
            @Param("segmentId") long segmentId,
            @Param("endpointId") long endpointId,
            @Param("since") Instant since);
}
