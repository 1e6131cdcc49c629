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
            select s.id as site_id, s.name as site, s.zone, coalesce(e.station, 'DONE') as station,
            count(e.id) as waiting, coalesce(bool_or(e.status = 'FAILED'), false) as failed
            from site s left join endpoint e on e.site_id = s.id and e.retired_at is null
            group by s.id, s.name, s.zone, e.station order by s.name, s.id""")
    List<WaitingRow> waiting();
}
