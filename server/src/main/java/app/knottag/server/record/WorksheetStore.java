package app.knottag.server.record;

import app.knottag.server.db.Json;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** What is keyed in on worksheets; those of a site have no endpoint. */
@Mapper
public interface WorksheetStore {

    record WorksheetRow(
            long siteId, @Nullable Long endpointId, String sheet, Json figures, int version, String by, Instant at) {}

    @Select(
            "select site_id, endpoint_id, sheet, figures, version, by, at from worksheet where endpoint_id = #{id} order by sheet")
    List<WorksheetRow> ofEndpoint(long id);

    @Select(
            "select site_id, endpoint_id, sheet, figures, version, by, at from worksheet where endpoint_id = #{id} and sheet = #{sheet}")
    Optional<WorksheetRow> find(@Param("id") long endpointId, @Param("sheet") String sheet);

    @Select("""
            select site_id, endpoint_id, sheet, figures, version, by, at from worksheet
            where site_id = #{id} and endpoint_id is null order by sheet""")
    List<WorksheetRow> ofSite(long id);

    /** Adds a first one; 0 when somebody did so a moment ago. */
    @Insert("""
            insert into worksheet (site_id, endpoint_id, sheet, figures, by) values (#{siteId}, #{endpointId}, #{sheet}, #{figures}, #{by})
            on conflict (site_id, endpoint_id, sheet) do nothing""")
    int add(WorksheetRow row);

    /** Changes one from the version that was seen; 0 when it is another by now. */
    @Update("""
            update worksheet set figures = #{r.figures}, by = #{r.by}, at = now(), version = version + 1
            where site_id = #{r.siteId} and endpoint_id is not distinct from #{r.endpointId} and sheet = #{r.sheet}
            and version = #{r.version}""")
    int change(@Param("r") WorksheetRow row);
}
