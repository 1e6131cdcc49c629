package app.knottag.server.today;

import app.knottag.core.runbook.Stage.Station;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

/** How many wait where, at every site. */
@Mapper
interface TodayStore {

    record WaitingRow(long siteId, String site, String zone, Station station, long waiting, boolean failed) {}

    @Select("""
            select s.id as site_id, s.name as site, s.zone, coalesce(w.station, 'DONE') as station,
            coalesce(w.waiting, 0) as waiting, coalesce(w.failed, false) as failed
            from site s left join (select site_id, station, count(*) as waiting, bool_or(status = 'FAILED') as failed
              from endpoint where retired_at is null and station <> 'DONE' group by site_id, station) w on w.site_id = s.id
            order by s.name, s.id""")
    List<WaitingRow> waiting();
}
