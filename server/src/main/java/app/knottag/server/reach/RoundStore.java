package app.knottag.server.reach;

import app.knottag.server.db.Json;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Rounds of checks as they came out; never changed afterwards. */
@Mapper
public interface RoundStore {

    record Row(long id, Instant at, String by, boolean failed, Json results) {}

    @Select(
            "insert into round (endpoint_id, at, by, failed, results) values (#{endpointId}, #{at}, #{by}, #{failed}, #{results}) returning id")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long add(
            @Param("endpointId") long endpointId,
            @Param("at") Instant at,
            @Param("by") String by,
            @Param("failed") boolean failed,
            @Param("results") Json results);

    // What was proved of a unit says nothing of the one that took its place.
    @Select("""
            select id, at, by, failed, results from round where endpoint_id = #{endpointId}
            and at > coalesce((select max(started_at) from swap where endpoint_id = #{endpointId}), '-infinity') order by id desc limit 1""")
    Row latest(long endpointId);

    /** A look that was made after a round; one that nobody could make has an empty outcome. */
    record LookRow(String look, String outcome, Instant at, String by) {}

    @Select(
            "select look, outcome, at, by from diagnosis_look where endpoint_id = #{endpointId} and round_id = #{roundId} order by at, look")
    List<LookRow> looks(@Param("endpointId") long endpointId, @Param("roundId") long roundId);

    @Insert("""
            insert into diagnosis_look (endpoint_id, round_id, look, outcome, by) values (#{endpointId}, #{roundId}, #{look}, #{outcome}, #{by})
            on conflict (endpoint_id, round_id, look) do update set outcome = excluded.outcome, at = now(), by = excluded.by""")
    void keepLook(
            @Param("endpointId") long endpointId,
            @Param("roundId") long roundId,
            @Param("look") String look,
            @Param("outcome") String outcome,
            @Param("by") String by);
}
